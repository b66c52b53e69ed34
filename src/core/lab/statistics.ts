import { z } from "zod";

/**
 * What many simulated evenings came to, in a few numbers. A value of null is an evening in which the thing asked for did
 * not come to pass: it counts as later, or more, than any number.
 */
export const summarySchema = z.object({
  /** How many evenings there were, and in how many of them it did not come to pass. */
  n: z.int(),
  never: z.int(),
  /** Null where so many evenings never saw it. */
  p5: z.number().nullable(),
  p50: z.number().nullable(),
  p95: z.number().nullable(),
  mean: z.number().nullable(),
  /** Between these the true middle lies, 95 times in 100; null where that reaches into "never". */
  low: z.number().nullable(),
  high: z.number().nullable(),
  /** The share that never saw it, in the same way. */
  neverLow: z.number(),
  neverHigh: z.number(),
  bins: z.array(z.object({ from: z.number(), to: z.number(), count: z.int() })),
});
export type Summary = z.infer<typeof summarySchema>;

const mostBins = 32;
const z95 = 1.96;

/** The value at a share of a sorted list, by the nearest rank; null past its end. */
const at = (sorted: Float64Array, n: number, share: number): number | null => {
  const rank = Math.max(0, Math.ceil(share * n) - 1);
  return sorted[rank] ?? null;
};

/**
 * Wilson's interval for a share of `count` in `n`, 95 % (Wilson 1927): honest also at none and at all.
 */
export function shareBounds(count: number, n: number): readonly [low: number, high: number] {
  if (n === 0) return [0, 1];
  const p = count / n;
  const z2 = z95 * z95;
  const middle = (p + z2 / (2 * n)) / (1 + z2 / n);
  const half = (z95 / (1 + z2 / n)) * Math.sqrt((p * (1 - p)) / n + z2 / (4 * n * n));
  return [count === 0 ? 0 : Math.max(0, middle - half), count === n ? 1 : Math.min(1, middle + half)];
}

/** Steps that people read easily: 1, 2 or 5 of some power of ten. */
export function niceStep(range: number, most: number): number {
  const raw = range / Math.max(1, most);
  if (!(raw > 0)) return 1;
  const power = 10 ** Math.floor(Math.log10(raw));
  return ([1, 2, 5, 10].find((m) => m * power >= raw * (1 - 1e-9)) ?? 10) * power;
}

function binsOf(sorted: Float64Array, whole: boolean): Summary["bins"] {
  const first = sorted[0];
  const last = sorted[sorted.length - 1];
  if (first === undefined || last === undefined) return [];
  const nice = niceStep(last - first, mostBins);
  const step = whole ? Math.max(1, Math.round(nice)) : nice;
  const from = Math.floor(first / step + 1e-9);
  const to = Math.max(from, Math.floor(last / step + 1e-9));
  const bins = Array.from({ length: to - from + 1 }, (_, i) => ({ from: (from + i) * step, to: (from + i + 1) * step, count: 0 }));
  for (const value of sorted) {
    const bin = bins[Math.min(bins.length - 1, Math.max(0, Math.floor(value / step + 1e-9) - from))];
    if (bin !== undefined) bin.count += 1;
  }
  return bins;
}

/** `whole`: the values count things, so that no bin is narrower than one. */
export function summaryOf(values: readonly (number | null)[], whole = false): Summary {
  const n = values.length;
  const came = Float64Array.from(values.filter((v): v is number => v !== null)).sort((a, b) => a - b);
  // Order statistics: the middle lies between these ranks, by the normal approximation of the binomial.
  const half = (z95 * Math.sqrt(n)) / 2;
  const rank = (r: number): number | null => came[Math.min(n - 1, Math.max(0, Math.round(r)))] ?? null;
  const [neverLow, neverHigh] = shareBounds(n - came.length, n);
  return {
    n,
    never: n - came.length,
    p5: at(came, n, 0.05),
    p50: at(came, n, 0.5),
    p95: at(came, n, 0.95),
    mean: came.length === 0 || came.length < n ? null : came.reduce((sum, v) => sum + v, 0) / n,
    low: n === 0 ? null : rank(n / 2 - half - 1),
    high: n === 0 ? null : rank(n / 2 + half),
    neverLow,
    neverHigh,
    bins: binsOf(came, whole),
  };
}
