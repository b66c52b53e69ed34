import { describe, expect, test } from "@jest/globals";
import type { Look } from "../../core/games/brimful/settings";
import { Refs } from "./refs";

const look = (n: number): Look => ({ n, face: false, pictures: [], size: 100, mass: 5, bounce: 20, body: "circle", solid: 90, wide: 100 });
const pile = (batches: readonly (readonly [key: number, look: number, count: number])[], older: [number, number][] = []) => ({
  looks: [look(1), look(2)],
  older,
  batches: batches.map(([key, l, count]) => ({ key, look: l, count, by: "" })),
});

describe("what a page knows of the pieces", () => {
  test("one told by an effect and then by a view is there once", () => {
    const refs = new Refs();
    const { ref, from } = refs.add({ key: 8, look: look(1), count: 3, by: "" }, 100);
    expect(from).toBe(0);
    expect(refs.wanted(pile([[8, 1, 3]]), 100)).toMatchObject([{ ref: ref.ref, count: 3 }]);
    // More of the same signal go on from there.
    expect(refs.add({ key: 8, look: look(1), count: 2, by: "" }, 100)).toMatchObject({ from: 3 });
  });
  test("what was missed is there by the view, what is gone is gone", () => {
    const refs = new Refs();
    refs.add({ key: 8, look: look(1), count: 3, by: "" }, 100);
    expect(refs.wanted(pile([[10, 2, 4]]), 100).map((w) => w.count)).toEqual([4]);
    expect(refs.wanted(pile([]), 100)).toEqual([]);
  });
  test("what becomes too old to be told apart stays what it was", () => {
    const refs = new Refs();
    const before = refs.wanted(
      pile([
        [8, 1, 3],
        [10, 1, 2],
      ]),
      100,
    );
    const after = refs.wanted(pile([[10, 1, 2]], [[1, 3]]), 100);
    expect(new Set(after.map((w) => `${w.ref} ${w.count}`))).toEqual(new Set(before.map((w) => `${w.ref} ${w.count}`)));
  });
  test("a fresh page makes up what is older as one", () => {
    expect(
      new Refs()
        .wanted(
          pile(
            [[10, 1, 2]],
            [
              [1, 30],
              [2, 4],
            ],
          ),
          100,
        )
        .map((w) => w.count),
    ).toEqual([2, 30, 4]);
  });
  test("the next filling is another, even of the same signal", () => {
    const refs = new Refs();
    const first = refs.add({ key: 8, look: look(1), count: 3, by: "" }, 100).ref;
    refs.newFilling();
    const second = refs.add({ key: 8, look: look(1), count: 2, by: "" }, 100);
    expect([second.from, second.ref.ref === first.ref]).toEqual([0, false]);
    // Those that still fly out have their picture.
    expect(refs.of(first.ref)).toBe(first);
  });
  test("a long evening is not remembered whole; what lies there is, however old", () => {
    const refs = new Refs();
    const oldest = refs.add({ key: 1, look: look(1), count: 1, by: "" }, 100).ref;
    const second = refs.add({ key: 2, look: look(1), count: 1, by: "" }, 100).ref;
    for (let key = 3; key < 9_000; key += 1) {
      refs.add({ key, look: look(1), count: 1, by: "" }, 100);
      refs.wanted(
        pile([
          [1, 1, 1],
          [key, 1, 1],
        ]),
        100,
      );
    }
    expect(refs.of(oldest.ref)).toBe(oldest);
    expect(refs.of(second.ref)).toBeUndefined();
    expect(Array.from({ length: 9_000 }, (_, n) => refs.of(n)).filter((r) => r !== undefined).length).toBeLessThan(4_100);
  });
});
