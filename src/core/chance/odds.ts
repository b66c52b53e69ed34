import { apportion } from "../kernel/apportion";
import { count } from "../words/sentence";

/**
 * Exact chances in words: percent to two decimals that sum to 100.00, and “1 in n” for what would round to less than
 * 0.01 %. Weights are whole numbers from 0; their sum stays below 2^53. What has no weight has no chance: “–”.
 */
export function chancesInWords(weights: readonly number[]): readonly string[] {
  const total = weights.reduce((sum, w) => sum + w, 0);
  const hundredths = apportion(10_000, weights);
  return weights.map((weight, i) => {
    if (weight === 0) return "–";
    if (weight < total / 10_000) return `1 in ${count(Math.round(total / weight))}`;
    const share = hundredths[i] ?? 0;
    return `${Math.floor(share / 100)}.${String(share % 100).padStart(2, "0")} %`;
  });
}
