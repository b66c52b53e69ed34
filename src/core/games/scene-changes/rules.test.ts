import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../../chat/emotes";
import { chanceFrom, pick } from "../../kernel/chance";
import { deepFreeze } from "../../kernel/freeze";
import { readCommand } from "../../module/command";
import { bareContext } from "../../module/module";
import type { Order } from "../../module/order";
import type { Command, Signal } from "../../signals/signal";
import { studio } from "./definition";
import { freshStudio, type SceneAnswer, studioDefaults, type StudioDurable, type StudioSettings, studioSettingsSchema } from "./settings";

const scenes = ["Throwing", "Kiln door", "Glaze bench", "Tea"];
/** A channel with a studio that answers when it is let; times in seconds. */
function evening(part: Partial<StudioSettings> = {}, rehearsing = false) {
  const settings = studioSettingsSchema.parse({ ...studioDefaults, ...part });
  let durable: StudioDurable = freshStudio();
  let seq = 0;
  const asked: { n: number; scene: string; atS: number }[] = [];
  const kept: { kind: string; body: { scene: string; code: string } }[] = [];
  const ctx = bareContext(emoteIndex([]), { rehearsing });
  const give = (signal: object, atS: number): string[] => {
    seq += 1;
    const given = { seq, atMs: atS * 1_000, id: `s${seq}`, ...signal } as Signal;
    const outcome = studio.step(deepFreeze({ settings, durable, transient: null }), given, ctx);
    durable = studio.durable.parse(JSON.parse(JSON.stringify(outcome.durable)));
    for (const k of outcome.kept ?? []) kept.push({ kind: k.kind, body: k.body as { scene: string; code: string } });
    for (const order of (outcome.orders ?? []) as Order[]) if (order.do === "studio") asked.push({ n: order.n, scene: order.scene, atS });
    return outcome.notes.map((note) => note.refusal?.code ?? note.did ?? "");
  };
  const play = {
    command: (command: Command, atS: number): string[] => {
      const read = readCommand(studio, command);
      if (!read.ok) throw new Error(JSON.stringify(read.refusal));
      return give({ kind: "command", gameId: "s", by: "maria", viewer: null, command: read.value }, atS);
    },
    stands: (current: string | null, atS: number, has = scenes) =>
      play.command({ do: "stands", connected: true, name: "rig", scenes: has, current }, atS),
    gone: (atS: number) => play.command({ do: "stands", connected: false, name: "", scenes: [], current: null }, atS),
    go: (scene: string, holdS: number, atS: number) => play.command({ do: "go", scene, holdMs: holdS * 1_000 }, atS),
    /** The studio does what it was asked last, and says so. */
    does: (atS: number): string[] => play.command({ do: "went", n: asked.at(-1)?.n ?? 0 }, atS),
    raid: (viewers: number, atS: number) => give({ kind: "raid", viewer: { id: "a", name: "ada", roles: [] }, viewers }, atS),
    until: (atS: number): string[] => {
      const notes: string[] = [];
      for (let due = studio.dueMs!(settings, durable), k = 0; due !== null && due <= atS * 1_000 && k < 100; k += 1) {
        notes.push(...give({ kind: "timer", moduleId: "s" }, due / 1_000));
        due = studio.dueMs!(settings, durable);
      }
      return notes;
    },
    asked,
    kept,
    get now() {
      return durable;
    },
    get current() {
      return durable.studio.current;
    },
  };
  return play;
}
const answers = (kind: keyof StudioSettings["answers"], part: Partial<SceneAnswer>): Pick<StudioSettings, "answers"> => ({
  answers: { ...studioDefaults.answers, [kind]: { ...studioDefaults.answers[kind], on: true, ...part } },
});

describe("a scene that holds", () => {
  test("is gone to, holds for its time, and goes back to where it was", () => {
    const s = evening();
    s.stands("Throwing", 0);
    s.go("Kiln door", 10, 1);
    expect(s.current).toBe("Throwing");
    expect(s.does(1.2)).toEqual(["scenes/went"]);
    expect(s.current).toBe("Kiln door");
    s.until(11);
    expect(s.asked).toHaveLength(1);
    s.until(11.3);
    expect(s.asked[1]).toMatchObject({ scene: "Throwing", atS: 11.2 });
    expect(s.does(11.4)).toEqual(["scenes/returned"]);
    expect([s.current, s.now.hold]).toEqual(["Throwing", null]);
  });
  test("of 0 seconds stays", () => {
    const s = evening();
    s.stands("Throwing", 0);
    s.go("Tea", 0, 1);
    s.does(1.2);
    s.until(10_000);
    expect([s.asked.length, s.current, s.now.hold]).toEqual([1, "Tea", null]);
  });
  test("goes back nowhere when an operator, or another program, moved on meanwhile", () => {
    const s = evening();
    s.stands("Throwing", 0);
    s.go("Kiln door", 10, 1);
    s.does(1.2);
    expect(s.stands("Tea", 5)).toEqual(["scenes/moved-on"]);
    s.until(60);
    expect([s.asked.length, s.current]).toEqual([1, "Tea"]);
    const hand = evening();
    hand.stands("Throwing", 0);
    hand.go("Kiln door", 10, 1);
    hand.does(1.2);
    hand.command({ do: "switch-to", scene: "Tea" }, 3);
    hand.does(3.1);
    hand.until(60);
    expect([hand.asked.map((a) => a.scene), hand.current]).toEqual([["Kiln door", "Tea"], "Tea"]);
  });
  test("what the studio tells before it answers is its own doing, not somebody's", () => {
    const s = evening();
    s.stands("Throwing", 0);
    s.go("Kiln door", 10, 1);
    expect(s.stands("Kiln door", 1.1)).toEqual([]);
    s.does(1.2);
    expect(s.now.hold).toMatchObject({ scene: "Kiln door", back: "Throwing" });
  });
  test("where it was is gone by then: it stays, and says so", () => {
    const s = evening();
    s.stands("Throwing", 0);
    s.go("Tea", 5, 1);
    s.does(1);
    s.stands("Tea", 3, ["Tea", "Kiln door"]);
    expect(s.until(7)).toEqual(["scenes/unknown-scene"]);
    expect(s.asked).toHaveLength(1);
  });
});

