import { describe, expect, test } from "@jest/globals";
import { bareContext, type Note, type StepOutcome } from "../../module/module";
import { emoteIndex } from "../../chat/emotes";
import { readStored } from "../../kernel/stored";
import { replay } from "../../module/replay";
import type { Command, Signal } from "../../signals/signal";
import type { Role } from "../../signals/names";
import type { WallTransient } from "./transient";
import type { WallCommand } from "./actions";
import { emoteWall } from "./definition";
import { type WallDurable, wallDefaults, type WallEffect, type WallSettings, wallSettingsSchema } from "./settings";

const ctx = {
  ...bareContext(emoteIndex([])),
  emotes: emoteIndex([
    { id: "w", word: "wobblePot" },
    { id: "k", word: "kilnGlow" },
  ]),
  salt: 5,
};
let seq = 0;
const says = (name: string, text: string, atMs = 0, roles: Role[] = []): Signal => ({
  kind: "message",
  seq: (seq += 1),
  atMs,
  id: `m${seq}`,
  viewer: { id: name, name, roles },
  text,
  marks: [],
});
const command = (what: Command, atMs = 0): Signal => ({
  kind: "command",
  seq: (seq += 1),
  atMs,
  id: `h${seq}`,
  gameId: "wall",
  by: "owner",
  viewer: null,
  command: what,
});
const flock = (part: Partial<Extract<WallCommand, { do: "flock" }>> = {}): Command => ({
  do: "flock",
  count: 30,
  overMs: 1_000,
  emotes: { from: "most-used", chosen: [] },
  motion: "",
  trim: "",
  ...part,
});
const wall = (part: Partial<WallSettings> = {}): WallSettings =>
  wallSettingsSchema.parse({ ...wallDefaults, perViewer: { ...wallDefaults.perViewer, on: false }, ...part });
const combo = (part: Partial<WallSettings["combo"]>): WallSettings["combo"] => ({ ...wallDefaults.combo, on: true, ...part });

type Outcome = StepOutcome<WallDurable, WallTransient, WallEffect>;
const run = (settings: WallSettings, ...signals: Signal[]): readonly Outcome[] => replay(emoteWall, settings, signals, ctx);
const keys = (outcome: Outcome): readonly string[] => outcome.effects.flatMap((e) => (e.do === "spawn" ? e.keys : []));
const shown = (outcomes: readonly Outcome[]): number[] =>
  outcomes.map((o) => o.effects.reduce((n, e) => n + (e.do === "spawn" ? e.count : 0), 0));
const codes = (outcome: Outcome): string[] => outcome.notes.flatMap((n) => (n.refusal ? [n.refusal.code] : []));
const noteOf = (outcome: Outcome, code: string): Note => outcome.notes.find((n) => n.refusal?.code === code)!;

describe("the emote wall, in the order of its rules", () => {
  test("an emote written in chat spawns once, with a seed that follows from its sequence number", () => {
    const [first, again] = [run(wall(), says("ada", "look wobblePot"))[0]!, run(wall(), says("ada", "look wobblePot"))[0]!];
    expect(keys(first)).toEqual(["own:w"]);
    expect(first.notes).toMatchObject([{ did: "wall/shown", count: 1 }]);
    expect(first.effects[0]).not.toEqual(again.effects[0]);
  });
  test("a wall that is switched off holds back, and says so", () => {
    const [, held, , back] = run(
      wall(),
      command({ do: "switch", on: false }),
      says("ada", "wobblePot"),
      command({ do: "switch", on: true }),
      says("ada", "wobblePot"),
    );
    expect(codes(held!)).toEqual(["wall/off"]);
    expect(keys(back!)).toEqual(["own:w"]);
  });
  test("switching off clears the picture, and doing it twice is refused", () => {
    const [off, twice] = run(wall(), command({ do: "switch", on: false }), command({ do: "switch", on: false }));
    expect(off!.durable).toEqual({ on: false, worn: [] });
    expect(off!.effects).toEqual([{ do: "clear" }]);
    expect(codes(twice!)).toEqual(["wall/already-off"]);
    expect(twice!.durable).toBe(off!.durable);
  });
  test("only the roles allowed may send", () => {
    const settings = wall({ roles: ["member", "streamer"] });
    const [viewer, member, moderator] = run(
      settings,
      says("a", "wobblePot"),
      says("b", "wobblePot", 0, ["member"]),
      says("c", "wobblePot", 0, ["moderator"]),
    );
    expect([codes(viewer!), keys(member!), codes(moderator!)]).toEqual([["wall/role"], ["own:w"], ["wall/role"]]);
  });
  test("a message without emotes leaves a note and nothing else", () => {
    const [none] = run(wall(), says("ada", "good pull"));
    expect([none!.effects, codes(none!)]).toEqual([[], ["wall/no-emotes"]]);
  });
  test("each emote once per message, where so set; then the most per message", () => {
    const [once] = run(wall({ eachOncePerMessage: true, mostPerMessage: 1 }), says("ada", "wobblePot wobblePot kilnGlow"));
    expect(keys(once!)).toEqual(["own:w"]);
    expect(noteOf(once!, "wall/repeat").count).toBe(1);
    expect(noteOf(once!, "wall/most-per-message")).toMatchObject({ count: 1, refusal: { facts: { most: 1 } } });
  });
  test("singles can be off", () => {
    const [held] = run(wall({ singles: false }), says("ada", "wobblePot kilnGlow"));
    expect([held!.effects, noteOf(held!, "wall/singles-off").count]).toEqual([[], 2]);
  });
});

