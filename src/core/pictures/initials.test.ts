import { describe, expect, test } from "@jest/globals";
import { initialsOf, lettersOf } from "./initials";

describe("initials", () => {
  test.each([
    ["mossy_teapot", "mt"],
    ["quietferry", "qu"],
    ["Oatcake Ada", "oa"],
    ["ferrule7", "fe"],
    ["7", "7"],
    ["__proto__", "pr"],
    ["🏺kiln", "🏺"],
    ["👩‍🎨 painter", "👩‍🎨"],
    ["é.", "é"],
    ["___", ""],
    ["", ""],
  ])("of %s are %s", (name, letters) => expect(lettersOf(name)).toBe(letters));
  test("look the same everywhere, and different names look different", () => {
    expect(initialsOf("mossy_teapot")).toEqual(initialsOf("mossy_teapot"));
    const looks = new Set(Array.from({ length: 200 }, (_, i) => JSON.stringify(initialsOf(`viewer${i}`))));
    expect(looks.size).toBeGreaterThan(60);
  });
});
