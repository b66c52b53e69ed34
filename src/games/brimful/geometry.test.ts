import { describe, expect, test } from "@jest/globals";
import { brimful } from "../../core/games/brimful/definition";
import { freshBrimful } from "../../core/games/brimful/rules";
import { brimfulDefaults, type BrimfulSettings, brimfulViewSchema } from "../../core/games/brimful/settings";
import { shapes } from "../../core/games/brimful/outline";
import { acrossAt, geometryOf, levelAt, wayWithin } from "./geometry";

const viewOf = (part: Partial<BrimfulSettings>) =>
  brimfulViewSchema.parse(brimful.view({ ...brimfulDefaults, ...part }, freshBrimful(), "overlay"));

describe("a vessel in its place", () => {
  test.each(shapes)("a %s fits, with what hangs on it and its tag, however the place is shaped", (shape) => {
    for (const box of [
      { width: 400, height: 700 },
      { width: 1_200, height: 300 },
      { width: 60, height: 40 },
    ])
      for (const stands of ["left", "middle", "right"] as const) {
        const view = viewOf({ vessel: { ...brimfulDefaults.vessel, shape }, looks: { ...brimfulDefaults.looks, stands } });
        const g = geometryOf(view, box);
        const half = (g.outline.width * 10 * g.unit) / 2;
        expect(g.footX - half).toBeGreaterThanOrEqual(-0.5);
        expect(g.footX + half).toBeLessThanOrEqual(box.width + 0.5);
        expect(g.footY - 10 * g.unit).toBeGreaterThanOrEqual(-0.5);
        expect(g.footY).toBeLessThanOrEqual(box.height);
      }
  });
  test("has its line where so much of it lies below", () => {
    const g = geometryOf(viewOf({}), { width: 400, height: 700 });
    let below = 0;
    const y = levelAt(g, 0.5);
    for (let at = 0; at > y; at -= 0.01) below += acrossAt(g.wall, at).width * 0.01;
    expect(below / (g.outline.area * 100)).toBeCloseTo(0.5, 1);
    expect(levelAt(g, 0.2)).toBeGreaterThan(y);
    expect(levelAt(g, 1.1)).toBeLessThan(-10);
  });
  test("tips into the picture, not out of it, and as it is told where it has room", () => {
    expect(wayWithin(-1, 100, 300, 1_280)).toBe(1);
    expect(wayWithin(1, 1_200, 300, 1_280)).toBe(-1);
    expect([wayWithin(-1, 640, 300, 1_280), wayWithin(1, 640, 300, 1_280)]).toEqual([-1, 1]);
    // Nowhere is room: then as it is told.
    expect(wayWithin(1, 100, 900, 400)).toBe(1);
  });
});
