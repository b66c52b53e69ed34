import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../../chat/emotes";
import { bareContext, type StepContext } from "../../module/module";
import type { Signal, Touches } from "../../signals/signal";
import type { Viewer } from "../../signals/names";
import { brimful } from "./definition";
import { brimfulNoteInWords } from "./notes";
import { areaOf, bodyOf, fullness, mostBatches, piecesIn, shareOf } from "./pile";
import { type BrimfulDurable, type BrimfulSettings, brimfulSettingsSchema, brimfulDefaults, newTier } from "./settings";
import { outlineOf } from "./outline";

const ctx = bareContext(emoteIndex([{ id: "w", word: "wobblePot" }]));
const ada: Viewer = { id: "ada", name: "Ada", roles: [] };
const bo: Viewer = { id: "bo", name: "Bo", roles: [] };
type Part<T> = T extends unknown ? Omit<T, "seq" | "atMs" | "id"> : never;
const set = (part: Partial<BrimfulSettings> = {}): BrimfulSettings => brimfulSettingsSchema.parse({ ...brimfulDefaults, ...part });
const tip = (viewer: Viewer | null, minor: number, text = ""): Part<Signal> => ({
  kind: "tip",
  viewer,
  amountMinor: minor,
  currency: "EUR",
  homeMinor: minor,
  text,
});
const order = (command: Record<string, unknown> & { do: string }, viewer: Viewer | null = null): Part<Signal> => ({
  kind: "command",
  gameId: "b",
  by: "kilnkeeper",
  viewer,
  command,
});
const drop = (amount: number, mass = 5, size = 0) => order({ do: "drop", amount, what: "pieces", size, mass });

/** Plays signals ten seconds apart. */
function play(settings: BrimfulSettings, parts: readonly Part<Signal>[], context: StepContext = ctx, from?: BrimfulDurable) {
  let durable = from ?? brimful.freshDurable(settings);
  const outcomes = parts.map((part, i) => {
    const signal = { ...part, seq: i + 1, atMs: (i + 1) * 10_000, id: `s${i}` } as Signal;
    const outcome = brimful.step({ settings, durable, transient: null }, signal, context);
    durable = outcome.durable;
    return outcome;
  });
  return { durable, outcomes, words: outcomes.flatMap((o) => o.notes.map(brimfulNoteInWords)), last: outcomes[outcomes.length - 1]! };
}
const lookOf = (durable: BrimfulDurable, batch: number) => durable.pile.looks.find((l) => l.n === durable.pile.batches[batch]?.look);

