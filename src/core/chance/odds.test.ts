import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { apportion } from "../kernel/apportion";
import { chancesInWords } from "./odds";

describe("exact chances", () => {
  test("thirds sum to a hundred, the first takes what is left over", () =>
    expect(chancesInWords([1, 1, 1])).toEqual(["33.34 %", "33.33 %", "33.33 %"]));
  test("one against a million is told as one in so many", () =>
    expect(chancesInWords([1, 1_000_000])).toEqual(["1 in 1,000,001", "100.00 %"]));
  test("at a hundredth of a percent it is still a percentage", () => expect(chancesInWords([1, 9_999])[0]).toBe("0.01 %"));
  test("what can’t come has no chance; nothing at all has none", () => {
    expect(chancesInWords([2, 0, 2])).toEqual(["50.00 %", "–", "50.00 %"]);
    expect(chancesInWords([0, 0])).toEqual(["–", "–"]);
    expect(chancesInWords([])).toEqual([]);
  });
  test("whatever the weights, the hundredths sum to 10,000 and none is off by one or more", () =>
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 1_000_000 }), { minLength: 1, maxLength: 60 }), (weights) => {
        const total = weights.reduce((sum, w) => sum + w, 0);
        const shares = apportion(10_000, weights);
        if (total === 0) return shares.every((s) => s === 0);
        expect(shares.reduce((sum, s) => sum + s, 0)).toBe(10_000);
        return shares.every((s, i) => Math.abs(s - ((weights[i] ?? 0) * 10_000) / total) < 1);
      }),
    ));
});
