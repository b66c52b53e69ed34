import { fold } from "../kernel/fold";

/** Letters added, dropped, changed or swapped with their neighbour (optimal string alignment). */
export function slips(a: string, b: string): number {
  const rows: number[][] = [Array.from({ length: b.length + 1 }, (_, j) => j)];
  for (let i = 1; i <= a.length; i += 1) {
    const row = [i];
    const above = rows[i - 1] ?? [];
    for (let j = 1; j <= b.length; j += 1) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      let best = Math.min((above[j] ?? 0) + 1, (row[j - 1] ?? 0) + 1, (above[j - 1] ?? 0) + same);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) best = Math.min(best, (rows[i - 2]?.[j - 2] ?? 0) + 1);
      row.push(best);
    }
    rows.push(row);
  }
  return rows[a.length]?.[b.length] ?? 0;
}

/** The word that was probably meant: one slip away, two in a long word; null when none or several are. */
export function nearest(word: string, words: readonly string[]): string | null {
  const meant = fold(word);
  const most = meant.length >= 8 ? 2 : 1;
  if (meant.length < 4) return null;
  const near = words.map((w) => ({ w, d: slips(meant, fold(w)) })).filter(({ d }) => d > 0 && d <= most);
  const best = Math.min(...near.map((n) => n.d));
  const [first, second] = near.filter((n) => n.d === best);
  return first === undefined || second !== undefined ? null : first.w;
}