describe("what falls", () => {
  test("by the tier of the amount: how many, how large, how heavy, how springy, of what form", () => {
    const s = set();
    const { durable } = play(s, [tip(ada, 300), tip(bo, 2_500)]);
    expect(durable.pile.batches.map((b) => [b.count, b.by])).toEqual([
      [3, ""],
      [1, ""],
      [1, "Bo"],
    ]);
    expect(lookOf(durable, 0)).toMatchObject({ size: 100, mass: 5, bounce: 25, body: "circle", face: false });
    expect(lookOf(durable, 1)).toMatchObject({ size: 300, mass: 80, bounce: 10, body: "box", solid: 95 });
    expect(lookOf(durable, 2)).toMatchObject({ size: 120, mass: 5, body: "circle", face: true });
  });
  test("an exact amount wins over the highest least amount that is reached", () => {
    const exact = newTier("exact", { at: "exact", amount: 420, pieces: { give: 7, per: 0, most: 10 } });
    const s = set({ drops: { ...brimfulDefaults.drops, tip: [...brimfulDefaults.drops.tip, exact] } });
    expect(play(s, [tip(ada, 420)]).durable.pile.batches[0]?.count).toBe(7);
    expect(play(s, [tip(ada, 421)]).durable.pile.batches[0]?.count).toBe(4);
  });
  test("two tiers of one amount are refused at save", () => {
    const twice = [newTier("a"), newTier("b")];
    const read = brimfulSettingsSchema.safeParse({ ...brimfulDefaults, drops: { ...brimfulDefaults.drops, follow: twice } });
    expect(read.success).toBe(false);
    expect(read.error?.issues[0]?.message).toContain("Two tiers");
  });
  test("four small tips count as much as one, for each viewer, until the show ends", () => {
    const s = set();
    const { outcomes, durable } = play(s, [tip(ada, 40), tip(bo, 40), tip(ada, 40), tip(ada, 40)]);
    expect(outcomes.map((o) => o.notes[0]?.count)).toEqual([1, 1, 1, 1]);
    expect(outcomes.map((o) => o.notes[0]?.did ?? o.notes[0]?.refusal?.code)).toEqual([
      "brimful/not-yet",
      "brimful/not-yet",
      "brimful/not-yet",
      "brimful/dropped",
    ]);
    expect(piecesIn(durable.pile)).toBe(1);
    const ended = play(s, [tip(ada, 40), { kind: "ended", viewer: null }, tip(ada, 70)]);
    expect(piecesIn(ended.durable.pile)).toBe(0);
  });
  test("never more than the most of one signal", () => {
    const s = set({ size: 20 });
    const { durable } = play(s, [{ kind: "raid", viewer: ada, viewers: 5_000 }]);
    expect(piecesIn(durable.pile)).toBe(150);
  });
  test("faces and pieces have a number each, and somebody unknown has no face", () => {
    const s = set();
    expect(play(s, [{ kind: "follow", viewer: ada }]).durable.pile.batches.map((b) => b.by)).toEqual(["", "Ada"]);
    expect(play(s, [tip(null, 2_500)]).durable.pile.batches.map((b) => b.by)).toEqual([""]);
  });
  test("the emotes of the message fall where a tier says so, each once, and its pictures where there are none", () => {
    const tier = newTier("m", { emotes: true, pictures: ["prop:sherd"] });
    const s = set({ drops: { ...brimfulDefaults.drops, message: [tier] } });
    const say = (text: string): Part<Signal> => ({ kind: "message", viewer: ada, text, marks: [] });
    const { durable } = play(s, [say("wobblePot wobblePot 🔥"), say("hello")]);
    expect(lookOf(durable, 0)?.pictures).toEqual(["own:w", "emoji:🔥"]);
    expect(lookOf(durable, 1)?.pictures).toEqual(["prop:sherd"]);
  });
  test("a message that drops nothing says nothing; a follow that drops nothing says so", () => {
    const s = set({ drops: { ...brimfulDefaults.drops, follow: [] } });
    const { words } = play(s, [
      { kind: "message", viewer: ada, text: "hello", marks: [] },
      { kind: "follow", viewer: ada },
    ]);
    expect(words).toEqual(["a follow drops nothing here"]);
  });
  test("a membership that came of a gift is not counted again, nor a currency the channel has no rate for", () => {
    const { words } = play(set(), [
      { kind: "membership", viewer: ada, months: 1, text: "", fromGift: "g1" },
      { kind: "tip", viewer: ada, amountMinor: 500, currency: "XTS", homeMinor: null, text: "" },
    ]);
    expect(words).toEqual(["not counted again: the gift it came from was", "the channel has no rate for XTS, so it drops nothing"]);
  });
  test("names with hidden words are covered on the faces and in the text that passes by", () => {
    const hidden = bareContext(emoteIndex([]), { hiddenWords: ["crackpot"] });
    const s = set({ passing: { ...brimfulDefaults.passing, on: true, text: "{viewer} {pieces, plural, one {# piece} other {# pieces}}" } });
    const rude: Viewer = { id: "x", name: "crackpot", roles: [] };
    const { last, durable } = play(s, [{ kind: "follow", viewer: rude }], hidden);
    expect(last.effects[0]).toMatchObject({
      do: "drop",
      text: "•••••••• 2 pieces",
      batches: [
        { count: 1, by: "" },
        { count: 1, by: "••••••••" },
      ],
    });
    expect(durable.pile.batches[1]?.by).toBe("••••••••");
  });
});

