import { describe, expect, test } from "@jest/globals";
import { chanceFrom, pick } from "../kernel/chance";
import { minorFrom, moneyDefaults, toHome } from "./money";
import { currencyDigits, moneyInWords } from "./money-words";
import { earned, plus } from "./rate";
import { amountOf, tierFor, twiceTheSame, type TierAt } from "./tiers";
import type { Signal } from "./signal";

describe("so much for every so much", () => {
  const five = { give: 5, per: 100 };
  test("5 for every 1.00 of 4.30 is 21, and half a part is kept", () => {
    expect(earned(five, 430)).toEqual({ value: 21, kept: 50 });
  });
  test("four small gifts count as much as one", () => {
    let kept = 0;
    let sum = 0;
    for (let i = 0; i < 4; i += 1) {
      const e = earned(five, 25, kept);
      sum += e.value;
      kept = e.kept;
    }
    expect([sum, kept]).toEqual([5, 0]);
  });
  test("however a sum is split up, it earns the same, and the remainder is always less than one", () => {
    const chance = chanceFrom(12);
    for (let round = 0; round < 400; round += 1) {
      const rate = { give: 1 + pick(chance, 40), per: 1 + pick(chance, 300) };
      const parts = Array.from({ length: 1 + pick(chance, 12) }, () => 1 + pick(chance, 5_000));
      let kept = 0;
      let sum = 0;
      for (const part of parts) {
        const e = earned(rate, part, kept);
        sum += e.value;
        kept = e.kept;
        expect(kept).toBeLessThan(rate.per);
      }
      expect(sum).toBe(Math.floor((parts.reduce((a, b) => a + b, 0) * rate.give) / rate.per));
    }
  });
  test("nothing, less than nothing and a rate of nothing earn nothing and keep what was kept", () => {
    expect(earned(five, 0, 30)).toEqual({ value: 0, kept: 30 });
    expect(earned(five, -400, 30)).toEqual({ value: 0, kept: 30 });
    expect(earned({ give: 0, per: 1 }, 900, 3)).toEqual({ value: 0, kept: 3 });
  });
  test("products beyond what a number holds exactly are formed whole, and cut off where they must be", () => {
    expect(earned({ give: 1_000_000_000, per: 1_000_000_000 }, Number.MAX_SAFE_INTEGER)).toEqual({
      value: Number.MAX_SAFE_INTEGER,
      kept: 0,
    });
    expect(earned({ give: 1_000_000_000, per: 1 }, Number.MAX_SAFE_INTEGER).value).toBe(Number.MAX_SAFE_INTEGER);
    expect(plus(Number.MAX_SAFE_INTEGER, 5)).toBe(Number.MAX_SAFE_INTEGER);
  });
  test("a remainder kept under an older rate never makes more than one", () => {
    expect(earned({ give: 1, per: 10 }, 1, 9_999).value).toBe(1);
  });
});

describe("money", () => {
  test.each([
    ["EUR", 2],
    ["JPY", 0],
    ["BHD", 3],
    ["ISK", 0],
  ])("%s has %i digits", (currency, digits) => expect(currencyDigits(currency)).toBe(digits));
  test("is written with its own digits and thousands set apart", () => {
    expect(moneyInWords(5, "EUR")).toBe("0.05 EUR");
    expect(moneyInWords(1_234_567, "EUR")).toBe("12,345.67 EUR");
    expect(moneyInWords(1_234, "JPY")).toBe("1,234 JPY");
    expect(moneyInWords(1_234, "KWD")).toBe("1.234 KWD");
  });
  test("is read back from what a person types", () => {
    expect(minorFrom("12.34", "EUR")).toBe(1_234);
    expect(minorFrom("12,3", "EUR")).toBe(1_230);
    expect(minorFrom("12", "JPY")).toBe(12);
    expect(minorFrom("12.5", "JPY")).toBeNull();
    expect(minorFrom("1.2345", "EUR")).toBeNull();
    expect(minorFrom("twelve", "EUR")).toBeNull();
  });
  const money = {
    home: "EUR",
    rates: [
      { currency: "JPY", millionths: 6_100 },
      { currency: "KWD", millionths: 3_000_000 },
    ],
  };
  test("counts at home as it is, by the channel's rate elsewhere, rounded down", () => {
    expect(toHome(500, "EUR", money)).toEqual({ ok: true, value: 500 });
    // 1,000 yen at 0.0061 are 6.10.
    expect(toHome(1_000, "JPY", money)).toEqual({ ok: true, value: 610 });
    expect(toHome(1, "JPY", money)).toEqual({ ok: true, value: 0 });
    // 1.500 dinars at 3 are 4.50.
    expect(toHome(1_500, "KWD", money)).toEqual({ ok: true, value: 450 });
  });
  test("without a rate does not count, and says so; too much is refused, not bent", () => {
    expect(toHome(500, "SEK", moneyDefaults)).toMatchObject({ ok: false, refusal: { code: "money/no-rate", facts: { currency: "SEK" } } });
    const rich = { home: "EUR", rates: [{ currency: "GBP", millionths: 1_000_000_000_000 }] };
    expect(toHome(Number.MAX_SAFE_INTEGER, "GBP", rich)).toMatchObject({ ok: false, refusal: { code: "money/too-much" } });
  });
});

describe("tiers", () => {
  const tiers: TierAt[] = [
    { at: "least", amount: 1 },
    { at: "least", amount: 100 },
    { at: "exact", amount: 100 },
    { at: "exact", amount: 42 },
  ];
  test.each<[number, TierAt | null]>([
    [0, null],
    [1, tiers[0]!],
    [42, tiers[3]!],
    [43, tiers[0]!],
    [99, tiers[0]!],
    [100, tiers[2]!],
    [101, tiers[1]!],
    [Number.MAX_SAFE_INTEGER, tiers[1]!],
  ])("an amount of %i", (amount, tier) => expect(tierFor(tiers, amount)).toBe(tier));
  test("two of one amount are found; a least and an exact one may share it", () => {
    expect(twiceTheSame(tiers)).toBeNull();
    expect(twiceTheSame([...tiers, { at: "least", amount: 100 }])).toEqual({ at: "least", amount: 100 });
  });
  test("every kind of signal amounts to something", () => {
    const head = { seq: 1, atMs: 1, id: "x" };
    const viewer = { id: "a", name: "A", roles: [] };
    const all: [Signal, number | null][] = [
      [{ ...head, kind: "follow", viewer }, 1],
      [{ ...head, kind: "membership", viewer, months: 7, text: "", fromGift: "" }, 7],
      [{ ...head, kind: "gift", viewer: null, count: 5, recipients: [] }, 5],
      [{ ...head, kind: "tip", viewer, amountMinor: 900, currency: "SEK", homeMinor: null, text: "" }, null],
      [{ ...head, kind: "tip", viewer, amountMinor: 900, currency: "EUR", homeMinor: 900, text: "" }, 900],
      [{ ...head, kind: "reaction", viewer, reaction: "sherd", count: 3, value: 30, text: "" }, 30],
      [{ ...head, kind: "raid", viewer, viewers: 12 }, 12],
      [{ ...head, kind: "message", viewer, text: "", marks: [] }, 1],
    ];
    for (const [signal, amount] of all) expect(amountOf(signal)).toBe(amount);
  });
});
