/**
 * A whole number in parts by weight that sum to it exactly: each gets what it is due, rounded down, and what is left goes
 * one each to the largest remainders; where two are equal, to the lower `order`, or the earlier one. All nothing where
 * nothing has a weight. Weights are whole numbers from 0; their sum stays below 2^53.
 */
export function apportion(
  whole: number,
  weights: readonly number[],
  order: readonly number[] = weights.map((_, i) => i),
): readonly number[] {
  const total = weights.reduce((sum, w) => sum + BigInt(w), 0n);
  if (total === 0n) return weights.map(() => 0);
  const parts = weights.map((w) => {
    const due = BigInt(w) * BigInt(whole);
    return { whole: Number(due / total), left: due % total };
  });
  const missing = whole - parts.reduce((sum, p) => sum + p.whole, 0);
  const first = parts
    .map((p, i) => ({ i, left: p.left, order: order[i] ?? i }))
    .sort((a, b) => (a.left === b.left ? a.order - b.order : a.left > b.left ? -1 : 1))
    .slice(0, missing);
  const more = new Set(first.map((f) => f.i));
  return parts.map((p, i) => p.whole + (more.has(i) ? 1 : 0));
}
