import { describe, expect, test } from "@jest/globals";
import { ownChance } from "./own-chance";

const many = (n: number, tickets: number): number[] => Array.from({ length: n }, () => tickets);
/** Everybody else by how many they hold. */
function chance(own: number, others: readonly number[], winners: number) {
  const kinds = new Map<number, number>();
  for (const n of others) kinds.set(n, (kinds.get(n) ?? 0) + 1);
  return ownChance(own, kinds, winners);
}
describe("one's own chance", () => {
  test("for one winner: own tickets of all", () => expect(chance(3, [1, 8], 1)).toEqual({ share: 0.25, about: false }));
  test("for several, where all hold as many: winners of people", () =>
    expect(chance(5, many(19, 5), 4)).toEqual({ share: 0.2, about: false }));
  test("with as many winners as people it is sure; with no ticket there is none", () => {
    expect(chance(1, [100], 2)).toEqual({ share: 1, about: false });
    expect(chance(0, [1], 1)).toEqual({ share: 0, about: false });
  });
  test("where tickets differ it is simulated, said to be about, and near what sums to", () => {
    // Two winners of tickets 1, 2, 3: for the 1: 1/6 + 2/6·1/4 + 3/6·1/3 = 5/12.
    const { share, about } = chance(1, [2, 3], 2);
    expect(about).toBe(true);
    expect(Math.abs(share - 5 / 12)).toBeLessThan(0.01);
    expect(chance(1, [2, 3], 2).share).toBe(share);
  });
  test("all chances together are as many as there are winners", () => {
    const tickets = [1, 1, 2, 5, 9, 30];
    const sum = tickets.reduce(
      (all, own, i) =>
        all +
        chance(
          own,
          tickets.filter((_, j) => j !== i),
          3,
        ).share,
      0,
    );
    expect(Math.abs(sum - 3)).toBeLessThan(0.06);
  });
});
