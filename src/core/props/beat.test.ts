import { describe, expect, test } from "@jest/globals";
import { chanceFrom } from "../kernel/chance";
import { type Beat, beatOf } from "./beat";

const stepMs = 20;
/** A drum struck so often, each blow dying away, with a little noise. */
function drum(everyMs: number, firstMs: number, lengthMs: number, noise = 0.05): number[] {
  const chance = chanceFrom(7);
  return Array.from({ length: Math.floor(lengthMs / stepMs) }, (_, i) => {
    const since = (((i * stepMs - firstMs) % everyMs) + everyMs) % everyMs;
    return 0.8 * Math.exp(-since / 90) + noise * chance();
  });
}
/** How far the beats found lie from those meant after ten seconds, in either direction. */
function off(found: Beat | null, everyMs: number, firstMs: number): number {
  if (found === null) return Infinity;
  const at = found.firstMs + Math.round(10_000 / found.everyMs) * found.everyMs;
  const late = (((at - firstMs) % everyMs) + everyMs) % everyMs;
  return Math.min(late, everyMs - late);
}

describe("the beat of a sound", () => {
  test("is found at any usual pace, with its place", () => {
    for (const bpm of [72, 90, 100, 118, 132, 150]) {
      const everyMs = 60_000 / bpm;
      const found = beatOf(drum(everyMs, 170, 20_000), stepMs);
      expect(Math.abs((found?.everyMs ?? 0) - everyMs)).toBeLessThan(8);
      expect(off(found, everyMs, 170)).toBeLessThan(90);
    }
  });
  test("is the tap and not the bar or the hurried off-beat, where each second blow is softer", () => {
    const strong = drum(1_000, 0, 20_000);
    const soft = drum(1_000, 500, 20_000).map((v) => v * 0.6);
    const found = beatOf(
      strong.map((v, i) => Math.max(v, soft[i] ?? 0)),
      stepMs,
    );
    expect(Math.abs((found?.everyMs ?? 0) - 500)).toBeLessThan(8);
  });
  test("is not found where there is none: silence, one even tone, noise, a short ring", () => {
    const chance = chanceFrom(3);
    expect(beatOf(new Array<number>(1_000).fill(0), stepMs)).toBeNull();
    expect(beatOf(new Array<number>(1_000).fill(0.5), stepMs)).toBeNull();
    expect(beatOf(Array.from({ length: 1_000 }, chance), stepMs)).toBeNull();
    expect(beatOf(drum(500, 0, 2_000), stepMs)).toBeNull();
    expect(beatOf([], stepMs)).toBeNull();
  });
});