describe("fullness", () => {
  const round = { size: 200, solid: 50, wide: 100, body: "circle" as const };
  test("is area by packing by what the vessel holds, for each form", () => {
    expect(bodyOf(round)).toEqual({ width: 0.1, height: 0.1 });
    expect(shareOf(round, 1)).toBe(Math.round(((Math.PI * 0.0025) / 0.84) * 1e6));
    expect(shareOf({ ...round, body: "box" }, 1)).toBe(Math.round((0.01 / 0.9) * 1e6));
    // Upright, half as wide as high: two half circles of 0.05 and a square between them.
    const capsule = { ...round, body: "capsule" as const, wide: 50 };
    expect(areaOf(capsule)).toBeCloseTo(Math.PI * 0.025 ** 2 + 0.05 * 0.05);
    expect(bodyOf({ ...capsule, wide: 200 })).toEqual({ width: 0.1, height: 0.05 });
  });
  test("brims once at its line, does what is set, keeps what it held, and begins anew", () => {
    const effects = [{ do: "say" as const, text: "over it goes" }];
    const s = set({ brim: { at: 95, then: "empties", effects } });
    const needed = Math.ceil(950_000 / shareOf({ size: 100, solid: 90, wide: 100, body: "circle" }, outlineOf(s.vessel).area));
    const { outcomes, durable, last } = play(s, [drop(needed - 1), { kind: "follow", viewer: ada }]);
    expect(outcomes[0]?.effects.map((e) => e.do)).toEqual(["drop"]);
    expect(last.effects.map((e) => e.do)).toEqual(["drop", "brim", "drop"]);
    expect(last.orders?.find((o) => o.do === "emit" && o.what === "brimful/brimmed")).toMatchObject({
      amount: needed,
      effects,
      viewer: ada,
    });
    expect(last.kept?.[0]).toMatchObject({
      kind: "filling",
      viewer: { id: "ada" },
      body: { how: "brimmed", pieces: needed, nth: 1, percent: 95 },
    });
    // The face that came with it lies in the next one.
    expect(durable.pile.batches.map((b) => b.by)).toEqual(["Ada"]);
    expect(durable.brims).toBe(1);
  });
  test("one that waits stays full, and brims again only after it has fallen below four fifths of its line", () => {
    const s = set({ brim: { at: 50, then: "waits", effects: [] }, size: 200 });
    const { durable, words } = play(s, [drop(30), drop(1), drop(1)]);
    expect(words.filter((w) => w.startsWith("it brims")).length).toBe(1);
    const before = fullness(durable.pile, s);
    expect(before).toBeGreaterThan(500_000);
    // Taking out what the first brought makes room.
    const out = play(s, [drop(30), drop(1), order({ do: "remove", seq: 1 }), drop(30)]);
    expect(out.words.filter((w) => w.startsWith("it brims")).length).toBe(2);
  });
  test("one signal fills it several times, at most twenty; the rest is said to be left out", () => {
    const s = set({ vessel: { ...brimfulDefaults.vessel, shape: "glass" }, size: 500, brim: { at: 20, then: "empties", effects: [] } });
    const { last, durable } = play(s, [drop(1_000)]);
    expect(last.effects.filter((e) => e.do === "brim").length).toBe(20);
    const left = last.notes.find((n) => n.did === "brimful/left-out")!.count;
    expect(left + last.notes.find((n) => n.did === "brimful/dropped")!.count).toBe(1_000);
    expect(durable.brims).toBe(20);
  });
  test("a goal is told once until it is emptied", () => {
    const s = set({ goal: { on: true, at: 10, label: "A tenth" } });
    const { words } = play(s, [drop(20), drop(20), order({ do: "empty" }), drop(20)]);
    expect(words.filter((w) => w.includes("A tenth")).length).toBe(2);
  });
  test("is measured anew when the vessel is another one", () => {
    const { durable } = play(set(), [drop(20)]);
    const glass = set({ vessel: { ...brimfulDefaults.vessel, shape: "glass" } });
    expect(fullness(durable.pile, glass)).toBeGreaterThan(fullness(durable.pile, set()) * 1.5);
  });
});

describe("tipping over", () => {
  const free = set({ vessel: { ...brimfulDefaults.vessel, stand: "free", tipMass: 60, spill: 80, upAfterMs: 8_000 } });
  test("the core decides it: a piece heavy enough, of the newest goes its share, and it stands again by itself", () => {
    const { durable, outcomes } = play(free, [drop(99), drop(1, 59), drop(1, 60)]);
    expect(outcomes.map((o) => o.effects.map((e) => e.do).join(" "))).toEqual(["drop", "drop", "drop tip"]);
    // 80 % of 101 spill, rounded down.
    expect(piecesIn(durable.pile)).toBe(21);
    expect(brimful.dueMs?.(free, durable)).toBe(30_000 + 8_000);
    const up = brimful.step(
      { settings: free, durable, transient: null },
      { kind: "timer", moduleId: "b", seq: 9, atMs: 38_000, id: "t" },
      ctx,
    );
    expect(up.durable.lies).toBeNull();
    expect(up.effects.map((e) => e.do)).toEqual(["upright"]);
  });
  test("what comes while it lies waits, counts when it stands, and can be taken back meanwhile", () => {
    const { durable, words } = play(free, [drop(10), order({ do: "tip", way: "left" }), drop(5), drop(6), order({ do: "remove", seq: 3 })]);
    expect(words).toContain("6 pieces by kilnkeeper wait until the vessel stands again");
    expect([piecesIn(durable.pile), piecesIn(durable.waiting)]).toEqual([2, 6]);
    const up = play(free, [order({ do: "upright" })], ctx, durable);
    expect([piecesIn(up.durable.pile), piecesIn(up.durable.waiting)]).toEqual([8, 0]);
  });
  test("one that stands fast is never tipped, by whatever mass or hand", () => {
    const { words } = play(set(), [drop(1, 500), order({ do: "tip", way: "right" })]);
    expect(words[1]).toBe("it stands fast; let it slide and tip over in its rules first");
  });
});

