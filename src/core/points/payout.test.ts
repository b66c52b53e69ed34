import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { oddsHundredths, settle, type Stake } from "./payout";

const stakes = (...amounts: number[]): Stake[] => amounts.map((stake, i) => ({ id: `v${i}`, stake, order: i }));
const amounts = (s: ReturnType<typeof settle>): number[] => s.payouts.map((p) => p.amount);

describe("a pool is settled", () => {
  test("winners share all of it by what they staked", () => {
    expect(settle(stakes(100, 300), stakes(400), 0)).toMatchObject({ fee: 0, pot: 800, returned: false });
    expect(amounts(settle(stakes(100, 300), stakes(400), 0))).toEqual([200, 600]);
  });
  test("a pot that does not divide goes out to the point: the largest remainders first, then the earlier stake", () => {
    expect(amounts(settle(stakes(1, 1, 1), stakes(7), 0))).toEqual([4, 3, 3]);
    expect(amounts(settle(stakes(1, 2), stakes(2), 0))).toEqual([2, 3]);
    const late: Stake[] = [
      { id: "late", stake: 1, order: 9 },
      { id: "early", stake: 1, order: 2 },
    ];
    expect(settle(late, stakes(1), 0).payouts).toEqual([
      { id: "late", amount: 1 },
      { id: "early", amount: 2 },
    ]);
  });
  test("a fee is taken first, rounded down; none where everybody was right", () => {
    expect(settle(stakes(100), stakes(99), 1_000)).toMatchObject({ fee: 19, pot: 180 });
    expect(settle(stakes(100, 50), [], 1_000)).toMatchObject({ fee: 0, pot: 150 });
    expect(amounts(settle(stakes(100, 50), [], 5_000))).toEqual([100, 50]);
  });
  test("nobody backed what came: all have their own back", () =>
    expect(settle([], stakes(5, 6), 1_000)).toEqual({
      fee: 0,
      pot: 11,
      payouts: [
        { id: "v0", amount: 5 },
        { id: "v1", amount: 6 },
      ],
      returned: true,
    }));
  test("nobody at all", () => expect(settle([], [], 0)).toEqual({ fee: 0, pot: 0, payouts: [], returned: true }));
  test("stakes near what a number can hold are exact", () => {
    const huge = 2 ** 52;
    const done = settle(stakes(huge - 1, 1), stakes(huge - 1), 0);
    expect(amounts(done).reduce((sum, a) => sum + a, 0)).toBe(done.pot);
    expect(amounts(done)[1]).toBeLessThanOrEqual(2);
  });
  const many = fc.array(fc.integer({ min: 1, max: 1_000_000 }), { maxLength: 40 });
  test("whatever is staked: what comes in goes out, nobody who won gets less than another who staked less, nobody loses by winning without a fee", () =>
    fc.assert(
      fc.property(many, many, fc.integer({ min: 0, max: 5_000 }), (won, lost, feeBp) => {
        const done = settle(stakes(...won), stakes(...lost), feeBp);
        const paid = amounts(done).reduce((sum, a) => sum + a, 0);
        const all = [...won, ...lost].reduce((sum, a) => sum + a, 0);
        expect(paid + done.fee).toBe(all);
        const free = settle(stakes(...won), stakes(...lost), 0);
        if (won.length > 0) expect(amounts(free).every((a, i) => a >= (won[i] ?? 0))).toBe(true);
        return won.every((a, i) => won.every((b, j) => a >= b || won.length === 0 || (amounts(done)[i] ?? 0) <= (amounts(done)[j] ?? 0)));
      }),
    ));
});

test("odds are what a point would bring now; none where nobody backs it", () => {
  expect(oddsHundredths(0, 500, 0)).toBeNull();
  expect(oddsHundredths(100, 300, 0)).toBe(300);
  expect(oddsHundredths(300, 300, 1_000)).toBe(100);
  expect(oddsHundredths(3, 10, 0)).toBe(333);
});
