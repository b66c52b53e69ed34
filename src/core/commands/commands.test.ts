import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../chat/emotes";
import { bareContext } from "../module/module";
import { emptyLedgerView } from "../rewards/ledger-view";
import type { Signal } from "../signals/signal";
import type { Role } from "../signals/names";
import { commandsFromJson, commandsFromRows, commandsOut, rowsOut } from "./files";
import { commandRules } from "./rules";
import { commandNoteInWords } from "./notes";
import { type CommandBook, commandBookDefaults, commandBookSchema, newCommand, type OwnCommand } from "./settings";

const command = (part: Partial<OwnCommand> = {}): OwnCommand => ({ ...newCommand("c1", "!kiln", "The kiln is at cone {count}."), ...part });
const book = (...commands: OwnCommand[]): CommandBook => commandBookSchema.parse({ ...commandBookDefaults, commands });
const setUp = (settings: CommandBook) => {
  let at = { settings, durable: commandRules.freshDurable(settings), transient: commandRules.freshDust() };
  let seq = 0;
  const ctx = bareContext(emoteIndex([]), {
    ledgerView: { ...emptyLedgerView, balance: () => 1_240 },
    pointsName: "clay",
    hiddenWords: ["crackpot"],
  });
  return (text: string, atMs = 0, who = "ada", roles: Role[] = []) => {
    seq += 1;
    const out = commandRules.step(
      at,
      { kind: "message", seq, atMs, id: `s${seq}`, viewer: { id: who, name: who, roles }, text, marks: [] } as Signal,
      ctx,
    );
    at = { ...at, durable: out.durable, transient: out.transient };
    const said = out.orders?.[0];
    return { said: said?.do === "say" ? said.text : "", note: out.notes[0], durable: out.durable };
  };
};

describe("a channel's own commands", () => {
  test("answer with variables, whatever the capitals, by any of their words", () => {
    const say = setUp(
      book(
        command({
          words: ["!kiln", "!cone"],
          answers: ["{viewer} asks {target} about {text}: {balance} {points} on {channel}"],
          cooldownMs: 0,
        }),
      ),
    );
    expect(say("!KILN @bo why").said).toBe("ada asks bo about @bo why: 1,240 clay on Saltmarsh Kiln");
    expect(say("!cone").said).toContain("ada asks ada about");
    expect(say("!cone @crackpot").said).not.toMatch(/crackpot/i);
    expect(say("the !kiln").said).toBe("");
  });
  test("rest, for everyone and for each, and keep to roles", () => {
    const say = setUp(book(command({ answers: ["hot"], cooldownMs: 10_000, ownCooldownMs: 60_000 })));
    expect(say("!kiln", 0).said).toBe("hot");
    expect(commandNoteInWords(say("!kiln", 4_000, "bo").note!)).toBe("!kiln is on cooldown for 6 s more");
    expect(say("!kiln", 10_000, "bo").said).toBe("hot");
    expect(say("!kiln", 30_000, "ada").note?.refusal?.facts["freeInS"]).toBe(30);
    const mods = setUp(book(command({ roles: ["moderator"], answers: ["hot"] })));
    expect(mods("!kiln").note?.refusal?.code).toBe("command/role");
    expect(mods("!kiln", 0, "mo", ["moderator"]).said).toBe("hot");
  });
  test("count durably, take answers in turn, or by chance: every one comes, and the same seed gives the same", () => {
    const counted = setUp(book(command({ counts: true, answers: ["{count, plural, one {# crack} other {# cracks}}"], cooldownMs: 0 })));
    expect([counted("!kiln").said, counted("!kiln").said]).toEqual(["1 crack", "2 cracks"]);
    expect(counted("!kiln").durable.counts).toEqual({ c1: 3 });
    const turns = setUp(book(command({ how: "in-turn", answers: ["a", "b"], cooldownMs: 0 })));
    expect([1, 2, 3].map(() => turns("!kiln").said)).toEqual(["a", "b", "a"]);
    const random = () => {
      const say = setUp(book(command({ how: "random", answers: ["a", "b", "c", ""], cooldownMs: 0 })));
      return Array.from({ length: 60 }, () => say("!kiln").said);
    };
    expect(new Set(random())).toEqual(new Set(["a", "b", "c"]));
    expect(random()).toEqual(random());
  });
  test("what is wrong is told at save: a variable that is none, a word twice", () => {
    const problem = (value: unknown) => commandBookSchema.safeParse(value).error?.issues[0]?.message ?? "";
    expect(problem({ ...commandBookDefaults, commands: [command({ answers: ["{glaze}"] })] })).toContain("“glaze” is no variable here");
    expect(problem({ ...commandBookDefaults, commands: [command(), command({ id: "c2", words: ["!KILN"] })] })).toContain("stands twice");
  });
  test("go out and come in as JSON and CSV; what can't be used says why", () => {
    const have = book(command(), command({ id: "c2", words: ["!glaze"], answers: ["red", "blue"], how: "random" }));
    const back = commandsFromJson(commandsOut(have), commandBookDefaults, (i) => `n${i}`);
    expect(back).toMatchObject({ problems: [], commands: [{ words: ["!kiln"] }, { words: ["!glaze"], answers: ["red", "blue"] }] });
    const rows = commandsFromRows(rowsOut(have), commandBookDefaults, (i) => `n${i}`);
    expect(rows.commands.map((c) => [c.words[0], c.answers.length])).toEqual([
      ["!kiln", 1],
      ["!glaze", 2],
    ]);
    const bad = commandsFromRows(
      [
        ["!kiln", "again"],
        ["two words", "x"],
        ["!ok", "{nothing}"],
        ["!good", "yes"],
      ],
      have,
      (i) => `n${i}`,
    );
    expect(bad.commands.map((c) => c.words[0])).toEqual(["!good"]);
    expect(bad.problems).toEqual([
      expect.stringContaining("Line 2: A chat word has no spaces"),
      expect.stringContaining("Line 3: !ok: “nothing” is no variable"),
      "“!kiln” is there already; it was left as it is.",
    ]);
    expect(commandsFromJson("{", have, String).problems).toEqual(["This is not JSON."]);
  });
});
