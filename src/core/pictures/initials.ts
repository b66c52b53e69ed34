import { mix32 } from "../kernel/chance";
import { type Pattern, patterns } from "./patterns";

/**
 * What stands for a face where there is no picture of it (RULES section 12): letters drawn from the name, in a colour and
 * a pattern that follow from the name alone, so that somebody looks the same everywhere.
 */
export type Initials = Readonly<{ letters: string; colour: string; pattern: Pattern }>;

/** Glazes and clays: none so light that white letters are lost on it, none so dark that it is lost on the picture. */
const grounds = ["#8A4B2C", "#3F6B63", "#37598A", "#7A6A2E", "#9A3B2C", "#5C6F3A", "#6B5344", "#2F6E86", "#8C5A6B", "#4B5468"] as const;

const graphemes = (text: string): readonly string[] =>
  [...new Intl.Segmenter(undefined, { granularity: "grapheme" }).segment(text)].map((s) => s.segment);
const letter = /[\p{L}\p{N}\p{Extended_Pictographic}]/u;

/** One or two letters: the first of the first two parts of a name, or its first two. */
export function lettersOf(name: string): string {
  const parts = name
    .split(/[\s_\-.]+/u)
    .map((part) => graphemes(part).filter((g) => letter.test(g)))
    .filter((part) => part.length > 0);
  const [first = [], second = []] = parts;
  const two = second[0] === undefined ? first.slice(0, 2) : [first[0] ?? "", second[0]];
  // Two pictures side by side would be unreadable.
  return /\p{Extended_Pictographic}/u.test(two[0] ?? "") ? (two[0] ?? "") : two.join("").toLowerCase();
}

export function initialsOf(name: string): Initials {
  let mark = 0;
  for (const g of name) mark = mix32(mark, g.codePointAt(0) ?? 0);
  return {
    letters: lettersOf(name),
    colour: grounds[mark % grounds.length] ?? grounds[0],
    pattern: patterns[(mark >>> 8) % patterns.length] ?? "plain",
  };
}