describe("other games on the stage", () => {
  const told = (touches: Touches): Part<Signal> => ({
    kind: "happened",
    viewer: null,
    gameId: "other",
    what: "x/y",
    amount: 1,
    text: "",
    touches,
  });
  test("are felt as far as it is set, each by its switch", () => {
    const all = set({ touch: { blows: true, pictures: true, people: true } });
    const { outcomes, durable } = play(all, [told({ blow: 0.8 }), told({ pictures: ["own:w"] }), told({ people: ["Ada", "__proto__"] })]);
    expect(outcomes[0]?.effects.map((e) => e.do)).toEqual(["shake"]);
    expect(durable.pile.batches.map((b) => b.by)).toEqual(["", "Ada", "__proto__"]);
    expect(lookOf(durable, 0)?.pictures).toEqual(["own:w"]);
    const none = play(set({ touch: { blows: false, pictures: false, people: false } }), [
      told({ blow: 1, pictures: ["own:w"], people: ["Ada"] }),
    ]);
    expect([none.outcomes[0]?.effects, piecesIn(none.durable.pile)]).toEqual([[], 0]);
  });
  test("a small blow, and what a vessel tells itself, is not felt", () => {
    const { outcomes } = play(set(), [
      told({ blow: 0.01 }),
      { kind: "happened", viewer: ada, gameId: "b", what: "brimful/dropped", amount: 3, text: "" },
    ]);
    expect(outcomes.flatMap((o) => o.effects)).toEqual([]);
    expect(outcomes[0]?.durable).toBe(outcomes[1]?.durable);
  });
});

describe("what lies in it", () => {
  test("is told apart by signal for the newest, and counted by look for what is older; none is lost", () => {
    const s = set({ size: 20, brim: { at: 120, then: "waits", effects: [] } });
    const { durable } = play(s, [...Array.from({ length: mostBatches + 50 }, () => drop(2)), order({ do: "remove", seq: 3 })]);
    expect(durable.pile.batches.length).toBe(mostBatches);
    expect(piecesIn(durable.pile)).toBe(2 * (mostBatches + 50));
    const { words } = play(s, [order({ do: "remove", seq: 3 })], ctx, durable);
    expect(words[0]).toContain("so deep that they can’t be told apart");
  });
  test("is taken out to the piece, and twice the same is refused", () => {
    const { durable, words } = play(set(), [drop(4), drop(3), order({ do: "remove", seq: 1 }), order({ do: "remove", seq: 1 })]);
    expect(piecesIn(durable.pile)).toBe(3);
    expect(words[3]).toContain("not in the vessel any more");
  });
  test("is kept with who gave how much, the most first, when it is emptied; empty it is not emptied again", () => {
    const named: Viewer = { id: "__proto__", name: "__proto__", roles: [] };
    const { last, words } = play(set(), [tip(ada, 300), tip(named, 500), order({ do: "empty" })]);
    expect(last.kept?.[0]?.body).toMatchObject({
      how: "emptied",
      pieces: 8,
      people: 2,
      givers: [
        { id: "__proto__", pieces: 5 },
        { id: "ada", pieces: 3 },
      ],
      held: [{ picture: "", count: 8 }],
    });
    expect(play(set(), [order({ do: "empty" })]).words).toEqual(["it is empty already"]);
    expect(words[0]).toContain("3 pieces by Ada");
  });
  test("switched off, nothing falls, and what lies in it stays", () => {
    const { durable, words } = play(set(), [drop(4), order({ do: "switch", on: false }), tip(ada, 500), drop(2)]);
    expect(piecesIn(durable.pile)).toBe(4);
    expect(words.slice(2)).toEqual(["the vessel is switched off", "the vessel is switched off"]);
  });
});
