import { describe, expect, test } from "@jest/globals";
import { creatures } from "../../core/games/boss-battle/settings";
import { figureOf, figures } from "./figures";
import { ease, settle } from "../../overlay/motion";
import { cracksOf, forceOf, mostCracks, recoil, recoilS, shard, type Shard, shardS } from "./play";

describe("a blow is felt", () => {
  const blow = (force: number, seed = 5) => ({ atMs: 0, force, seed });
  const farthest = (force: number): number => Math.max(...Array.from({ length: 100 }, (_, i) => Math.abs(recoil([blow(force)], i * 11).x)));
  test("the larger, the farther it recoils; the largest does not throw it off the picture", () => {
    const [small, large] = [farthest(forceOf(0.01, 100)), farthest(forceOf(0.6, 100))];
    expect(large).toBeGreaterThan(small * 2);
    expect(farthest(forceOf(1_000, 200))).toBeLessThan(0.4);
    expect(forceOf(0.5, 0)).toBe(0);
  });
  test("it comes to rest, and rests before it was hit", () => {
    expect(recoil([blow(1)], recoilS * 1000 + 1)).toEqual({ x: 0, y: 0, lean: 0, squash: 0 });
    expect(recoil([blow(1)], 0).x).toBe(0);
    expect(Math.abs(recoil([blow(1)], recoilS * 1000 - 20).x)).toBeLessThan(0.01);
  });
  test("two pages see the same, whenever they look", () => {
    const blows = [blow(0.6, 9), { ...blow(0.3, 4), atMs: 200 }];
    expect(recoil(blows, 333)).toEqual(recoil(blows, 333));
    expect(Math.sign(recoil([blow(1, 2)], 60).x)).not.toBe(0);
  });
});

describe("shards", () => {
  const out: Shard = { x: 0, y: 0, angle: 0, size: 0, alpha: 0, glazed: false };
  test("fly up, fall, never through the floor, and fade", () => {
    for (let i = 0; i < 40; i += 1) {
      let highest = 1;
      for (let t = 0; t <= shardS; t += 0.02) {
        if (!shard(77, i, t, { x: 0.5, y: 0.5 }, 1, out)) continue;
        highest = Math.min(highest, out.y);
        expect(out.y).toBeLessThanOrEqual(0.9701);
        expect(Number.isFinite(out.angle + out.x + out.size)).toBe(true);
        expect(out.alpha).toBeGreaterThanOrEqual(0);
      }
      expect(highest).toBeLessThan(0.5);
    }
  });
  test("are not there before and after", () => {
    expect(shard(1, 0, -0.01, { x: 0, y: 0 }, 1, out)).toBe(false);
    expect(shard(1, 0, shardS + 0.01, { x: 0, y: 0 }, 1, out)).toBe(false);
  });
  test("each flies its own way, the same on every page", () => {
    shard(3, 0, 0.3, { x: 0.5, y: 0.5 }, 1, out);
    const a = { ...out };
    shard(3, 1, 0.3, { x: 0.5, y: 0.5 }, 1, out);
    expect(out.x).not.toBe(a.x);
    shard(3, 0, 0.3, { x: 0.5, y: 0.5 }, 1, out);
    expect(out).toEqual(a);
  });
});

describe("figures", () => {
  test("there is one for every creature, standing on the floor of its square", () => {
    for (const name of creatures) {
      const f = figures[name];
      expect(f.top).toBeGreaterThanOrEqual(8);
      expect(f.bottom).toBeLessThanOrEqual(95);
      expect(f.body).toMatch(/^M.*Z$/);
      expect(f.eyes.y).toBeGreaterThan(f.top);
    }
    expect(figureOf("prop:x")).toBeNull();
    expect(figureOf("toString")).toBeNull();
  });
  test("cracks open the same for one reign, and otherwise for another", () => {
    expect(cracksOf(5)).toEqual(cracksOf(5));
    expect(cracksOf(5)).not.toEqual(cracksOf(6));
    expect(cracksOf(5).length).toBeGreaterThanOrEqual(mostCracks);
    for (const crack of cracksOf(5)) for (const p of crack) expect(Math.abs(p.x) + Math.abs(p.y)).toBeLessThan(3);
  });
  test("easing begins at 0 and ends at 1; settling overshoots on the way", () => {
    expect([ease(-1), ease(0), ease(1), ease(2)]).toEqual([0, 0, 1, 1]);
    expect(Math.max(...Array.from({ length: 50 }, (_, i) => settle(i * 10, 500)))).toBeGreaterThan(1);
    expect(settle(900, 500)).toBeCloseTo(1);
  });
});
