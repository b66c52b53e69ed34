import { describe, expect, test } from "@jest/globals";
import { chanceFrom, mix32, pick, unitAt } from "./chance";
import { byCodeUnits, fold, withoutInvisible } from "./fold";
import { emptyRolling, heldKeys, recent, type Rolling, withStamps } from "./rolling";

describe("chance", () => {
  test("the same seed gives the same run, another seed another", () => {
    const run = (seed: number): number[] => Array.from({ length: 20 }, chanceFrom(seed));
    expect(run(7)).toEqual(run(7));
    expect(run(7)).not.toEqual(run(8));
  });
  test("numbers stay in [0, 1) and fill it evenly", () => {
    const chance = chanceFrom(1);
    const buckets = new Array<number>(10).fill(0);
    for (let i = 0; i < 100_000; i += 1) {
      // A number outside [0, 1) would land in no bucket.
      buckets[Math.floor(chance() * 10)]! += 1;
    }
    expect(buckets.reduce((a, b) => a + b)).toBe(100_000);
    // 9 degrees of freedom: above 33.7 one honest run in ten thousand.
    const chi = buckets.reduce((sum, n) => sum + (n - 10_000) ** 2 / 10_000, 0);
    expect(chi).toBeLessThan(33.7);
  });
  test("neighbouring indexes of a seed are unrelated", () => {
    const pairs = Array.from({ length: 5_000 }, (_, i) => [unitAt(3, i), unitAt(3, i + 1)] as const);
    const mean = pairs.reduce((s, [a]) => s + a, 0) / pairs.length;
    const together = pairs.reduce((s, [a, b]) => s + (a - mean) * (b - mean), 0) / pairs.length / (1 / 12);
    expect(Math.abs(together)).toBeLessThan(0.06);
    expect(mix32(0, 0)).not.toBe(mix32(0, 1));
  });
  test("pick stays below its bound", () => {
    const chance = chanceFrom(5);
    const seen = new Set(Array.from({ length: 400 }, () => pick(chance, 6)));
    expect([...seen].sort((a, b) => a - b)).toEqual([0, 1, 2, 3, 4, 5]);
  });
});

describe("folding", () => {
  test.each([
    ["Wöbble", "wobble"],
    ["WOBBLE\u200B", "wobble"],
    ["wo\u00ADb\u2060ble", "wobble"],
    ["\u202Ewobble\u202C", "wobble"],
    ["ｗｏｂｂｌｅ", "wobble"],
    ["Ångström", "angstrom"],
  ])("%j compares as %j", (given, expected) => expect(fold(given)).toBe(expected));
  test("other letters stay other", () => {
    expect(fold("kiln")).not.toBe(fold("klin"));
    expect(fold("ключ")).toBe("ключ");
  });
  test("invisible characters are removed and nothing else", () => expect(withoutInvisible("a\u200Bb c\u{E0041}d")).toBe("ab cd"));
  test("ordering is by code units", () => expect(["b", "a", "Z", "ä"].sort(byCodeUnits)).toEqual(["Z", "a", "b", "ä"]));
});

describe("rolling counts", () => {
  const add = (rolling: Rolling, key: string, atMs: number, withinMs = 1_000): Rolling =>
    withStamps(rolling, key, [...recent(rolling, key, atMs, withinMs), { atMs, by: "v" }], atMs, withinMs);
  test("only what is younger than the time counts, the edge excluded", () => {
    let r = add(emptyRolling, "kiln", 0);
    r = add(r, "kiln", 400);
    expect(recent(r, "kiln", 999, 1_000)).toHaveLength(2);
    expect(recent(r, "kiln", 1_000, 1_000)).toHaveLength(1);
    expect(recent(r, "kiln", 1_400, 1_000)).toHaveLength(0);
  });
  test("keys that look like numbers or like parts of objects are ordinary keys", () => {
    let r = emptyRolling;
    for (const key of ["1", "__proto__", "constructor", "toString"]) r = add(r, key, 5);
    for (const key of ["1", "__proto__", "constructor", "toString"]) expect(recent(r, key, 6, 1_000)).toHaveLength(1);
    expect(recent(r, "hasOwnProperty", 6, 1_000)).toEqual([]);
  });
  test("it is never written into, and what was forgotten stays so", () => {
    const r = add(add(emptyRolling, "a", 1), "b", 2);
    const more = add(r, "a", 3);
    expect([recent(r, "a", 3, 1_000).length, recent(more, "a", 3, 1_000).length]).toEqual([1, 2]);
    // Written before a generation ended, forgotten after: hidden at once.
    const gone = withStamps(add(more, "c", 1_000), "a", [], 1_001, 1_000);
    expect(recent(gone, "a", 1_002, 1_000)).toEqual([]);
    expect(recent(more, "a", 1_002, 1_000)).toHaveLength(1);
  });
  test("nothing that still counts is dropped, however the generations fall", () => {
    let r = emptyRolling;
    for (let at = 0; at < 5_000; at += 90) {
      r = add(r, `k${at % 7}`, at);
      const seen = recent(r, `k${at % 7}`, at, 1_000).map((s) => s.atMs);
      const should = Array.from({ length: 60 }, (_, i) => i * 90).filter((t) => t <= at && at - t < 1_000 && t % 7 === at % 7);
      expect(seen).toEqual(should);
    }
  });
  test("a long storm of passers-by does not grow it without end", () => {
    let r = emptyRolling;
    for (let i = 0; i < 20_000; i += 1) r = add(r, `viewer${i}`, i * 10);
    // 100 viewers are within the time; and as many of the generation before.
    expect(heldKeys(r)).toBeLessThan(500);
  });
});
