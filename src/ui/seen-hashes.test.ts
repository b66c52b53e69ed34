/** @jest-environment jsdom */
import { beforeEach, expect, test } from "@jest/globals";
import { noteSeen, seenOf } from "./seen-hashes";

const hash = (n: number): string => n.toString(16).padStart(64, "0");
beforeEach(() => localStorage.clear());

test("what was seen of a round is kept once, by its name, whatever the name is", () => {
  for (const round of ["mug.1.x", "__proto__", "constructor"]) {
    expect(seenOf(round)).toEqual([]);
    noteSeen(round, [hash(1), "", hash(2)]);
    noteSeen(round, [hash(1), hash(3)]);
    expect(seenOf(round)).toEqual([hash(1), hash(2), hash(3)]);
  }
});
test("the promise stays when the links are many; the oldest rounds make room", () => {
  for (let n = 1; n <= 200; n += 1) noteSeen("mug.1.x", [hash(0), hash(n)]);
  const kept = seenOf("mug.1.x");
  expect([kept.length, kept[0], kept.at(-1)]).toEqual([60, hash(0), hash(200)]);
  for (let n = 0; n < 30; n += 1) noteSeen(`mug.${n}.y`, [hash(n)]);
  expect([seenOf("mug.1.x"), seenOf("mug.29.y")]).toEqual([[], [hash(29)]]);
});
test("a storage that holds something else, or nothing at all, stops no page", () => {
  localStorage.setItem("izzam.seen-hashes", '{"a":1}');
  expect(seenOf("mug.1.x")).toEqual([]);
  noteSeen("mug.1.x", [hash(1)]);
  expect(seenOf("mug.1.x")).toEqual([hash(1)]);
  const own = Object.getOwnPropertyDescriptor(Storage.prototype, "setItem")!;
  Object.defineProperty(Storage.prototype, "setItem", {
    ...own,
    value: () => {
      throw new Error("full");
    },
  });
  noteSeen("mug.2.x", [hash(1)]);
  Object.defineProperty(Storage.prototype, "setItem", own);
  expect(seenOf("mug.2.x")).toEqual([]);
});
