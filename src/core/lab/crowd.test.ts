import { describe, expect, test } from "@jest/globals";
import { crowd, type CrowdLine, type CrowdSettings, rooms } from "./crowd";

const parts = { viewers: ["ada", "bo", "cy"], emotes: ["wobblePot", "🔥"], lines: ["hello", "good pull"] };
const take = (settings: CrowdSettings, untilMs: number): CrowdLine[] => {
  const out: CrowdLine[] = [];
  for (const line of crowd(settings, parts)) {
    if (line.atMs > untilMs) return out;
    out.push(line);
  }
  return out;
};
const usual: CrowdSettings = { seed: 4, perSecond: 10, emoteShare: 0.5, copyShare: 0.3, rushesPerMinute: 0, givesPerMinute: 0 };
const withEmote = (l: CrowdLine): boolean => /wobblePot|🔥/u.test(l.text);

describe("the simulated crowd", () => {
  test("the same seed says the same, another says something else", () => {
    expect(take(usual, 20_000)).toEqual(take(usual, 20_000));
    expect(take({ ...usual, seed: 5 }, 20_000)).not.toEqual(take(usual, 20_000));
  });
  test("time never goes back, and the rate is what was asked", () => {
    const lines = take(usual, 120_000);
    expect(lines.every((l, i) => i === 0 || l.atMs >= lines[i - 1]!.atMs)).toBe(true);
    expect(lines.length).toBeGreaterThan(1_000);
    expect(lines.length).toBeLessThan(1_400);
  });
  test("shares of emotes and copies are what was asked", () => {
    const lines = take({ ...usual, perSecond: 100 }, 60_000);
    const fresh = lines.filter((l) => !l.copy);
    expect(fresh.filter(withEmote).length / fresh.length).toBeCloseTo(0.5, 1);
    expect(lines.filter((l) => l.copy).length / lines.length).toBeCloseTo(0.3, 1);
  });
  test("a rush is several times as loud", () => {
    const perSecond = new Map<number, number>();
    for (const l of take({ ...usual, rushesPerMinute: 2, givesPerMinute: 0 }, 120_000))
      perSecond.set(Math.floor(l.atMs / 1000), (perSecond.get(Math.floor(l.atMs / 1000)) ?? 0) + 1);
    expect(Math.max(...perSecond.values())).toBeGreaterThan(35);
  });
  test("every ready-made room can be played", () => {
    for (const room of Object.values(rooms)) expect(take({ ...room, seed: 1 }, 30_000).length).toBeGreaterThan(0);
  });
});
