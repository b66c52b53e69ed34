import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { knocksOf, pegsOf, pushAt, ringAt, rock, turnedAt, type Turning } from "./motion";

const turning = fc.record({
  from: fc.double({ min: 0, max: 0.999, noNaN: true }),
  to: fc.double({ min: 0, max: 0.999, noNaN: true }),
  seconds: fc.double({ min: 3, max: 30, noNaN: true }),
  seed: fc.nat(),
});
const arcs = [
  { segment: 0, from: 0, to: 500_000 },
  { segment: 1, from: 500_000, to: 750_000 },
  { segment: 2, from: 750_000, to: 1_000_000 },
];

describe("a spin", () => {
  test("begins where the wheel stood and ends exactly where it was to rest, whatever is asked", () =>
    fc.assert(
      fc.property(turning, (t: Turning) => {
        expect(turnedAt(t, 0)).toBe(t.from);
        const end = turnedAt(t, t.seconds);
        expect(Math.abs(end - t.to - Math.round(end - t.to))).toBeLessThan(1e-9);
        // Nothing leaps: neither at the end, nor where the hand lets go.
        return Math.abs(turnedAt(t, t.seconds - 1e-4) - end) < 1e-4;
      }),
    ));
  test("is drawn back a little, then never turns back, and grows slower all the way", () =>
    fc.assert(
      fc.property(turning, (t: Turning) => {
        const at = Array.from({ length: 400 }, (_, i) => turnedAt(t, (i * t.seconds) / 399));
        const lowest = at.indexOf(Math.min(...at));
        expect(t.from - Math.min(...at)).toBeLessThan(0.04);
        const run = at.slice(lowest);
        const speeds = run.slice(1).map((a, i) => a - (run[i] ?? 0));
        const fastest = speeds.indexOf(Math.max(...speeds));
        expect(speeds.every((s) => s >= -1e-9)).toBe(true);
        return speeds.slice(fastest + 1).every((s, i) => s <= (speeds[fastest + i] ?? 0) + 1e-9);
      }),
    ));
  test("turns at least once round, however short it is", () =>
    // Sums of doubles: a whole turn may be the last digit short.
    fc.assert(fc.property(turning, (t: Turning) => turnedAt(t, t.seconds) - t.from >= 1 - 1e-9)));
});

describe("the pegs", () => {
  test("stand at every border, and closer where segments are wide", () => {
    const pegs = pegsOf(arcs);
    for (const at of [0, 0.5, 0.75]) expect(pegs).toContain(at);
    expect(pegs.length).toBeGreaterThan(10);
    expect(pegsOf(Array.from({ length: 200 }, (_, i) => ({ segment: i, from: i * 5_000, to: (i + 1) * 5_000 })))).toHaveLength(48);
  });
  test("each knock falls when its peg is under the pointer, in order, and slower towards the end", () => {
    const t: Turning = { from: 0.1, to: 0.63, seconds: 8, seed: 5 };
    const pegs = pegsOf(arcs);
    const knocks = knocksOf(t, pegs, 0.2);
    expect(knocks.length).toBeGreaterThan(20);
    for (const [i, { atS }] of knocks.entries()) {
      expect(atS).toBeGreaterThan(knocks[i - 1]?.atS ?? 0);
      const point = (((0.2 - turnedAt(t, atS)) % 1) + 1) % 1;
      expect(Math.min(...pegs.map((p) => Math.min(Math.abs(p - point), 1 - Math.abs(p - point))))).toBeLessThan(1e-5);
    }
    const gaps = knocks.slice(1).map((k, i) => k.atS - (knocks[i]?.atS ?? 0));
    expect(gaps.at(-1)!).toBeGreaterThan(4 * gaps[4]!);
  });
  test("the pointer leans with the peg, springs back when it lets go, and comes to rest upright", () => {
    const t: Turning = { from: 0.1, to: 0.63, seconds: 8, seed: 5 };
    const pegs = pegsOf(arcs);
    const knocks = knocksOf(t, pegs, 0.2);
    const last = knocks.at(-1)!;
    expect(pushAt(turnedAt(t, last.atS - 0.001), pegs, 0.2)).toBeGreaterThan(0.9);
    expect(pushAt(turnedAt(t, last.atS + 0.01), pegs, 0.2)).toBe(0);
    expect(ringAt(knocks, last.atS + 0.001)).toBeGreaterThan(0.9);
    expect(ringAt(knocks, last.atS + 0.05)).toBeLessThan(0.4);
    expect(ringAt(knocks, last.atS + 2)).toBeLessThan(0.001);
    expect(ringAt(knocks, 0)).toBe(0);
  });
  test("at rest it leans on a peg that it did not quite let go", () => {
    expect(pushAt(0.194, [0], 0.2)).toBeCloseTo(0.5);
    expect(pushAt(0.1, [0], 0.2)).toBe(0);
  });
  test("the rocking ends in nothing", () => {
    expect(rock(0)).toBe(0);
    expect(rock(1.3)).toBe(0);
  });
});
