import { expect, test } from "@jest/globals";
import { outlineOf, shapes } from "../../core/games/brimful/outline";
import type { Corner } from "./engine";
import { restingPlaces } from "./rest";

test.each(shapes)("a pile that is drawn without motion lies within its %s, on its ground and on itself", (shape) => {
  const { wall, width } = outlineOf({ shape, points: [] });
  const units = wall.map(([x, y]): Corner => [(x - width / 2) * 10, (y - 1) * 10]);
  const pieces = Array.from({ length: 40 }, (_, index) => ({ ref: 1, index, size: 0.8 }));
  const rows = restingPlaces(units, pieces, 7);
  expect(rows).toEqual(restingPlaces(units, pieces, 7));
  const ys: number[] = [];
  for (let i = 0; i < 40; i += 1) {
    const [x, y] = [rows[i * 7 + 2]!, rows[i * 7 + 3]!];
    expect(Math.abs(x)).toBeLessThanOrEqual((width * 10) / 2);
    expect(y).toBeLessThanOrEqual(0.01);
    expect(y).toBeGreaterThan(-10);
    ys.push(y);
  }
  // Some lie on others.
  expect(Math.min(...ys)).toBeLessThan(-1.5);
});
