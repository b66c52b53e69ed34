import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { listFrom, type ListShape, listText } from "./list";

const commas: ListShape = { apart: "commas", most: 3, letters: 10 };
const spaces: ListShape = { apart: "spaces", most: 3, letters: 10 };

test("by commas, words may hold spaces; by spaces, commas set them apart too", () => {
  expect(listFrom(" a b ,c,, d ", commas)).toEqual(["a b", "c", "d"]);
  expect(listFrom("!a, !b\t!c", spaces)).toEqual(["!a", "!b", "!c"]);
  expect(listText(["a b", "c"], commas)).toBe("a b, c");
  expect(listText(["!a", "!b"], spaces)).toBe("!a !b");
});
test("no more than may be, none too long, and no emoji cut in half", () => {
  expect(listFrom("a,b,c,d", commas)).toEqual(["a", "b", "c"]);
  expect(listFrom("123456789🔥", commas)).toEqual(["123456789"]);
  expect(listFrom("", commas)).toEqual([]);
});
test("what was taken is read again as it is", () =>
  fc.assert(
    fc.property(fc.string({ unit: "grapheme" }), fc.constantFrom(commas, spaces), (text, shape) => {
      const list = listFrom(text, shape);
      expect(listFrom(listText(list, shape), shape)).toEqual(list);
      return list.length <= 3 && list.every((w) => w !== "" && w.length <= 10);
    }),
  ));
