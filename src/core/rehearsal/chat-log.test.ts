import { describe, expect, test } from "@jest/globals";
import { mostChatLines, ratesOfChat, readChatLog } from "./chat-log";

const told = (text: string) => readChatLog(text).lines.map((l) => [l.afterMs / 1_000, l.name, l.text]);

describe("a log of past chat", () => {
  test("lines of an IRC log, with and without date, seconds and brackets, and with signs before names", () => {
    expect(
      told("[2026-11-20 19:03:11] <ada> hello\n[2026-11-20 19:03:14] <@mo> good evening\n(19:03:20) <+loamy> <3\n19:04 <ada> so even\n"),
    ).toEqual([
      [0, "ada", "hello"],
      [3, "mo", "good evening"],
      // The date is gone from there on: nothing is waited for that nobody can know.
      [3, "loamy", "<3"],
      [3, "ada", "so even"],
    ]);
  });
  test("over midnight, where a clock has no date", () => {
    expect(told("[23:59:58] <ada> late\n[00:00:03] <mo> later\n[00:00:05] <ada> !")).toEqual([
      [0, "ada", "late"],
      [5, "mo", "later"],
      [7, "ada", "!"],
    ]);
  });
  test("IRC messages with their server time, and without", () => {
    expect(
      told(
        "@msgid=1;time=2026-11-20T19:00:00.000Z :ada!a@b PRIVMSG #kiln :one: two\n@time=2026-11-20T19:00:02.500Z :mo PRIVMSG #kiln :three\n:ada!a@b PRIVMSG #kiln four",
      ),
    ).toEqual([
      [0, "ada", "one: two"],
      [2.5, "mo", "three"],
      [5.5, "ada", "four"],
    ]);
  });
  test("JSON Lines, times as text or milliseconds; what is no whole object says why and keeps none of the others out", () => {
    const log = readChatLog(
      [
        '{"at":"2026-11-20T19:00:00Z","name":"ada","text":"hi"}',
        '{"at":1795201201000,"name":"__proto__","text":"constructor"}',
        '{"name":"ada"',
        '{"name":"ada"}',
        '{"text":"hi"}',
        "null",
        "hello there",
      ].join("\n"),
    );
    expect(log.lines.map((l) => l.name)).toEqual(["ada", "__proto__"]);
    expect([log.left, log.people]).toEqual([5, 2]);
    expect(log.problems.map((p) => `${p.line} ${p.says}`)).toEqual([
      "3 This is no whole JSON object.",
      "4 It has no “text”.",
      "5 It has no “name”.",
      "6 It is no chat line: neither time and <name>, nor an IRC message, nor JSON.",
      "7 It is no chat line: neither time and <name>, nor an IRC message, nor JSON.",
    ]);
  });
  test("comments and empty lines are no lines; a pause of days is one of ten minutes; times that go back wait for nothing", () => {
    expect(
      told(
        "# from the old room\n--- Log opened ---\n\n[2026-11-18 19:00:00] <ada> a\n[2026-11-20 19:00:00] <ada> b\n[2026-11-20 18:00:00] <mo> c",
      ),
    ).toEqual([
      [0, "ada", "a"],
      [600, "ada", "b"],
      [600, "mo", "c"],
    ]);
    expect(readChatLog("[25:00:00] <ada> no").problems[0]?.says).toBe("There is no such time of day.");
  });
  test("what is very long is cut, what is far too much is left out and said, and nothing takes for ever", () => {
    expect(readChatLog(`<ada> ${"x".repeat(5_000)}`).lines[0]?.text).toHaveLength(500);
    const many = readChatLog(Array.from({ length: mostChatLines + 3 }, (_, i) => `<v${i % 9}> ${i}`).join("\n"));
    expect([many.lines.length, many.left, many.people]).toEqual([mostChatLines, 3, 9]);
    const began = performance.now();
    readChatLog(`${"[".repeat(300_000)}\n${"<".repeat(300_000)}\n${" ".repeat(300_000)}x\n@${"a".repeat(300_000)}`);
    expect(performance.now() - began).toBeLessThan(2_000);
    expect(readChatLog("")).toMatchObject({ lines: [], ms: 0 });
  });
  test("an evening like it: as long, as many, as much, and no tips that nobody knows of", () => {
    const log = readChatLog("[19:00:00] <ada> wobblePot\n[19:30:00] <mo> no\n[19:40:00] <mo> no\n[19:50:00] <ada> wobblePot");
    const rates = ratesOfChat(log, (text) => text.includes("wobblePot"));
    // A pause counts for ten minutes at most.
    expect(rates).toMatchObject({ hours: 0.5, chatters: 2, emotes: 0.5, perHour: { message: 8, tip: 0 } });
  });
});
