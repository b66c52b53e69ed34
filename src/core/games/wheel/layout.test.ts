import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { arcAt, arcsOf, inPlay, mayCome, restAt } from "./layout";
import { freshWheel } from "./rules";
import { newSegment, turn, wheelDefaults, type WheelSettings } from "./settings";

const wheelOf = (weights: readonly number[], part: Partial<WheelSettings> = {}): WheelSettings => ({
  ...wheelDefaults,
  segments: weights.map((weight, i) => ({ ...newSegment(`s${i}`, `S${i}`, i), weight })),
  ...part,
});
const shares = (settings: WheelSettings, drawn: readonly string[] = []): number[] => {
  const arcs = arcsOf(settings, { ...freshWheel(), drawn: drawn.map((id) => [id, 1]) });
  return settings.segments.map((_, i) => arcs.filter((a) => a.segment === i).reduce((sum, a) => sum + a.to - a.from, 0) / turn);
};

describe("the rim", () => {
  test("goes once around without a gap, by weight", () => {
    const arcs = arcsOf(wheelOf([1, 1, 2]), freshWheel());
    expect(arcs[0]?.from).toBe(0);
    expect(arcs.at(-1)?.to).toBe(turn);
    for (const [i, arc] of arcs.entries()) expect(arc.from).toBe(arcs[i - 1]?.to ?? 0);
    expect(shares(wheelOf([1, 1, 2]))[2]).toBeCloseTo(0.5, 2);
  });
  test("or in equal parts, whatever the weights", () =>
    expect(shares(wheelOf([1, 999], { angles: "equal" })).map((s) => s.toFixed(2))).toEqual(["0.50", "0.50"]));
  test("a segment that stands there three times keeps its share, spread around", () => {
    const settings = wheelOf([1, 1]);
    const three = { ...settings, segments: settings.segments.map((s, i) => ({ ...s, times: i === 0 ? 3 : 1 })) };
    expect(shares(three).map((s) => s.toFixed(2))).toEqual(["0.50", "0.50"]);
    expect(arcsOf(three, freshWheel()).map((a) => a.segment)).toEqual([0, 0, 1, 0]);
  });
  test("the rarest is a line, and no less", () => expect(shares(wheelOf([1, 1_000_000]))[0]).toBeGreaterThan(0.0007));
  test("what was drawn has left, where it leaves; the others take its room", () =>
    expect(shares(wheelOf([1, 1, 1], { leaves: true }), ["s1"])).toEqual([0.5, 0, 0.5]));
  test("five hundred segments, twelve times each, still go once around", () => {
    const settings = wheelOf(Array.from({ length: 500 }, (_, i) => i + 1));
    const many = { ...settings, segments: settings.segments.map((s) => ({ ...s, times: 12 })) };
    const arcs = arcsOf(many, freshWheel());
    expect(arcs).toHaveLength(6_000);
    expect(arcs.at(-1)?.to).toBe(turn);
    expect(arcs.every((a) => a.to > a.from)).toBe(true);
  });
});

describe("who may come next", () => {
  test("what is out of stock may not, and never the last one again where that is so set", () => {
    const settings = wheelOf([1, 1, 1], { again: false });
    const stocked = { ...settings, segments: settings.segments.map((s, i) => ({ ...s, stock: i === 0 ? 2 : 0 })) };
    const at = (drawn: [string, number][], last = ""): string[] => mayCome(stocked, { ...freshWheel(), drawn, last }).map((s) => s.id);
    expect(at([["s0", 1]], "s0")).toEqual(["s1", "s2"]);
    expect(at([["s0", 2]], "s1")).toEqual(["s2"]);
    expect(inPlay(stocked, { ...freshWheel(), drawn: [["s0", 2]] })).toEqual([1, 2]);
  });
  test("the only one left may come again", () =>
    expect(mayCome(wheelOf([1], { again: false }), { ...freshWheel(), last: "s0" }).map((s) => s.id)).toEqual(["s0"]));
});

test("it rests with the pointer in the segment that was drawn, 8 to 92 % into it, wherever the pointer is", () =>
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 1, max: 2_000 }), { minLength: 1, maxLength: 40 }),
      fc.nat(359),
      fc.nat(),
      fc.nat(),
      (weights, pointerAt, which, seed) => {
        const arcs = arcsOf(wheelOf(weights), freshWheel());
        const segment = which % weights.length;
        const turned = restAt(arcs, segment, pointerAt, seed % 0xffffffff);
        const arc = arcAt(arcs, turned, pointerAt);
        expect(arc?.segment).toBe(segment);
        const point = ((((pointerAt / 360) * turn - turned) % turn) + turn) % turn;
        const share = (point - (arc?.from ?? 0)) / ((arc?.to ?? 0) - (arc?.from ?? 0));
        return share >= 0.078 && share <= 0.922;
      },
    ),
  ));
