import { describe, expect, test } from "@jest/globals";
import { nextFocus } from "./roving";

describe("where the focus goes within a group", () => {
  test("along a list, and not over its ends", () => {
    expect(nextFocus("ArrowDown", 0, 3)).toBe(1);
    expect(nextFocus("ArrowUp", 1, 3)).toBe(0);
    expect(nextFocus("ArrowUp", 0, 3)).toBeNull();
    expect(nextFocus("ArrowDown", 2, 3)).toBeNull();
  });
  test("over a grid: up and down by a row, left and right by one", () => {
    expect(nextFocus("ArrowDown", 1, 8, 5)).toBe(6);
    expect(nextFocus("ArrowUp", 6, 8, 5)).toBe(1);
    expect(nextFocus("ArrowRight", 4, 8, 5)).toBe(5);
    expect(nextFocus("ArrowDown", 4, 8, 5)).toBeNull();
  });
  test("to the ends; any other key is none of its business, whatever it is called", () => {
    expect(nextFocus("Home", 2, 3)).toBe(0);
    expect(nextFocus("End", 0, 3)).toBe(2);
    expect(nextFocus("End", 2, 3)).toBeNull();
    for (const key of ["a", "Enter", "constructor", "__proto__"]) expect(nextFocus(key, 1, 3)).toBeNull();
    expect(nextFocus("End", 0, 0)).toBeNull();
  });
});
