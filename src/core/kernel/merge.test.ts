import { describe, expect, test } from "@jest/globals";
import { chanceFrom, pick } from "./chance";
import { merge } from "./merge";
import { strangers } from "./strangers";

const base = {
  health: 100,
  looks: { name: true, glaze: "#111111" },
  words: ["a", "b"],
  rules: [
    { id: "1", on: true, n: 1 },
    { id: "2", on: true, n: 2 },
  ],
};
const mine = (part: object) => ({ ...base, ...part });

describe("what two people changed from the same beginning", () => {
  test("different fields: both are kept, however deep", () => {
    const merged = merge(base, mine({ health: 200 }), mine({ looks: { name: false, glaze: "#111111" } }));
    expect(merged).toEqual({ value: { ...base, health: 200, looks: { name: false, glaze: "#111111" } }, clashes: 0 });
    expect(merge(base, mine({ looks: { ...base.looks, name: false } }), mine({ looks: { ...base.looks, glaze: "#222222" } }))).toEqual({
      value: { ...base, looks: { name: false, glaze: "#222222" } },
      clashes: 0,
    });
  });
  test("the same field to different things clashes, and mine stands; to the same thing does not", () => {
    expect(merge(base, mine({ health: 1 }), mine({ health: 2 }))).toEqual({ value: { ...base, health: 1 }, clashes: 1 });
    expect(merge(base, mine({ health: 3 }), mine({ health: 3 })).clashes).toBe(0);
    expect(merge(base, mine({ words: ["a"] }), mine({ words: ["b"] })).clashes).toBe(1);
  });
  test("entries of a list are told apart by their id: changed, added, taken out", () => {
    const [one, two] = base.rules as [object, object];
    const three = { id: "3", on: false, n: 3 };
    expect(merge(base, mine({ rules: [{ ...one, on: false }, two] }), mine({ rules: [one, { ...two, n: 9 }, three] }))).toEqual({
      value: { ...base, rules: [{ id: "1", on: false, n: 1 }, { id: "2", on: true, n: 9 }, three] },
      clashes: 0,
    });
    expect(merge(base, mine({ rules: [two] }), mine({ rules: [one, two, three] }))).toEqual({
      value: { ...base, rules: [two, three] },
      clashes: 0,
    });
    // One took out what the other changed.
    expect(merge(base, mine({ rules: [two] }), mine({ rules: [{ ...one, n: 7 }, two] })).clashes).toBe(1);
    expect(merge(base, mine({ rules: [{ ...one, n: 7 }, two] }), mine({ rules: [two] })).clashes).toBe(1);
    // Only they changed the order.
    expect(merge(base, mine({ rules: [one, { ...two, n: 5 }] }), mine({ rules: [two, one] })).value).toMatchObject({
      rules: [{ id: "2", n: 5 }, { id: "1" }],
    });
  });
  test("whatever the settings: what one left alone is the other's, and nothing is lost", () => {
    const chance = chanceFrom(5);
    for (let round = 0; round < 400; round += 1) {
      const names = [...new Set(["health", "a", "__proto__", "constructor", ...strangers.slice(0, 4)])];
      const start = Object.fromEntries(names.map((n) => [n, pick(chance, 3)]));
      const change = (): Record<string, number> =>
        Object.fromEntries(names.map((n) => [n, chance() < 0.4 ? pick(chance, 9) : Number(start[n])]));
      const [my, their] = [change(), change()];
      const { value, clashes } = merge(start, my, their) as { value: Record<string, number>; clashes: number };
      let both = 0;
      for (const n of names) {
        const at = (of: Record<string, number>): number | undefined => (Object.hasOwn(of, n) ? of[n] : undefined);
        const clash = at(my) !== at(start) && at(their) !== at(start) && at(my) !== at(their);
        if (clash) both += 1;
        expect(at(value)).toBe(clash || at(my) !== at(start) ? at(my) : at(their));
      }
      expect(clashes).toBe(both);
      expect(merge(start, start, their)).toEqual({ value: their, clashes: 0 });
    }
  });
});
