import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../../chat/emotes";
import { deepFreeze } from "../../kernel/freeze";
import { readCommand } from "../../module/command";
import { bareContext } from "../../module/module";
import type { Command, Signal } from "../../signals/signal";
import { presenting } from "./definition";
import { freshPresenting, presentingDefaults, type PresentingDurable, type PresentingSettings, presentingSettingsSchema } from "./settings";

const viewer = (name: string) => ({ id: name, name, roles: [] });
function evening(part: Partial<PresentingSettings> = {}) {
  const settings = presentingSettingsSchema.parse({ ...presentingDefaults, ...part });
  let durable: PresentingDurable = freshPresenting();
  let seq = 0;
  const ctx = bareContext(emoteIndex([]), { hiddenWords: ["crackpot"] });
  const give = (signal: object, atMs: number) => {
    seq += 1;
    const outcome = presenting.step(
      deepFreeze({ settings, durable, transient: null }),
      { seq, atMs, id: `s${seq}`, ...signal } as Signal,
      ctx,
    );
    durable = presenting.durable.parse(JSON.parse(JSON.stringify(outcome.durable)));
    return outcome;
  };
  const play = {
    command: (command: Command, atMs = 0, by: string | null = null) => {
      const read = readCommand(presenting, command);
      if (!read.ok) throw new Error(JSON.stringify(read.refusal));
      return give({ kind: "command", gameId: "p", by: by ?? "maria", viewer: by === null ? null : viewer(by), command: read.value }, atMs);
    },
    present: (name: string, atMs = 0, by: string | null = null) => play.command({ do: "present", name }, atMs, by),
    found: (name: string, atMs = 0, more: object = {}) =>
      play.command({ do: "found", name, page: `https://platform.example/${name}`, topic: "Bread", about: "", ...more }, atMs),
    raid: (name: string, viewers: number, atMs = 0) => give({ kind: "raid", viewer: viewer(name), viewers }, atMs),
    until: (atMs: number): void => {
      for (let due = presenting.dueMs!(settings, durable); due !== null && due <= atMs; due = presenting.dueMs!(settings, durable))
        give({ kind: "timer", moduleId: "p" }, due);
    },
    get now() {
      return durable;
    },
  };
  return play;
}
const codes = (o: { notes: readonly { refusal?: { code: string }; did?: string }[] }): string[] =>
  o.notes.map((n) => n.refusal?.code ?? n.did ?? "");
const says = (o: { orders?: readonly { do: string }[] }): string[] =>
  (o.orders ?? []).flatMap((order) => (order.do === "say" ? [(order as unknown as { text: string }).text] : []));

describe("presenting somebody", () => {
  test("is looked for, then shown and told; whom is kept", () => {
    const p = evening();
    expect(p.present("@ada").orders).toEqual([{ do: "look-up", name: "ada" }]);
    expect(p.now.now).toBeNull();
    const found = p.found("ada", 100);
    expect(p.now.now?.person).toMatchObject({ name: "ada", page: "https://platform.example/ada", topic: "Bread" });
    expect(says(found)).toEqual(["Have a look at ada: https://platform.example/ada"]);
    expect(found.kept).toMatchObject([{ kind: "presented", body: { name: "ada", by: "maria" } }]);
    p.until(10_100);
    expect(p.now.now).toBeNull();
  });
  test("who can't be found is never shown half: chat is told, and nothing is shown", () => {
    const p = evening();
    p.present("nobody");
    const gone = p.command({ do: "not-found", name: "nobody", away: false });
    expect([codes(gone), says(gone), p.now.now]).toEqual([["presenting/not-found"], ["Nobody called nobody was found."], null]);
    p.present("ada");
    expect(says(p.command({ do: "not-found", name: "ada", away: true }))).toEqual([
      "ada could not be looked for: the platform does not answer.",
    ]);
    // Only who was silent is blamed.
    p.present("bo");
    expect(says(p.command({ do: "not-found", name: "bo", away: true, late: true }))).toEqual([
      "bo could not be found in time. Try again in a moment.",
    ]);
  });
  test("a platform that never answers is not waited for; what comes too late is nothing", () => {
    const p = evening();
    p.present("ada", 0);
    p.until(19_999);
    expect(p.now.asked).toHaveLength(1);
    p.until(20_000);
    expect(p.now.asked).toEqual([]);
    expect(codes(p.found("ada", 20_001))).toEqual([]);
    expect(p.now.now).toBeNull();
  });
  test("not the same again within its time, but by hand", () => {
    const p = evening({ againMs: 60_000 });
    p.present("ada");
    p.found("ada");
    expect(codes(p.present("Ada", 30_000, "bo"))).toEqual(["presenting/again"]);
    expect(codes(p.present("ÁDA", 30_000))).toEqual(["presenting/asked"]);
    p.found("ada", 30_001);
    expect(codes(p.present("ada", 90_002, "bo"))).toEqual(["presenting/asked"]);
  });
  test("twice at once is looked for once; more than may wait are refused", () => {
    const p = evening({ mostWaiting: 1 });
    p.present("ada");
    expect(codes(p.present("ADA"))).toEqual(["presenting/asked-already"]);
    p.found("ada");
    p.present("bo");
    p.found("bo");
    p.present("cy");
    expect(codes(p.present("dee"))).toEqual(["presenting/full"]);
  });
  test("a raid of enough viewers presents the raider; without the chat hearing of one who can't be found", () => {
    const p = evening({ raidLeast: 20 });
    expect(p.raid("loamy", 19).orders).toBeUndefined();
    expect(p.raid("loamy", 20).orders).toEqual([{ do: "look-up", name: "loamy" }]);
    expect(says(p.command({ do: "not-found", name: "loamy", away: false }))).toEqual([]);
    expect(evening({ raidLeast: 0 }).raid("loamy", 5_000).orders).toBeUndefined();
  });
  test.each(["", "   ", "@", "two words", "\u200b"])("%j is no name", (name) =>
    expect(codes(evening().present(name))).toEqual(["presenting/no-name"]),
  );
  test("what a platform tells is made fit for the picture", () => {
    const p = evening();
    p.present("ada");
    p.found("ada", 0, { topic: "a crackpot\u202e idea", about: "http://evil.invalid {name} {page, plural}" });
    expect(p.now.now?.person).toMatchObject({ topic: "a •••••••• idea", about: "(link) {name} {page, plural}" });
  });
  test("skipped, the next comes at once; off, nobody is looked for", () => {
    const p = evening();
    for (const name of ["ada", "bo"]) {
      p.present(name);
      p.found(name);
    }
    p.command({ do: "skip" }, 5);
    expect(p.now.now?.person.name).toBe("bo");
    p.command({ do: "switch", on: false }, 6);
    expect(codes(p.present("cy", 7))).toEqual(["presenting/off"]);
    expect(codes(p.command({ do: "skip" }, 7))).toEqual(["presenting/nothing-shown"]);
  });
});
