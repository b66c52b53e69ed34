import { describe, expect, test } from "@jest/globals";
import { chanceFrom } from "../kernel/chance";
import type { TimelineEvent } from "../show/timeline";
import { momentsOf, type Series } from "./moments";

const fromMs = Date.UTC(2026, 10, 27, 19);
const binMs = 10_000;
/** Two hours of chat as chance has it, so many a bin. */
function even(perBin: number, seed = 1, bins = 720): number[] {
  const chance = chanceFrom(seed);
  return Array.from({ length: bins }, () => {
    let [n, p] = [-1, 1];
    for (; p > Math.exp(-perBin); n += 1) p *= chance();
    return n;
  });
}
const series = (part: Partial<Series> = {}): Series => ({
  fromMs,
  binMs,
  chat: even(3),
  emotes: even(1, 2),
  signals: even(0.1, 3),
  ...part,
});
const raised = (values: readonly number[], from: number, to: number, by: number): number[] =>
  values.map((v, i) => (i >= from && i < to ? v + by : v));
const mark = (atBin: number, label: string, weight: 1 | 2 | 3 = 3): TimelineEvent => ({
  seq: atBin,
  atMs: fromMs + atBin * binMs,
  tone: "brick",
  label,
  weight,
  game: "",
  turned: "",
});

test("an even evening has nothing to keep, whatever its rate", () => {
  for (const seed of [1, 2, 3, 4, 5])
    expect(
      momentsOf(series({ chat: even(2, seed), emotes: even(20, seed + 9), signals: even(0.05, seed + 20) }), []).length,
    ).toBeLessThanOrEqual(1);
  expect(momentsOf(series({ chat: [], emotes: [], signals: [] }), [])).toEqual([]);
  expect(momentsOf(series({ chat: Array(720).fill(0), emotes: Array(720).fill(0), signals: Array(720).fill(0) }), [])).toEqual([]);
});

describe("a rush of chat", () => {
  const rush = series({ chat: raised(even(3), 300, 306, 20) });
  test("is found where it is, with what came just before, and says why", () => {
    const [found, ...more] = momentsOf(rush, []);
    expect(more).toEqual([]);
    expect(found?.name).toBe("Chat rushed");
    expect(found?.why).toMatch(/^chat was \d(\.\d)? × its usual$/);
    expect(Math.abs((found?.atMs ?? 0) - (fromMs + 299 * binMs))).toBeLessThanOrEqual(2 * binMs);
    expect(Math.abs((found?.toMs ?? 0) - (fromMs + 306 * binMs))).toBeLessThanOrEqual(2 * binMs);
  });
  test("is called by the weightiest thing that happened there", () => {
    const [found] = momentsOf(rush, [mark(301, "ada followed", 1), mark(302, "Old Spall fell"), mark(100, "elsewhere")]);
    expect(found?.name).toBe("Old Spall fell");
    expect(found?.why).toMatch(/; 1 more thing happened$/);
    expect(momentsOf(rush, [mark(302, "ada followed", 1)])[0]?.name).toBe("Chat rushed");
  });
  test("and emotes at the same time are one moment with both reasons", () => {
    const both = momentsOf({ ...rush, emotes: raised(even(1, 2), 301, 305, 30) }, []);
    expect(both).toHaveLength(1);
    expect(both[0]?.why).toMatch(/emotes/);
    expect(both[0]?.why).toMatch(/chat/);
  });
});

test("what is usual is that evening’s own: ten a bin stand out of one, not out of ten", () => {
  const loud = even(10, 4);
  expect(momentsOf(series({ chat: raised(loud, 200, 203, 4), emotes: [], signals: [] }), [])).toEqual([]);
  expect(momentsOf(series({ chat: raised(even(1, 5), 200, 203, 10), emotes: [], signals: [] }), [])).toHaveLength(1);
});

test("no more than twelve, in the order of the evening, and none eats the whole of it", () => {
  let chat = even(2, 6);
  for (let i = 0; i < 20; i += 1) chat = raised(chat, 20 + i * 34, 22 + i * 34, 14 + i);
  const found = momentsOf(series({ chat, emotes: [], signals: [] }), []);
  expect(found.length).toBeLessThanOrEqual(12);
  expect(found.length).toBeGreaterThan(8);
  expect(found.every((m, i) => i === 0 || m.atMs > (found[i - 1]?.atMs ?? 0))).toBe(true);
  expect(Math.max(...found.map((m) => m.toMs - m.atMs))).toBeLessThan(6 * 60_000);
  expect(new Set(found.map((m) => m.id)).size).toBe(found.length);
});
