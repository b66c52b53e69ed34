import { describe, expect, test } from "@jest/globals";
import { wholePlace } from "../../../../../core/wire/messages";
import { align, aligns, snap, within } from "./snap";

const at = (x: number, y: number, width = 0.2, height = 0.2) => ({ ...wholePlace, x, y, width, height });

describe("placing on a stage", () => {
  test("edges and middles near the stage's are pulled onto them, with a guide", () => {
    expect(snap(at(0.005, 0.3), []).place.x).toBe(0);
    expect(snap(at(0.796, 0.3), []).place.x).toBe(0.8);
    const middle = snap(at(0.397, 0.35), []);
    expect([middle.place.x, middle.guides]).toEqual([0.4, [{ axis: "x", at: 0.5 }]]);
  });
  test("and onto those of others; far ones are left alone", () => {
    expect(snap(at(0.303, 0.61), [at(0.1, 0.1)]).place).toMatchObject({ x: 0.3, y: 0.61 });
    expect(snap(at(0.33, 0.33), [at(0.1, 0.1)]).guides).toEqual([]);
  });
  test("a place never leaves the stage, and never becomes too small to take hold of", () => {
    expect(within(at(0.95, -0.2))).toMatchObject({ x: 0.8, y: 0 });
    expect(within(at(0.5, 0.5, 0.001, 9))).toMatchObject({ width: 0.03, height: 1, y: 0 });
    for (const [x, y, w, h] of [
      [-3, 5, 2, 0.5],
      [1, 1, 1, 1],
      [0.4, 0.99, 0.7, 0.02],
    ] as const) {
      const p = within(at(x, y, w, h));
      expect(p.x >= 0 && p.y >= 0 && p.x + p.width <= 1.0001 && p.y + p.height <= 1.0001).toBe(true);
    }
  });
  test("aligning keeps the size, but for the whole picture", () => {
    for (const how of aligns) {
      const p = align(at(0.1, 0.1), how);
      expect(p.x + p.width).toBeLessThanOrEqual(1);
      if (how !== "whole") expect([p.width, p.height]).toEqual([0.2, 0.2]);
    }
    expect(align(at(0.1, 0.1), "right").x).toBe(0.8);
    expect(align(at(0.1, 0.1), "centre").y).toBe(0.4);
    expect(align(at(0.1, 0.1), "whole")).toMatchObject({ x: 0, y: 0, width: 1, height: 1 });
  });
  test("what else is set of a place stays", () => {
    const locked = { ...at(0.1, 0.1), locked: true, hidden: true, opacity: 0.3 };
    expect(align(locked, "right")).toMatchObject({ locked: true, hidden: true, opacity: 0.3 });
    expect(snap(locked, []).place).toMatchObject({ locked: true, hidden: true, opacity: 0.3 });
  });
});
