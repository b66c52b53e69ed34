import { expect, test } from "@jest/globals";
import { nextRegion } from "./regions";

test("the parts of a screen go round, both ways, from wherever one is", () => {
  expect([nextRegion(-1, 3, 1), nextRegion(0, 3, 1), nextRegion(2, 3, 1)]).toEqual([0, 1, 0]);
  expect([nextRegion(-1, 3, -1), nextRegion(0, 3, -1), nextRegion(2, 3, -1)]).toEqual([2, 2, 1]);
  expect(nextRegion(-1, 0, 1)).toBe(-1);
});
