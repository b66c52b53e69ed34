import { describe, expect, test } from "@jest/globals";
import { segmentsFrom } from "./lines";
import { newSegment, wheelSettingsSchema, wheelDefaults } from "./settings";
import { sharesOf } from "./shares";

const from = (text: string) => segmentsFrom(text, [], (n) => `s${n}`);
describe("segments from lines", () => {
  test("a weight stands behind a tab or a semicolon; what is no weight is part of the name", () =>
    expect(from("A\t3\nB ; 20\nC; 0\nD; 1000001\nE, 4\n; 5").segments.map((s) => [s.label, s.weight])).toEqual([
      ["A", 3],
      ["B", 20],
      ["C; 0", 1],
      ["D; 1000001", 1],
      ["E, 4", 1],
      ["; 5", 1],
    ]));
  test("names of any letters, half an emoji at the cut included, can be stored", () => {
    const { segments, shortened } = from(`${"x".repeat(59)}🔥\n__proto__\nconstructor`);
    expect(shortened).toBe(1);
    expect(wheelSettingsSchema.safeParse({ ...wheelDefaults, segments }).success).toBe(true);
    expect(segments.map((s) => s.label)).toEqual(["x".repeat(59), "__proto__", "constructor"]);
  });
  test("ids never meet those that are there", () => {
    const before = [newSegment("a", "A", 0)];
    expect(segmentsFrom("B", before, () => "b").segments[0]?.id).toBe("b");
  });
});

test("shares: how often each came beside what its chances come to, by its newest name", () => {
  const spin = (segment: string, label: string, weights: Record<string, number>, names: Record<string, string>) => ({
    segment,
    label,
    proof: {
      list: Object.entries(weights).map(([id, weight]) => ({ id, weight })),
      settings: { segments: Object.entries(names).map(([id, l]) => ({ id, label: l })) },
    },
  });
  const newest = spin("a", "Celadon", { a: 3, b: 1 }, { a: "Celadon", b: "Ash" });
  const older = spin("b", "Old ash", { a: 1, b: 1 }, { a: "Old celadon", b: "Old ash" });
  expect(sharesOf([newest, older, { segment: "c", label: "Gone", proof: null }])).toEqual([
    { id: "a", label: "Celadon", came: 1, expected: 1.25 },
    { id: "b", label: "Ash", came: 1, expected: 0.75 },
    { id: "c", label: "Gone", came: 1, expected: 0 },
  ]);
  expect(sharesOf([])).toEqual([]);
});
