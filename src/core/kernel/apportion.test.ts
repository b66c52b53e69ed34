import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { apportion } from "./apportion";

test("what is left by rounding goes to the largest remainders; where two are equal, to the lower order", () => {
  expect(apportion(10, [1, 1, 1])).toEqual([4, 3, 3]);
  expect(apportion(10, [1, 1, 1], [9, 2, 5])).toEqual([3, 4, 3]);
  expect(apportion(5, [1, 2])).toEqual([2, 3]);
  expect(apportion(5, [0, 0])).toEqual([0, 0]);
  expect(apportion(0, [1, 2])).toEqual([0, 0]);
  expect(apportion(2 ** 53 - 1, [1, 1])).toEqual([2 ** 52, 2 ** 52 - 1]);
});
test("whatever the weights, the parts sum to the whole, and none is off by one or more", () =>
  fc.assert(
    fc.property(fc.nat(), fc.array(fc.nat(1_000_000), { minLength: 1, maxLength: 50 }), (whole, weights) => {
      const total = weights.reduce((sum, w) => sum + w, 0);
      fc.pre(total > 0);
      const parts = apportion(whole, weights);
      expect(parts.reduce((sum, p) => sum + p, 0)).toBe(whole);
      return parts.every((p, i) => Math.abs(p - ((weights[i] ?? 0) * whole) / total) < 1 + 1e-6);
    }),
  ));
