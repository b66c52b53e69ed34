import { afterEach, describe, expect, test } from "@jest/globals";
import { dressDefaults, looks } from "../core/dress/dress";
import { wear } from "./dress";
import {
  anticipate,
  enter,
  type Entrance,
  entranceMs,
  type Exit,
  exit,
  exitMs,
  follow,
  keyframes,
  settle,
  shrink,
  springBack,
  springTo,
  squash,
} from "./motion";

const entrances = Object.keys(entranceMs) as Entrance[];
const exits = Object.keys(exitMs) as Exit[];
const steps = Array.from({ length: 101 }, (_, i) => i / 100);
afterEach(() => void wear(dressDefaults));

describe("the words of motion", () => {
  test("what settles comes to rest where it belongs, in every look; how far beyond it goes is the look's", () => {
    const most = looks.map((look) => {
      wear({ ...dressDefaults, look });
      expect(settle(0, 1)).toBeCloseTo(0);
      expect(settle(2, 1)).toBe(1);
      return Math.max(...steps.map((u) => settle(u * 1.3, 1)));
    });
    const [kiln, porcelain, linocut, ledger] = most;
    expect(ledger).toBe(1);
    expect(porcelain!).toBeLessThan(1.02);
    expect(kiln!).toBeGreaterThan(1.05);
    expect(linocut!).toBeGreaterThan(kiln!);
  });
  test("anticipation draws back before it goes, and arrives", () => {
    expect(Math.min(...steps.map((u) => anticipate(u)))).toBeCloseTo(-0.12, 1);
    expect([anticipate(0), anticipate(1)].map((v) => Math.abs(Math.round(v * 1e9) / 1e9))).toEqual([0, 1]);
  });
  test("what rings, rings out", () => {
    expect(springTo(6)).toBeCloseTo(1, 5);
    for (const ring of [springBack(6), squash(6, 1), follow(6)]) expect(ring).toBeCloseTo(0, 5);
    expect([springTo(-1), springBack(-1), squash(-1, 1), follow(-1)]).toEqual([0, 0, 0, 0]);
    expect(Math.max(...steps.map((u) => shrink(1 - u, 1)))).toBeGreaterThan(1.1);
    expect(shrink(0, 1)).toBeCloseTo(0);
  });
  test.each(entrances)("who comes in by %s ends where it is to be, upright and whole, in every look", (name) => {
    for (const look of looks) {
      wear({ ...dressDefaults, look });
      const end = enter(name, 1);
      for (const [key, value] of Object.entries({ x: 0, y: 0, angle: 0, width: 1, height: 1, alpha: 1 }))
        expect(Math.abs(end[key as keyof typeof end] - value)).toBeLessThan(0.03);
      for (const u of steps) for (const value of Object.values(enter(name, u))) expect(Number.isFinite(value)).toBe(true);
    }
  });
  test.each(exits)("who goes by %s is gone in the end, and there at first", (name) => {
    expect(exit(name, 1).alpha).toBeLessThan(0.01);
    expect(exit(name, 0)).toMatchObject({ alpha: 1, width: 1 });
  });
  test("with less motion nothing moves: it comes and goes softly", () => {
    for (const u of steps) {
      for (const name of entrances)
        expect({ ...enter(name, u, true), alpha: 0 }).toEqual({ x: 0, y: 0, angle: 0, width: 1, height: 1, alpha: 0 });
      for (const name of exits)
        expect({ ...exit(name, u, true), alpha: 0 }).toEqual({ x: 0, y: 0, angle: 0, width: 1, height: 1, alpha: 0 });
    }
  });
  test("as a style sheet they begin and end the same way", () => {
    const css = keyframes("k", (u) => enter("drop", u));
    expect(css).toMatch(/^@keyframes k\{0\.0%\{.*opacity:0\.000\}/);
    expect(css).toMatch(/100\.0%\{transform:translate\(calc\(-50% \+ -?0\.\d%\),calc\(-50% \+ -?\d\.\d%\)\).*opacity:1\.000\}\}$/);
  });
});
