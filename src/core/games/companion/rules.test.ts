import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../../chat/emotes";
import { deepFreeze } from "../../kernel/freeze";
import { readCommand } from "../../module/command";
import { bareContext } from "../../module/module";
import type { Command, Signal, Touches } from "../../signals/signal";
import type { Role } from "../../signals/names";
import { companion } from "./definition";
import { freshDust } from "./rules";
import {
  companionDefaults,
  type CompanionDurable,
  type CompanionSettings,
  companionSettingsSchema,
  freshCompanion,
  moodAt,
} from "./settings";

const minute = 60_000;
const viewer = (name: string, roles: readonly Role[] = []) => ({ id: name, name, roles });
function evening(part: Partial<CompanionSettings> = {}) {
  const settings = companionSettingsSchema.parse({ ...companionDefaults, ...part });
  let durable: CompanionDurable = freshCompanion();
  let transient = freshDust();
  let seq = 0;
  const ctx = bareContext(emoteIndex([]), { hiddenWords: ["crackpot"] });
  type Outcome = ReturnType<typeof companion.step>;
  const give = (signal: object, atMs: number): Outcome => {
    seq += 1;
    const outcome = companion.step(deepFreeze({ settings, durable, transient }), { seq, atMs, id: `s${seq}`, ...signal } as Signal, ctx);
    durable = companion.durable.parse(JSON.parse(JSON.stringify(outcome.durable)));
    transient = outcome.transient;
    // As the engine does it: in a turn of its own.
    for (const order of outcome.orders ?? [])
      if (order.do === "apart" && order.command !== null) play.command(order.command, atMs, order.viewer);
    return outcome;
  };
  const play = {
    live: (atMs = 0) => give({ kind: "live", viewer: null }, atMs),
    ended: (atMs: number) => give({ kind: "ended", viewer: null }, atMs),
    arrives: (name: string, atMs = 0) => give({ kind: "arrival", viewer: viewer(name), shows: 1, beforeMs: null }, atMs),
    says: (text: string, atMs = 0, roles: readonly Role[] = []) =>
      give({ kind: "message", viewer: viewer("ada", roles), text, marks: [] }, atMs),
    signal: (kind: string, atMs = 0) =>
      give(
        {
          kind,
          viewer: viewer("ada"),
          months: 1,
          count: 1,
          amountMinor: 100,
          homeMinor: 100,
          viewers: 9,
          recipients: [],
          text: "",
          currency: "EUR",
        },
        atMs,
      ),
    touched: (touches: Touches, atMs = 0) =>
      give({ kind: "happened", gameId: "boss", what: "boss/hit", viewer: null, amount: 1, text: "", touches }, atMs),
    command: (command: Command, atMs = 0, by: ReturnType<typeof viewer> | null = null): Outcome => {
      const read = readCommand(companion, command);
      if (!read.ok) throw new Error(JSON.stringify(read.refusal));
      return give({ kind: "command", gameId: "c", by: "maria", viewer: by, command: read.value }, atMs);
    },
    until: (atMs: number): void => {
      for (
        let due = companion.dueMs!(settings, durable), n = 0;
        due !== null && due <= atMs && n < 500;
        due = companion.dueMs!(settings, durable), n += 1
      )
        give({ kind: "timer", moduleId: "c" }, due);
    },
    restart: () => void (transient = freshDust()),
    mood: (atMs: number) => moodAt(durable, settings.moodPerHour, atMs),
    get now() {
      return durable;
    },
    get doing() {
      return durable.doing === null ? null : [durable.doing.state, durable.doing.bubble];
    },
  };
  play.live();
  return play;
}
const codes = (o: { notes: readonly { refusal?: { code: string }; did?: string }[] }): string[] =>
  o.notes.map((n) => n.refusal?.code ?? n.did ?? "");

