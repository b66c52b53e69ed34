import { describe, expect, test } from "@jest/globals";
import { chanceFrom, pick } from "../kernel/chance";
import { escapeTag, formatLine, longestLine, parseLine, tagValue, unescapeTag } from "./line";

describe("parsing a line (RFC 2812, IRCv3 message tags)", () => {
  test("a message with tags, prefix and trailing text", () => {
    expect(parseLine("@msgid=1;a=b :nick!user@host PRIVMSG #kiln :hello : there")).toEqual({
      tags: "msgid=1;a=b",
      from: "nick",
      command: "PRIVMSG",
      params: ["#kiln", "hello : there"],
    });
  });
  test.each([
    ["PING :abc", { tags: "", from: "", command: "PING", params: ["abc"] }],
    [":server 001 me :Welcome", { tags: "", from: "server", command: "001", params: ["me", "Welcome"] }],
    [":n JOIN #a", { tags: "", from: "n", command: "JOIN", params: ["#a"] }],
    ["@t  :n   PRIVMSG   #a   :x", { tags: "t", from: "n", command: "PRIVMSG", params: ["#a", "x"] }],
    [":n PRIVMSG #a :", { tags: "", from: "n", command: "PRIVMSG", params: ["#a", ""] }],
    [":n PRIVMSG #a ::)", { tags: "", from: "n", command: "PRIVMSG", params: ["#a", ":)"] }],
  ])("%s", (line, expected) => expect(parseLine(line)).toEqual(expected));
  test.each(["", "@only-tags", ":only-prefix", "@a :b", "12 x", "PRIV1MSG #a :x", " ", "@a=1 :b 99999 c"])("%j is not a message", (line) =>
    expect(parseLine(line)).toBeNull(),
  );
  test("a line over the limit is refused, one at the limit is taken", () => {
    const head = "PRIVMSG #a :";
    expect(parseLine(head + "x".repeat(longestLine - head.length))).not.toBeNull();
    expect(parseLine(head + "x".repeat(longestLine - head.length + 1))).toBeNull();
  });
  test("no bytes whatever make it throw", () => {
    const chance = chanceFrom(99);
    const alphabet = "@: ;=\\,#!\0\u0001\uFFFD\u200Babc123PRIVMSG\uD83D\uDD25";
    for (let i = 0; i < 5_000; i += 1) {
      const line = Array.from({ length: pick(chance, 60) }, () => alphabet[pick(chance, alphabet.length)]).join("");
      const parsed = parseLine(line);
      if (parsed !== null) tagValue(parsed.tags, "a");
    }
  });
});

describe("tags", () => {
  test("the value of the tag asked for, and of no tag that only looks like it", () => {
    const tags = "display=Ada;badge-info=x;badge=y/1;flag;name=";
    expect(tagValue(tags, "badge")).toBe("y/1");
    expect(tagValue(tags, "flag")).toBe("");
    expect(tagValue(tags, "name")).toBe("");
    expect(tagValue(tags, "info")).toBeNull();
    expect(tagValue(tags, "isplay")).toBeNull();
    expect(tagValue("", "a")).toBeNull();
  });
  test("escapes as IRCv3 lists them, and back", () => {
    expect(unescapeTag("a\\:b\\sc\\\\d\\re\\nf\\g")).toBe("a;b c\\d\re\nfg");
    expect(unescapeTag("lone\\")).toBe("lone");
    for (const value of ["a;b c", "\\:", "line\r\nbreak", "plain", "semi;;  \\\\"]) expect(unescapeTag(escapeTag(value))).toBe(value);
  });
});

describe("writing a line", () => {
  test("what is written is read back as it was meant", () => {
    const line = formatLine("PRIVMSG", ["#kiln", "hello : there "], { from: "me!me@x", tags: { a: "b;c", flag: "" } });
    const back = parseLine(line);
    expect(back).toMatchObject({ from: "me", command: "PRIVMSG", params: ["#kiln", "hello : there "] });
    expect(tagValue(back!.tags, "a")).toBe("b;c");
    expect(tagValue(back!.tags, "flag")).toBe("");
  });
  test("a line break in a text can't smuggle in a second command", () => {
    expect(formatLine("PRIVMSG", ["#kiln", "hi\r\nQUIT :bye\0"])).toBe("PRIVMSG #kiln :hi  QUIT :bye ");
  });
});
