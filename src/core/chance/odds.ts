/**
 * Exact chances in words: percent to two decimals that sum to 100.00 (largest remainders first, the earlier one where
 * they are equal), and “1 in n” for what would round to less than 0.01 %. Weights are whole numbers from 0; their sum
 * stays below 2^53. What has no weight has no chance: “–”.
 */
export function chancesInWords(weights: readonly number[]): readonly string[] {
  const shares = hundredths(weights);
  const total = weights.reduce((sum, w) => sum + BigInt(w), 0n);
  return weights.map((weight, i) => {
    if (weight === 0) return "–";
    if (BigInt(weight) * 10_000n < total)
      return `1 in ${String((total + BigInt(weight) / 2n) / BigInt(weight)).replace(/\B(?=(\d{3})+$)/g, ",")}`;
    const share = shares[i] ?? 0;
    return `${Math.floor(share / 100)}.${String(share % 100).padStart(2, "0")} %`;
  });
}

/** Hundredths of a percent that sum to 10,000; all 0 where nothing has a weight. */
export function hundredths(weights: readonly number[]): readonly number[] {
  const total = weights.reduce((sum, w) => sum + BigInt(w), 0n);
  if (total === 0n) return weights.map(() => 0);
  const parts = weights.map((w) => ({ whole: Number((BigInt(w) * 10_000n) / total), left: (BigInt(w) * 10_000n) % total }));
  const missing = 10_000 - parts.reduce((sum, p) => sum + p.whole, 0);
  const first = parts
    .map((p, i) => ({ i, left: p.left }))
    .sort((a, b) => (a.left === b.left ? a.i - b.i : a.left > b.left ? -1 : 1))
    .slice(0, missing);
  const more = new Set(first.map((f) => f.i));
  return parts.map((p, i) => p.whole + (more.has(i) ? 1 : 0));
}