describe("what it does", () => {
  test("greets by name, in lines that do not come again until all were said", () => {
    const c = evening({ hello: ["a {viewer}", "b {viewer}", "c {viewer}"], bubbleMs: 1_000 });
    const bubbles: string[] = [];
    for (let i = 0; i < 9; i += 1) {
      c.until(i * 10_000);
      c.arrives(`v${i}`, i * 10_000);
      bubbles.push(c.now.doing!.bubble);
    }
    for (let i = 0; i < 9; i += 3)
      expect(
        bubbles
          .slice(i, i + 3)
          .map((b) => b[0])
          .sort(),
      ).toEqual(["a", "b", "c"]);
    expect(bubbles[4]).toMatch(/^. v4$/);
    expect(codes(evening({ hello: [] }).arrives("ada"))).toEqual([]);
  });
  test("answers words, each resting by itself and for its roles; what viewers wrote is made fit", () => {
    const answers = [
      { word: "!pet", state: "cheer" as const, bubble: "{viewer}: {text}", restMs: 15_000, roles: ["viewer" as const] },
      { word: "!nap", state: "sleep" as const, bubble: "", restMs: 0, roles: ["moderator" as const] },
    ];
    const c = evening({ answers });
    c.says("!PET you crackpot");
    expect(c.doing).toEqual(["cheer", "ada: you ••••••••"]);
    expect(codes(c.says("!pet", 14_000))).toEqual(["companion/rests"]);
    expect(codes(c.says("!nap", 14_000))).toEqual(["companion/role"]);
    c.until(15_000);
    c.says("!pet", 15_001);
    expect(c.doing?.[0]).toBe("cheer");
  });
  test("cheers at what is set, jumps at raids and heavy blows, and at no light ones", () => {
    const c = evening({ cheers: { ...companionDefaults.cheers, follow: false } });
    c.signal("follow");
    expect(c.doing).toBeNull();
    c.signal("tip");
    expect(c.doing?.[0]).toBe("cheer");
    c.until(minute);
    c.touched({ blow: 0.4 }, minute);
    expect(c.doing).toBeNull();
    c.touched({ blow: 0.9 }, minute);
    expect(c.doing?.[0]).toBe("startle");
    c.until(2 * minute);
    c.touched({ people: ["ada"] }, 2 * minute);
    expect(c.doing).toBeNull();
    c.touched({ joy: true, blow: 1 }, 2 * minute);
    expect(c.doing?.[0]).toBe("cheer");
  });
  test("one thing after another; a storm of signals leaves the rest out", () => {
    const c = evening();
    for (let i = 0; i < 300; i += 1) c.signal("tip", 10);
    expect(c.now.next.length).toBeLessThanOrEqual(6);
    expect(codes(c.signal("tip", 11))).toEqual(["companion/busy"]);
    c.until(minute);
    expect([c.doing, c.now.next]).toEqual([null, []]);
  });
  test("a message changes nothing that must be stored", () => {
    const c = evening();
    const before = c.now;
    const outcome = c.says("hello", 5);
    expect(outcome.orders ?? []).toEqual([]);
    expect(outcome.durable).toEqual(before);
  });
});

describe("sleep", () => {
  test("after so many quiet minutes; the next word wakes it", () => {
    const c = evening({ sleepMin: 10 });
    c.says("hello", 4 * minute);
    c.until(13 * minute);
    expect(c.now.asleep).toBe(false);
    c.until(14 * minute);
    expect(c.now.asleep).toBe(true);
    c.says("anybody?", 20 * minute);
    expect(c.now.asleep).toBe(false);
    c.until(30 * minute);
    expect(c.now.asleep).toBe(true);
    c.signal("tip", 31 * minute);
    expect([c.now.asleep, c.doing?.[0]]).toEqual([false, "cheer"]);
  });
  test("after a restart it is as if somebody just had written", () => {
    const c = evening({ sleepMin: 10 });
    c.restart();
    c.until(10 * minute);
    expect(c.now.asleep).toBe(false);
    c.until(20 * minute);
    expect(c.now.asleep).toBe(true);
  });
  test("one that was added in the middle of a show takes part from then on", () => {
    const at = { settings: companionDefaults, durable: freshCompanion(), transient: freshDust() };
    const after = (signal: object, showId: string | null) =>
      companion.step(at, { seq: 1, atMs: minute, id: "s1", ...signal } as Signal, bareContext(emoteIndex([]), { showId })).durable;
    const follow = { kind: "follow", viewer: viewer("ada") };
    expect(after(follow, "s")).toMatchObject({ showing: true, lookMs: 11 * minute, mood: { thousandths: 70_000, atMs: minute } });
    expect(after(follow, null).showing).toBe(false);
    // What is done in the turn that ends a show does not begin it again.
    expect(after({ kind: "command", gameId: "c", by: "m", viewer: null, command: { do: "feed", amount: 1 } }, "s").showing).toBe(false);
  });
  test("never, where that is set, and off air", () => {
    const c = evening({ sleepMin: 0 });
    c.until(300 * minute);
    expect(c.now.asleep).toBe(false);
    const off = evening();
    off.ended(minute);
    off.until(300 * minute);
    expect(off.now.asleep).toBe(false);
  });
});

describe("a dance", () => {
  test("lasts until it is told otherwise, or the show ends; asked twice, it says so", () => {
    const c = evening();
    c.command({ do: "dance" });
    expect([c.now.dancing, codes(c.command({ do: "dance" }))]).toEqual([true, ["companion/dancing-already"]]);
    c.command({ do: "calm" });
    expect([c.now.dancing, codes(c.command({ do: "calm" }))]).toEqual([false, ["companion/not-dancing"]]);
    c.command({ do: "dance" });
    c.ended(minute);
    expect(c.now.dancing).toBe(false);
  });
  test("wakes it; sleep ends it", () => {
    const c = evening();
    c.command({ do: "do", state: "sleep", bubble: "" });
    c.command({ do: "dance" });
    expect([c.now.asleep, c.now.dancing]).toEqual([false, true]);
    c.command({ do: "do", state: "sleep", bubble: "" });
    expect([c.now.asleep, c.now.dancing]).toEqual([true, false]);
    expect(codes(c.command({ do: "do", state: "sleep", bubble: "" }))).toEqual(["companion/asleep-already"]);
  });
});

