import { fold } from "../core/kernel/fold";

const wordsOf = (text: string): readonly string[] =>
  fold(text)
    .split(/[^\p{L}\p{N}]+/u)
    .filter((w) => w !== "");
/** One word of what is looked for against the words of something: 1 for the very word, less for its beginning, 0 for none. */
const best = (part: string, words: readonly string[]): number =>
  words.reduce((most, word) => Math.max(most, word === part ? 1 : word.startsWith(part) ? 0.6 + (0.3 * part.length) / word.length : 0), 0);

/**
 * How well something fits what is looked for, 0 (not at all) to 1. Every word must begin a word of its name or of what
 * people call it. What silences or ends is grave: it is found only where a word of its own is among what is looked for,
 * and after all else.
 */
export function scoreOf(sought: string, of: Readonly<{ label: string; words?: string; grave?: boolean }>): number {
  const parts = wordsOf(sought);
  if (parts.length === 0) return of.grave === true ? 0.01 : 0.02;
  const own = wordsOf(of.words ?? "");
  const label = wordsOf(of.label);
  if (of.grave === true && !parts.some((part) => best(part, own) > 0)) return 0;
  let least = 1;
  for (const part of parts) {
    const score = Math.max(best(part, label), 0.9 * best(part, own));
    if (score === 0) return 0;
    least = Math.min(least, score);
  }
  // What begins as it is written comes first.
  const begins = of.grave !== true && fold(of.label).startsWith(fold(sought).trim()) ? 0.05 : 0;
  return of.grave === true ? least * 0.3 : Math.min(1, least * 0.95 + begins);
}
