import { describe, expect, test } from "@jest/globals";
import { type Passing, withPassing } from "./passing";

const after = (texts: readonly string[], everyMs: number, ms = 3_000): readonly Passing[] =>
  texts.reduce<readonly Passing[]>((all, text, i) => withPassing(all, text, ms, i * everyMs), []);

describe("texts that pass by", () => {
  test("stand in lanes of their own while they pass, so that none covers another", () => {
    const all = after(["a", "b", "c", "d"], 100);
    expect(new Set(all.map((p) => p.lane)).size).toBe(4);
  });
  test("are at most four at once: in a storm the oldest makes room", () => {
    const all = after(["a", "b", "c", "d", "e", "f", "g"], 50);
    expect(all.map((p) => p.text)).toEqual(["d", "e", "f", "g"]);
    expect(all.map((p) => p.lane).sort()).toEqual([0, 1, 2, 3]);
  });
  test("give their lane back when they have passed", () => {
    expect(after(["a", "b"], 4_000).map((p) => [p.text, p.lane])).toEqual([["b", 0]]);
  });
});
