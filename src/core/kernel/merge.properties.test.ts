import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { merge } from "./merge";

const json = fc.jsonValue({ maxDepth: 3 });
/** A list whose entries have ids, as rules, cues and rewards are. */
const entry = fc.record({ id: fc.constantFrom("a", "b", "c", "d", "e"), name: fc.constantFrom("x", "y", "z"), n: fc.nat(3) });
const list = fc.uniqueArray(entry, { selector: (e) => e.id, maxLength: 5 });
const ids = (value: unknown): readonly string[] => (value as readonly { id: string }[]).map((e) => e.id);

describe("bringing together what two people changed, whatever it is", () => {
  test("who alone changed something has it, and nothing clashes", () => {
    fc.assert(
      fc.property(json, json, (base, other) => {
        const asJson = (v: unknown): unknown => JSON.parse(JSON.stringify(v));
        expect(asJson(merge(base, other, base).value)).toEqual(asJson(other));
        expect(asJson(merge(base, base, other).value)).toEqual(asJson(other));
        expect(merge(base, other, base).clashes + merge(base, base, other).clashes + merge(base, other, other).clashes).toBe(0);
      }),
    );
  });
  test("different fields of one thing: both keep theirs", () => {
    fc.assert(
      fc.property(fc.dictionary(fc.string(), fc.integer()), fc.string(), fc.string(), (base, one, two) => {
        fc.pre(one !== two);
        const set = (of: object, key: string, value: number): unknown => Object.fromEntries([...Object.entries(of), [key, value]]);
        const both = merge(base, set(base, one, -1), set(base, two, -2));
        expect(both.clashes).toBe(0);
        expect(Object.entries(both.value as object)).toEqual(
          expect.arrayContaining([
            [one, -1],
            [two, -2],
          ]),
        );
      }),
    );
  });
  test("of lists nothing comes twice or from nowhere, and what neither took out is there", () => {
    fc.assert(
      fc.property(list, list, list, (base, mine, theirs) => {
        const { value } = merge(base, mine, theirs);
        const after = ids(value);
        expect(new Set(after).size).toBe(after.length);
        for (const id of after) expect([...ids(mine), ...ids(theirs)]).toContain(id);
        for (const id of ids(mine)) if (ids(theirs).includes(id)) expect(after).toContain(id);
        // What only one of them added is never lost.
        for (const id of [...ids(mine), ...ids(theirs)]) if (!ids(base).includes(id)) expect(after).toContain(id);
      }),
    );
  });
  test("who merges again is told the same", () => {
    fc.assert(
      fc.property(list, list, list, (base, mine, theirs) => {
        const once = merge(base, mine, theirs);
        expect(merge(theirs, once.value, theirs)).toEqual({ value: once.value, clashes: 0 });
      }),
    );
  });
});