describe("combos", () => {
  const three = wall({ combo: combo({ needed: 3, withinMs: 10_000 }) });
  test("ten copies at three spawn three and leave one", () => {
    const outcomes = run(
      wall({ mostPerMessage: 100, combo: combo({ needed: 3 }) }),
      says("ada", Array(10).fill("wobblePot").join(" ")),
      says("bo", "wobblePot"),
      says("cy", "wobblePot"),
    );
    expect(shown(outcomes)).toEqual([3, 0, 1]);
    expect(noteOf(outcomes[0]!, "wall/combo-waiting").refusal!.facts).toMatchObject({ seen: 1, needed: 3 });
  });
  test("copies older than the time no longer count; the edge itself is too old", () => {
    expect(shown(run(three, says("a", "kilnGlow", 0), says("b", "kilnGlow", 5_000), says("c", "kilnGlow", 9_999)))).toEqual([0, 0, 1]);
    expect(shown(run(three, says("a", "kilnGlow", 0), says("b", "kilnGlow", 5_000), says("c", "kilnGlow", 10_000)))).toEqual([0, 0, 0]);
  });
  test("says how many of how many were seen, for each emote by its word", () => {
    const [, second] = run(three, says("a", "kilnGlow"), says("b", "kilnGlow wobblePot"));
    expect(second!.notes.map((n) => [n.subject, n.refusal?.facts["seen"]])).toEqual([
      ["kilnGlow", 2],
      ["wobblePot", 1],
    ]);
  });
  test("each viewer can be counted once", () => {
    const settings = wall({ combo: combo({ needed: 2, counted: "viewers" }) });
    const outcomes = run(settings, says("a", "kilnGlow kilnGlow kilnGlow"), says("a", "kilnGlow"), says("b", "kilnGlow"));
    expect(shown(outcomes)).toEqual([0, 0, 1]);
    expect(codes(outcomes[1]!)).toEqual(["wall/combo-counted-once"]);
  });
  test("all that made it up can appear, each charged to whoever wrote it", () => {
    const settings = wall({ perViewer: { on: true, most: 1, withinMs: 60_000 }, combo: combo({ needed: 3, spawns: "all" }) });
    const outcomes = run(settings, says("a", "kilnGlow kilnGlow"), says("b", "kilnGlow"));
    // a wrote two of the three but may show one.
    expect(shown(outcomes)).toEqual([0, 2]);
    expect(noteOf(outcomes[1]!, "wall/viewer-limit").count).toBe(1);
  });
  test("roles and emoji may stand apart", () => {
    const settings = wall({ combo: combo({ needed: 2, roles: ["member"], emoji: false }) });
    expect(shown(run(settings, says("a", "kilnGlow"), says("m", "kilnGlow", 0, ["member"]), says("m", "🔥", 0, ["member"])))).toEqual([
      1, 0, 1,
    ]);
  });
  test("different emotes never make one combo", () =>
    expect(shown(run(wall({ combo: combo({ needed: 2 }) }), says("a", "kilnGlow"), says("b", "wobblePot")))).toEqual([0, 0]));
});

describe("most per viewer in a rolling time", () => {
  const settings = wall({ perViewer: { on: true, most: 2, withinMs: 10_000 } });
  test("is charged only for what spawns, and says when the next is free", () => {
    const outcomes = run(
      settings,
      says("a", "kilnGlow", 0),
      says("a", "kilnGlow kilnGlow", 3_000),
      says("a", "kilnGlow", 10_000),
      says("a", "kilnGlow", 10_001),
    );
    expect(shown(outcomes)).toEqual([1, 1, 1, 0]);
    expect(noteOf(outcomes[1]!, "wall/viewer-limit").refusal!.facts).toEqual({ most: 2, withinS: 10, freeInS: 7 });
  });
  test("what waits for a combo is not charged", () => {
    const both = wall({ perViewer: { on: true, most: 1, withinMs: 60_000 }, combo: combo({ needed: 3 }) });
    expect(
      shown(
        run(
          both,
          says("a", "kilnGlow"),
          says("b", "kilnGlow"),
          says("a", "kilnGlow"),
          says("b", "kilnGlow"),
          says("c", "kilnGlow"),
          says("a", "kilnGlow"),
        ),
      ),
    ).toEqual([0, 0, 1, 0, 0, 0]);
  });
  test("one viewer's limit is nobody else's", () =>
    expect(shown(run(settings, says("a", "kilnGlow kilnGlow kilnGlow"), says("b", "kilnGlow kilnGlow")))).toEqual([2, 2]));
});