describe("another one meanwhile", () => {
  const held = (meanwhile: StudioSettings["meanwhile"], mostWaiting = 5) => {
    const s = evening({ meanwhile, mostWaiting });
    s.stands("Throwing", 0);
    s.go("Kiln door", 10, 1);
    s.does(1);
    return s;
  };
  test("adds its time to the same scene, and waits for another", () => {
    const s = held("extend");
    expect(s.go("Kiln door", 10, 5)).toEqual(["scenes/extended"]);
    expect(s.go("Tea", 4, 6)).toEqual(["scenes/waits"]);
    s.until(20);
    expect(s.asked).toHaveLength(1);
    s.until(21);
    expect(s.asked[1]).toMatchObject({ scene: "Tea" });
    s.does(21);
    s.until(26);
    // Back to where all began, not to the scene between.
    expect(s.asked[2]).toMatchObject({ scene: "Throwing" });
  });
  test("waits, so many at most", () => {
    const s = held("wait", 1);
    expect(s.go("Kiln door", 10, 5)).toEqual(["scenes/waits"]);
    expect(s.go("Tea", 10, 5)).toEqual(["scenes/full"]);
  });
  test("is left out, and says what holds", () => {
    const s = held("drop");
    expect(s.go("Tea", 10, 5)).toEqual(["scenes/holds"]);
  });
  test("two at the same instant: one is asked for, the other comes after it", () => {
    const s = evening({ meanwhile: "wait" });
    s.stands("Throwing", 0);
    s.go("Kiln door", 5, 1);
    expect(s.go("Tea", 5, 1)).toEqual(["scenes/waits"]);
    expect(s.asked).toHaveLength(1);
    s.does(1.1);
    s.until(7);
    expect(s.asked.map((a) => a.scene)).toEqual(["Kiln door", "Tea"]);
  });
});

describe("a studio that is away", () => {
  test("is told so to who asks; nothing hangs", () => {
    const s = evening();
    expect(s.go("Tea", 5, 1)).toEqual(["scenes/away"]);
    s.stands("Throwing", 2);
    s.go("Tea", 5, 3);
    s.go("Kiln door", 5, 3);
    expect(s.gone(4)).toEqual(["scenes/away", "scenes/away"]);
    expect([s.now.asked, s.now.waiting, studio.dueMs!(studioDefaults, s.now)]).toEqual([null, [], null]);
  });
  test("in the middle of a hold: back in time it goes back; later, nothing is done late", () => {
    const s = evening();
    s.stands("Throwing", 0);
    s.go("Tea", 10, 1);
    s.does(1);
    s.gone(3);
    s.stands("Tea", 6);
    s.until(11.5);
    expect(s.asked.at(-1)).toMatchObject({ scene: "Throwing" });
    const late = evening();
    late.stands("Throwing", 0);
    late.go("Tea", 10, 1);
    late.does(1);
    late.gone(3);
    expect(late.until(11.5)).toEqual(["scenes/no-return"]);
    late.stands("Tea", 20);
    late.until(200);
    expect([late.asked.length, late.now.hold]).toEqual([1, null]);
  });
  test("that refuses or says nothing is not waited for", () => {
    const s = evening({ meanwhile: "wait" });
    s.stands("Throwing", 0);
    s.go("Tea", 5, 1);
    s.go("Kiln door", 5, 1);
    expect(s.command({ do: "not-went", n: s.asked[0]!.n, why: "locked" }, 2)).toEqual(["scenes/refused"]);
    expect(s.asked[1]).toMatchObject({ scene: "Kiln door" });
    expect(s.until(30)).toEqual(["scenes/silent"]);
    expect(s.does(31)).toEqual([]);
  });
});

