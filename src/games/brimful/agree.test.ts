import { beforeAll, expect, test } from "@jest/globals";
import { outlineOf, shapes } from "../../core/games/brimful/outline";
import { bodyOf, shareOf } from "../../core/games/brimful/pile";
import type { Engine } from "../../overlay/physics/engine";
import { loadEngine } from "../../overlay/physics/load-engine";
import { PileWorld } from "../../overlay/physics/pile-world";
import { acrossAt, type Geometry, groundOf, wallOf } from "./geometry";

let engine: Engine;
beforeAll(async () => {
  engine = await loadEngine();
});

/** How full the picture is of a settled pile: what lies under its surface, taken column by column. */
function pictured(wall: Geometry["wall"], rows: Float32Array, count: number, radius: number, area: number): number {
  const left = Math.min(...wall.map((c) => c[0]));
  const right = Math.max(...wall.map((c) => c[0]));
  const [columns, levels] = [90, 200];
  const step = (right - left) / columns;
  let filled = 0;
  for (let i = 0; i < columns; i += 1) {
    const x = left + (i + 0.5) * step;
    let top = 0;
    for (let n = 0; n < count; n += 1) {
      const dx = Math.abs(rows[n * 7 + 2]! - x);
      if (dx < radius) top = Math.min(top, rows[n * 7 + 3]! - Math.sqrt(radius * radius - dx * dx) * 0.5);
    }
    for (let k = 0; k < levels; k += 1) {
      const y = (-10 * (k + 0.5)) / levels;
      const across = acrossAt(wall, y);
      if (y > top && x > across.left && x < across.right) filled += (10 / levels) * step;
    }
  }
  return filled / (area * 100);
}

test.each(shapes)("what the rules call four fifths full looks four fifths full in a %s, within a few percent", (shape) => {
  const outline = outlineOf({ shape, points: [] });
  const g: Geometry = { outline, wall: wallOf(outline), unit: 1, footX: 8, footY: 15, width: 16, height: 16 };
  for (const [body, wide] of [
    ["circle", 100],
    ["capsule", 50],
  ] as const) {
    const look = { size: 130, solid: 90, wide, body };
    const count = Math.round(800_000 / shareOf(look, outline.area));
    const { width, height } = bodyOf(look);
    const world = new PileWorld(engine, groundOf(g, 100), 1_000);
    world.drop({ ref: 1, count, seed: 7, piece: { width: width * 10, height: height * 10, form: body, mass: 5, bounce: 0.25 } });
    world.settle(1_500);
    const rows = new Float32Array(count * 7);
    expect(world.rows(rows, 1)).toBe(count);
    const seen = pictured(g.wall, rows, count, (width + height) * 2.5, outline.area);
    expect(seen).toBeGreaterThan(0.74);
    expect(seen).toBeLessThan(0.86);
    world.free();
  }
});