describe("people and words that are odd", () => {
  test("who is on its list, and who holds the show, are not greeted", () => {
    const c = evening({ ignored: ["KilnBot"] });
    c.arrives("kilnbot");
    expect(c.doing).toBeNull();
    c.arrives("constructor");
    expect(c.doing?.[0]).toBe("greet");
  });
  test("a word written twice before the first was stored is answered once", () => {
    const answers = [{ word: "!pet", state: "cheer" as const, bubble: "", restMs: 15_000, roles: ["viewer" as const] }];
    const c = evening({ answers });
    c.command({ do: "answer", word: "!pet", text: "" }, 0, viewer("ada"));
    expect(codes(c.command({ do: "answer", word: "!pet", text: "" }, 5, viewer("bo")))).toEqual(["companion/rests"]);
    expect(c.now.next).toEqual([]);
    // A word that was taken out of the settings meanwhile.
    expect(codes(c.command({ do: "answer", word: "__proto__", text: "" }, 5, viewer("bo")))).toEqual([]);
  });
  test("what somebody calls themselves is never read as a format, and is made fit", () => {
    const c = evening({ hello: ["oh, {viewer}"] });
    c.arrives("{mood}\u202e\u0000 crackpot");
    expect(c.doing?.[1]).toMatch(/^oh, \{mood\} •+$/);
  });
  test("two answers by the same word, a line of no words, and a variable that is not there can’t be kept", () => {
    const twice = ["!Pet", "!pet"].map((word) => ({ word, state: "cheer", bubble: "", restMs: 0, roles: ["viewer"] }));
    const reads = (part: object) => companionSettingsSchema.safeParse({ ...companionDefaults, ...part }).success;
    expect([reads({ answers: twice }), reads({ hello: [""] }), reads({ hello: ["{price}"] }), reads({ hello: ["{viewer"] })]).toEqual([
      false,
      false,
      false,
      false,
    ]);
  });
});

describe("care", () => {
  test("whoever watches sees each whole percent that it falls, when it does", () => {
    const c = evening({ moodPerHour: 60, sleepMin: 0 });
    const seen: number[] = [];
    for (let m = 1; m <= 10; m += 1) {
      c.until(m * minute + 1_000);
      seen.push(Number(companion.view({ ...companionDefaults }, c.now, "operator")["mood"]));
    }
    expect(seen).toEqual([68, 67, 66, 65, 64, 63, 62, 61, 60, 59]);
    c.until(600 * minute);
    expect([c.mood(600 * minute), companion.dueMs!({ ...companionDefaults, moodPerHour: 60, sleepMin: 0 }, c.now)]).toEqual([0, null]);
  });
  test("its mood falls by so much an hour of show, and not between shows; food gives it back, up to all", () => {
    const c = evening({ moodPerHour: 10 });
    const start = c.mood(0);
    expect(c.mood(3 * 60 * minute)).toBe(start - 30);
    c.ended(3 * 60 * minute);
    expect(c.mood(90 * 60 * minute)).toBe(start - 30);
    c.live(100 * 60 * minute);
    c.command({ do: "feed", amount: 20 }, 100 * 60 * minute);
    expect([c.mood(100 * 60 * minute), c.doing?.[0]]).toEqual([start - 10, "eat"]);
    for (let i = 0; i < 20; i += 1) c.command({ do: "feed", amount: 100 }, 100 * 60 * minute);
    expect(c.mood(100 * 60 * minute)).toBe(100);
    expect(c.mood(1_000 * 60 * minute)).toBe(0);
  });
  test("food counts though it is busy, and others can answer it", () => {
    const c = evening();
    for (let i = 0; i < 20; i += 1) c.signal("tip", 0);
    const before = c.mood(0);
    const fed = c.command({ do: "feed", amount: 5 }, 0, viewer("bo"));
    expect(c.mood(0)).toBe(before + 5);
    expect(fed.orders).toContainEqual(expect.objectContaining({ do: "emit", what: "companion/fed", amount: 5 }));
  });
  test("off, it does nothing, and says so to who asks", () => {
    const c = evening();
    c.command({ do: "switch", on: false });
    expect([codes(c.signal("tip")), codes(c.command({ do: "feed", amount: 5 }))]).toEqual([[], ["companion/off"]]);
    expect(codes(c.command({ do: "switch", on: false }))).toEqual(["companion/already-off"]);
  });
});