describe("by themselves", () => {
  test("a raid of at least so many, only from the scenes that are set", () => {
    const s = evening(answers("raid", { least: 10, scene: "Kiln door", holdMs: 5_000, onlyIn: ["Throwing"] }));
    s.stands("Throwing", 0);
    s.raid(9, 1);
    expect(s.asked).toHaveLength(0);
    s.raid(10, 2);
    expect(s.asked[0]).toMatchObject({ scene: "Kiln door" });
    const other = evening(answers("raid", { least: 10, scene: "Kiln door", onlyIn: ["Throwing"] }));
    other.stands("Tea", 0);
    expect(other.raid(50, 1)).toEqual(["scenes/other-scene"]);
  });
  test("only from some scenes is judged when its turn comes, by where the show is", () => {
    const held = (back: string) => {
      const s = evening({ ...answers("raid", { least: 1, scene: "Glaze bench", holdMs: 5_000, onlyIn: ["Throwing"] }), meanwhile: "wait" });
      s.stands(back, 0);
      s.go("Kiln door", 10, 1);
      s.does(1);
      return s;
    };
    const s = held("Throwing");
    expect(s.raid(50, 3)).toEqual(["scenes/waits"]);
    s.until(11);
    expect(s.asked.at(-1)).toMatchObject({ scene: "Glaze bench" });
    s.does(11);
    s.until(17);
    expect(s.asked.at(-1)).toMatchObject({ scene: "Throwing" });
    // From another scene its turn comes in vain. It says so, and the show goes back.
    const other = held("Tea");
    expect(other.raid(50, 3)).toEqual(["scenes/waits"]);
    expect(other.until(11)).toEqual(["scenes/other-scene"]);
    expect(other.asked.at(-1)).toMatchObject({ scene: "Tea" });
    expect(other.kept.at(-1)).toMatchObject({ kind: "change", body: { scene: "Glaze bench", by: "ada", code: "scenes/other-scene" } });
  });
  test("of several that wait the first that may begins; nothing that is left out goes without a word", () => {
    const s = evening({ ...answers("raid", { least: 1, scene: "Glaze bench", holdMs: 5_000, onlyIn: ["Tea"] }), meanwhile: "wait" });
    s.stands("Throwing", 0);
    s.go("Kiln door", 10, 1);
    s.does(1);
    s.raid(9, 2);
    s.go("Tea", 4, 3);
    expect(s.until(11)).toEqual(["scenes/other-scene"]);
    expect(s.asked.at(-1)).toMatchObject({ scene: "Tea" });
    s.does(11);
    s.raid(9, 12);
    s.go("Kiln door", 5, 12);
    expect(s.command({ do: "switch-to", scene: "Throwing" }, 13)).toEqual(["scenes/by-hand", "scenes/by-hand"]);
    s.does(13);
    s.go("Tea", 5, 14);
    s.does(14);
    s.raid(9, 15);
    expect(s.command({ do: "switch", on: false }, 15)).toEqual(["scenes/off", "scenes/switched-off"]);
    expect(s.kept.filter((k) => k.body.code === "").map((k) => k.body.scene)).toEqual(["Kiln door", "Tea", "Throwing", "Tea"]);
  });
  test("a scene that is on already, one that is not there, none at all", () => {
    const s = evening();
    s.stands("Throwing", 0);
    s.go("KILN dóor", 0, 1);
    expect(s.asked[0]).toMatchObject({ scene: "Kiln door" });
    s.does(1);
    s.stands("Throwing", 1);
    expect([s.go("Throwing", 5, 1), s.go("__proto__", 5, 1), s.go(" ", 5, 1), s.command({ do: "back" }, 1)]).toEqual([
      ["scenes/there"],
      ["scenes/unknown-scene"],
      ["scenes/no-scene"],
      ["scenes/nothing-holds"],
    ]);
  });
  test("a rehearsal leaves the studio alone", () => {
    const s = evening({}, true);
    s.stands("Throwing", 0);
    expect([s.go("Tea", 5, 1), s.asked]).toEqual([["scenes/rehearsed"], []]);
  });
});

test("whatever comes in whatever order: nothing holds for ever, and who is asked is asked of a scene that is there", () => {
  for (let seed = 1; seed <= 60; seed += 1) {
    const chance = chanceFrom(seed);
    const s = evening({ meanwhile: (["extend", "wait", "drop"] as const)[seed % 3]! });
    let atS = 0;
    for (let k = 0; k < 120; k += 1) {
      atS += chance() * 4;
      s.until(atS);
      const scene = scenes[pick(chance, scenes.length)]!;
      const what = pick(chance, 8);
      if (what < 3) s.go(scene, pick(chance, 12), atS);
      else if (what < 5) s.does(atS);
      else if (what === 5) s.stands(scene, atS);
      else if (what === 6) s.gone(atS);
      else s.command({ do: "not-went", n: s.asked.at(-1)?.n ?? 0, why: "no" }, atS);
      if (s.now.hold !== null) expect(s.now.hold.untilMs).toBeGreaterThanOrEqual(atS * 1_000);
      expect(s.now.waiting.length).toBeLessThanOrEqual(5);
    }
    s.gone(atS);
    s.until(atS + 10_000);
    expect([s.now.hold, s.now.asked, s.now.waiting]).toEqual([null, null, []]);
    for (const { scene } of s.asked) expect(scenes).toContain(scene);
  }
});
