import { describe, expect, test } from "@jest/globals";
import { chanceFrom } from "../kernel/chance";
import { niceStep, shareBounds, summaryOf } from "./statistics";

const oneTo = (n: number): number[] => Array.from({ length: n }, (_, i) => i + 1);

test("the 5th, 50th and 95th of a hundred are those, whatever their order", () => {
  const { p5, p50, p95, mean, n, never } = summaryOf(oneTo(100).reverse());
  expect({ p5, p50, p95, mean, n, never }).toEqual({ p5: 5, p50: 50, p95: 95, mean: 50.5, n: 100, never: 0 });
});

test("what never came counts as later than all: with most of them the middle is never", () => {
  const few = summaryOf([...oneTo(90), ...Array.from({ length: 10 }, () => null)]);
  expect([few.never, few.p50, few.p95, few.mean]).toEqual([10, 50, null, null]);
  const most = summaryOf([1, 2, null, null, null]);
  expect([most.p5, most.p50, most.p95]).toEqual([1, null, null]);
  expect(summaryOf([null]).bins).toEqual([]);
});

test("nothing asked is nothing found", () => {
  expect(summaryOf([])).toMatchObject({ n: 0, never: 0, p50: null, low: null, high: null, bins: [], neverLow: 0, neverHigh: 1 });
});

describe("how sure it is", () => {
  test("19 of 20 intervals hold the true middle", () => {
    const chance = chanceFrom(7);
    let held = 0;
    for (let i = 0; i < 400; i += 1) {
      const { low, high } = summaryOf(Array.from({ length: 200 }, () => chance() * 10));
      if (low !== null && high !== null && low <= 5 && high >= 5) held += 1;
    }
    expect(held / 400).toBeGreaterThan(0.92);
    expect(held / 400).toBeLessThanOrEqual(1);
  });
  test("four times as many evenings halve it", () => {
    const chance = chanceFrom(8);
    const width = (n: number): number => {
      let sum = 0;
      for (let i = 0; i < 60; i += 1) {
        const { low, high } = summaryOf(Array.from({ length: n }, () => chance()));
        sum += (high ?? 0) - (low ?? 0);
      }
      return sum;
    };
    expect(width(400) / width(100)).toBeGreaterThan(0.4);
    expect(width(400) / width(100)).toBeLessThan(0.6);
  });
  test("a share of none and of all has its honest bound", () => {
    expect(shareBounds(0, 100)[0]).toBe(0);
    expect(shareBounds(0, 100)[1]).toBeCloseTo(0.037, 3);
    expect(shareBounds(100, 100)).toEqual([shareBounds(100, 100)[0], 1]);
    expect(shareBounds(50, 100).map((v) => Math.round(v * 1000))).toEqual([404, 596]);
    expect(shareBounds(0, 0)).toEqual([0, 1]);
  });
});

describe("bins", () => {
  test("all are counted, once each, in even steps", () => {
    const { bins } = summaryOf([0, 0.4, 3, 9.99, 10]);
    expect(bins.reduce((sum, b) => sum + b.count, 0)).toBe(5);
    const [first] = bins;
    for (const b of bins) expect(b.to - b.from).toBeCloseTo((first?.to ?? 0) - (first?.from ?? 0), 9);
    expect(bins.length).toBeLessThanOrEqual(33);
  });
  test("things are counted in ones", () => {
    expect(summaryOf([3, 3, 4], true).bins).toEqual([
      { from: 3, to: 4, count: 2 },
      { from: 4, to: 5, count: 1 },
    ]);
  });
  test("all alike are one bin", () => {
    expect(summaryOf([7, 7, 7]).bins).toEqual([{ from: 7, to: 8, count: 3 }]);
  });
  test.each([
    [10, 5, 2],
    [100, 32, 5],
    [0, 10, 1],
    [0.3, 3, 0.1],
  ])("%d in at most %d steps go by %d", (range, most, step) => expect(niceStep(range, most)).toBeCloseTo(step, 9));
});
