import { describe, expect, test } from "@jest/globals";
import { outlineOf, outlineProblem, type Point, readOutline, shapes } from "./outline";

const read = (points: readonly Point[], closed = false) => readOutline(points, closed);
const bucket: readonly Point[] = [
  [0, 0],
  [10, 100],
  [60, 100],
  [70, 0],
];

describe("an outline", () => {
  test("is measured in heights of itself, from its left rim to its right one", () => {
    const said = read(bucket);
    if (!said.ok) throw new Error(said.refusal.code);
    expect(said.value.wall[0]).toEqual([0, 0]);
    expect(said.value.wall[3]).toEqual([0.7, 0]);
    expect(said.value.width).toBeCloseTo(0.7);
    // A trapezium: half of 0.7 and 0.5, one high.
    expect(said.value.area).toBeCloseTo(0.6);
    expect(said.value.mouth).toEqual({ left: 0, right: 0.7 });
  });
  test("drawn the other way round is the same vessel", () => {
    const one = read(bucket);
    const other = read([...bucket].reverse());
    expect(other).toEqual(one);
  });
  test("holds only up to the lower end of its rim", () => {
    const said = read([
      [0, 40],
      [0, 100],
      [100, 100],
      [100, 0],
    ]);
    if (!said.ok) throw new Error(said.refusal.code);
    expect(said.value.rimY).toBeCloseTo(0.4);
    expect(said.value.area).toBeCloseTo(0.6);
  });
  test("that is closed is cut open at its top", () => {
    const circle = Array.from({ length: 48 }, (_, i): Point => [Math.cos((i / 48) * Math.PI * 2), Math.sin((i / 48) * Math.PI * 2)]);
    const said = read(circle, true);
    if (!said.ok) throw new Error(said.refusal.code);
    expect(said.value.mouth.right - said.value.mouth.left).toBeGreaterThan(0.2);
    expect(said.value.mouth.right - said.value.mouth.left).toBeLessThan(0.6);
    expect(said.value.area).toBeGreaterThan(0.75);
    expect(said.value.wall.length).toBeGreaterThan(40);
  });
  test("whose last point is its first counts as closed", () => {
    const said = read([...bucket, bucket[0]!]);
    expect(said.ok).toBe(true);
  });
  test.each([
    [
      "outline/open-below",
      [
        [0, 100],
        [0, 0],
        [100, 0],
        [100, 100],
      ],
    ],
    [
      "outline/open-side",
      [
        [0, 0],
        [0, 100],
        [100, 100],
        [100, 90],
      ],
    ],
    [
      "outline/crosses",
      [
        [0, 0],
        [100, 100],
        [0, 100],
        [100, 0],
        [50, 40],
      ],
    ],
    [
      "outline/too-few",
      [
        [0, 0],
        [10, 10],
      ],
    ],
    [
      "outline/no-area",
      [
        [0, 0],
        [5, 50],
        [10, 100],
      ],
    ],
    [
      "outline/no-number",
      [
        [0, 0],
        [Number.NaN, 10],
        [10, 0],
      ],
    ],
    [
      "outline/too-narrow",
      [
        [0, 0],
        [1, 100],
        [5, 100],
        [6, 0],
      ],
    ],
    [
      "outline/too-wide",
      [
        [0, 0],
        [0, 10],
        [100, 10],
        [100, 0],
      ],
    ],
  ] as const)("is refused with its reason: %s", (code, points) => {
    const said = read(points as readonly Point[]);
    expect(said.ok ? "" : said.refusal.code).toBe(code);
    expect(outlineProblem(code).length).toBeGreaterThan(20);
  });
  test("of more points than are looked at is refused at once, not gone through", () => {
    const many = Array.from({ length: 10_000 }, (_, i): Point => [i, Math.abs(5_000 - i)]);
    const said = read(many);
    expect(said.ok ? "" : said.refusal.code).toBe("outline/too-many");
  });
  test("ships in six shapes that hold something", () => {
    for (const shape of shapes) {
      const { area, wall, mouth, rimY } = outlineOf({ shape, points: [] });
      expect(area).toBeGreaterThan(0.3);
      expect(wall.length).toBeLessThan(120);
      expect(mouth.right - mouth.left).toBeGreaterThan(0.4);
      expect(rimY).toBeLessThan(0.01);
    }
  });
});
