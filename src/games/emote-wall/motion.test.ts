import { describe, expect, test } from "@jest/globals";
import { unitAt } from "../../core/kernel/chance";
import { type Life, moves, type Moves, type Pose } from "./motion";

const names = Object.keys(moves) as Moves[];
const pose = (name: Moves, tS: number, life: Life, seed: number): Pose => {
  const out: Pose = { x: NaN, y: NaN, angle: NaN, scaleX: NaN, scaleY: NaN, alpha: NaN };
  moves[name](tS, life, (k) => unitAt(seed, k), out);
  return out;
};
const lives: Life[] = [
  { lifeS: 6, size: 0.11, aspect: 16 / 9 },
  { lifeS: 0.5, size: 0.3, aspect: 0.4 },
  { lifeS: 120, size: 0.05, aspect: 3.3 },
];
const seeds = Array.from({ length: 60 }, (_, i) => i * 7 + 1);

describe.each(names)("%s", (name) => {
  test("is finite and fades within bounds at every moment of every life", () => {
    const wrong: Pose[] = [];
    for (const life of lives)
      for (const seed of seeds)
        for (let i = 0; i <= 40; i += 1) {
          const p = pose(name, (life.lifeS * i) / 40, life, seed);
          const bounded = p.alpha >= 0 && p.alpha <= 1 && p.scaleX > -0.6 && p.scaleX < 2.2 && p.scaleY > -0.6 && p.scaleY < 2.2;
          if (!bounded || !Object.values(p).every(Number.isFinite)) wrong.push(p);
        }
    expect(wrong).toEqual([]);
  });
  test("stays in its area, or leaves it over the edge it came from", () => {
    const life = lives[0]!;
    const above = name === "rain" ? 0.2 : 0;
    const below = name === "spout" ? 0.2 : name === "rain" ? 0.1 : 0;
    const outside: Pose[] = [];
    for (const seed of seeds)
      for (let i = 0; i <= 200; i += 1) {
        const p = pose(name, (life.lifeS * i) / 200, life, seed);
        if (!(p.x > -0.12 && p.x < life.aspect + 0.12 && p.y > -0.01 - above && p.y < 1.01 + below)) outside.push(p);
      }
    expect(outside).toEqual([]);
  });
  test("never jumps: within one frame it moves a little, whatever the seed", () => {
    const life = lives[0]!;
    let farthest = 0;
    for (const seed of seeds) {
      let before = pose(name, 0, life, seed);
      for (let t = 1 / 60; t < life.lifeS; t += 1 / 60) {
        const p = pose(name, t, life, seed);
        const apart = Math.hypot(p.x - before.x, p.y - before.y);
        // A spout's emote starts again from below, unseen: that is the one jump there is.
        if (!(name === "spout" && before.y > 0.95)) farthest = Math.max(farthest, apart);
        before = p;
      }
    }
    expect(farthest).toBeLessThan(0.09);
  });
  test("looks alike on two pages, and unlike for two emotes", () => {
    expect(pose(name, 1.3, lives[0]!, 9)).toEqual(pose(name, 1.3, lives[0]!, 9));
    expect(pose(name, 1.3, lives[0]!, 9)).not.toEqual(pose(name, 1.3, lives[0]!, 10));
  });
  test("is gone, or nearly, when its life ends", () => {
    const life = lives[0]!;
    for (const seed of seeds) {
      const p = pose(name, life.lifeS - 0.001, life, seed);
      expect(p.alpha < 0.05 || Math.abs(p.scaleX * p.scaleY) < 0.05 || p.y > 1).toBe(true);
    }
  });
});

describe("temper", () => {
  const life = lives[0]!;
  test("drift rises, rain falls, spout goes up and comes back", () => {
    const y = (name: Moves, t: number): number => pose(name, t, life, 3).y;
    expect(y("drift", 5)).toBeLessThan(y("drift", 1) - 0.3);
    expect(y("rain", 1)).toBeGreaterThan(y("rain", 0.1));
    const flight = Array.from({ length: 50 }, (_, i) => y("spout", i * 0.04));
    expect(Math.min(...flight)).toBeLessThan(0.5);
    expect(flight[0]!).toBeGreaterThan(1);
  });
  test("what pops up overshoots its size before it settles", () => {
    const scales = Array.from({ length: 40 }, (_, i) => pose("pop", i * 0.02, life, 3).scaleY);
    expect(Math.max(...scales)).toBeGreaterThan(1.1);
    expect(Math.abs(pose("pop", 2.5, life, 3).scaleY - 1)).toBeLessThan(0.02);
  });
  test("less motion means it stands still", () => {
    const [a, b] = [pose("still", 1, life, 3), pose("still", 4, life, 3)];
    expect([a.x, a.y, a.angle]).toEqual([b.x, b.y, b.angle]);
  });
});