describe("flocks", () => {
  test("fly those written most in the last minutes, most first, even while singles are off", () => {
    const settings = wall({ singles: false, flock: { ...wallDefaults.flock, minutes: 1 } });
    const outcomes = run(
      settings,
      says("a", "wobblePot", 0),
      says("a", "kilnGlow kilnGlow", 1_000),
      command(flock(), 2_000),
      command(flock(), 90_000),
    );
    expect(keys(outcomes[2]!)).toEqual(["own:k", "own:w"]);
    expect(shown(outcomes)).toEqual([0, 0, 30, 0]);
    expect(codes(outcomes[3]!)).toEqual(["wall/flock-nothing-used"]);
  });
  test("fly the chosen ones in their own way of moving; none chosen is told", () => {
    const [chosen, none] = run(
      wall(),
      command(flock({ emotes: { from: "chosen", chosen: ["own:w"] }, motion: "rain", count: 2_000 })),
      command(flock({ emotes: { from: "chosen", chosen: [] } })),
    );
    expect(chosen!.effects).toMatchObject([{ do: "spawn", keys: ["own:w"], count: 2_000, motion: "rain" }]);
    expect(codes(none!)).toEqual(["wall/flock-nothing-chosen"]);
  });
  test("an unknown way of moving falls back to the flock's own", () =>
    expect(run(wall(), command(flock({ emotes: { from: "chosen", chosen: ["x"] }, motion: "moonwalk" })))[0]!.effects).toMatchObject([
      { motion: wallDefaults.flock.motion },
    ]));
  test("a wall that is off has none", () =>
    expect(
      codes(run(wall(), command({ do: "switch", on: false }), command(flock({ emotes: { from: "chosen", chosen: ["x"] } })))[1]!),
    ).toEqual(["wall/off"]));
});

describe("trimmings", () => {
  const trim = (id: string, part: Partial<WallSettings["trims"][number]> = {}): WallSettings["trims"][number] => ({
    id,
    picture: `prop:${id}`,
    when: "always",
    from: "2026-12-01",
    to: "2026-12-24",
    size: 60,
    x: 0,
    y: -45,
    ...part,
  });
  const worn = (outcome: Outcome): readonly string[] => outcome.effects.flatMap((e) => (e.do === "spawn" ? [e.trims.join(" ")] : []));
  const at = (day: string): number => Date.parse(`${day}T20:00:00Z`);
  test("are worn always, between days, or when told; by their number, for so long", () => {
    const s = wall({ trims: [trim("cap"), trim("bell", { when: "dates" }), trim("wig", { when: "told" })] });
    const day = at("2026-12-24");
    const outcomes = run(
      s,
      says("ada", "wobblePot", at("2026-11-30")),
      says("ada", "wobblePot", day),
      command({ do: "wear", trim: 3, on: "on", forMs: 60_000 }, day),
      says("ada", "wobblePot", day + 59_999),
      says("ada", "wobblePot", day + 60_000),
      command({ do: "wear", trim: 3, on: "on", forMs: 0 }, day + 70_000),
      says("ada", "wobblePot", at("2026-12-25")),
      command({ do: "wear", trim: 3, on: "off", forMs: 0 }, at("2026-12-25")),
      says("ada", "wobblePot", at("2026-12-25")),
    );
    expect(outcomes.flatMap(worn)).toEqual(["cap", "cap bell", "cap bell wig", "cap bell", "cap wig", "cap"]);
  });
  test("one flock wears its own beside them; one that is not there is refused", () => {
    const s = wall({ trims: [trim("cap"), trim("wig", { when: "told" })] });
    const [first, second] = run(
      s,
      command(flock({ emotes: { from: "chosen", chosen: ["own:w"] }, trim: "2" })),
      command(flock({ emotes: { from: "chosen", chosen: ["own:w"] }, trim: "5" })),
    );
    expect(worn(first!)).toEqual(["cap wig"]);
    expect(codes(second!)).toEqual(["wall/no-trim"]);
  });
  test("what is stored of a wall without them is read as one that wears nothing", () => {
    const { trims: _, onFrames: __, ...old } = wallDefaults;
    const read = readStored(emoteWall.settings, emoteWall.settingsSteps, 1, { ...old, schema: 1 });
    expect(read).toEqual({ ok: true, value: wallDefaults });
    expect(emoteWall.durable.parse({ on: true })).toEqual({ on: true, worn: [] });
  });
});
