import { describe, expect, test } from "@jest/globals";
import { aside, standAt } from "./walk";

describe("where it walks", () => {
  test("follows from its seed and the time alone, at its pace, without a jump", () => {
    const begin = 1_900_000_000_000;
    let before = standAt(7, begin);
    let walked = 0;
    const wrong: string[] = [];
    for (let ms = 0; ms < 20 * 60_000; ms += 50) {
      const now = standAt(7, begin + ms);
      const again = standAt(7, begin + ms);
      // Gathered, since so many expectations would take ten seconds.
      if (again.x !== now.x || again.walking !== now.walking || again.towards !== now.towards)
        wrong.push(`${ms}: elsewhere the second time`);
      if (Math.abs(now.x - before.x) >= 0.012 || now.x < 0 || now.x > 1) wrong.push(`${ms}: jumps to ${now.x}`);
      if (now.walking && now.x !== before.x && Math.sign(now.x - before.x) !== now.towards) wrong.push(`${ms}: walks backwards`);
      if (now.walking) walked += 1;
      before = now;
    }
    expect(wrong).toEqual([]);
    // It walks now and then, and mostly stands.
    expect(walked / (20 * 60 * 20)).toBeGreaterThan(0.05);
    expect(walked / (20 * 60 * 20)).toBeLessThan(0.6);
  });
  test("another seed walks elsewhere", () => {
    const spots = (seed: number) => Array.from({ length: 40 }, (_, i) => standAt(seed, i * 60_000).x);
    expect(spots(1)).not.toEqual(spots(2));
  });
  test("what stands there is stepped around, and it does not jump as it walks", () => {
    expect(aside(0.3, 0.2, [])).toBeCloseTo(0.1 + 0.3 * 0.8);
    for (let x = 0; x <= 1; x += 0.05) {
      const spot = aside(x, 0.2, [[0.4, 0.7]]);
      expect(spot + 0.1 <= 0.4001 || spot - 0.1 >= 0.6999).toBe(true);
    }
    expect(aside(0.5, 0.2, [[0, 1]])).toBe(0.9);
    expect(aside(0.5, 0.2, [[0.3, 1]])).toBeLessThanOrEqual(0.2);
    expect(aside(0.5, 0.2, [[-1, 0]])).toBeGreaterThanOrEqual(0.1);
  });
});
