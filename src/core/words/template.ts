import {
  isArgumentElement,
  isLiteralElement,
  isPoundElement,
  isPluralElement,
  isSelectElement,
  isNumberElement,
  isDateElement,
  isTimeElement,
  isTagElement,
  parse,
  type MessageFormatElement,
} from "@formatjs/icu-messageformat-parser";
import { IntlMessageFormat } from "intl-messageformat";
import { ok, refused, type Result } from "../kernel/refusal";
import { fold } from "../kernel/fold";
import { cut } from "../kernel/text";

/**
 * Texts with variables are ICU MessageFormat: `{viewer} tipped {amount}`, plural forms included. What
 * viewers wrote is put in as data, never read as format. Tags are off: `<b>` is three letters.
 */
export type Values = Readonly<Record<string, string | number>>;
const mostLetters = 400;

function namesIn(elements: readonly MessageFormatElement[], into: Set<string>): void {
  for (const e of elements) {
    if (isArgumentElement(e) || isNumberElement(e) || isDateElement(e) || isTimeElement(e)) into.add(e.value);
    if (isPluralElement(e) || isSelectElement(e)) {
      into.add(e.value);
      for (const option of Object.values(e.options)) namesIn(option.value, into);
    }
    if (isTagElement(e)) namesIn(e.children, into);
  }
}

/** Refused: a text that is no MessageFormat, or names a variable that is not among `known`. */
export function checkTemplate(text: string, known: readonly string[]): Result<readonly string[]> {
  const names = new Set<string>();
  try {
    namesIn(parse(text, { ignoreTag: true }), names);
  } catch {
    return refused("text/broken", { text: cut(text, 60) });
  }
  const unknown = [...names].find((name) => !known.includes(name));
  if (unknown !== undefined) return refused("text/unknown-variable", { name: unknown, known: known.join(", ") });
  return ok([...names]);
}

const made = new Map<string, IntlMessageFormat>();
/** The text with its variables filled in. A text that was checked at save can't fail; one that does comes out as it is. */
export function fillTemplate(text: string, values: Values): string {
  if (!/[{'#]/.test(text)) return text;
  try {
    let format = made.get(text);
    if (format === undefined) {
      if (made.size > 500) made.clear();
      made.set(text, (format = new IntlMessageFormat(text, "en", undefined, { ignoreTag: true })));
    }
    return cut(String(format.format({ ...values })), mostLetters);
  } catch {
    return text;
  }
}

function exampleIn(elements: readonly MessageFormatElement[]): string {
  return elements
    .map((e) => {
      if (isPluralElement(e) || isSelectElement(e)) return exampleIn((e.options["other"] ?? Object.values(e.options)[0])?.value ?? []);
      if (isPoundElement(e)) return "3";
      if (isTagElement(e)) return exampleIn(e.children);
      return isLiteralElement(e) ? e.value : `{${e.value}}`;
    })
    .join("");
}
/** A text as it reads in a list: with one of its forms for an example, and its variables by their names. */
export function exampleOf(text: string): string {
  try {
    return exampleIn(parse(text, { ignoreTag: true }));
  } catch {
    return text;
  }
}

/** What stands before a chip that is picked into a text at `at`. */
export const withChip = (text: string, at: number, name: string): string => `${text.slice(0, at)}{${name}}${text.slice(at)}`;

// Controls and breaks of lines stand for a space; what has no width stands for nothing, but in an emoji made of several.
const breaks = /\p{Cc}|[\u2028\u2029\ufff9-\ufffb]/gu;
const widthless = /[\u00ad\u061c\u180e\u200b\u200c\u200e\u200f\u202a-\u202e\u2060-\u206f\ufeff]|\u200d(?!\p{Extended_Pictographic})/gu;
/** A line of many marks on one letter. */
const stacked = /(\p{M}{2})\p{M}+/gu;
export const addresses = /\b(?:https?:\/\/|www\.)\S+|\b[\p{L}\p{N}-]+\.(?:com|net|org|io|gg|tv|ru|cn|xyz|info|link|invalid)\b\S*/giu;

/** Letter by letter, by its capital, so that it is the same wherever it stands (a last sigma too), and each is known by its place. */
const plainOf = (letters: readonly string[]): readonly string[] => letters.map((letter) => fold(letter.toUpperCase()));
const ascii = /^[\x20-\x7e]*$/;

/** A text without what is unseen: breaks are spaces, what has no width is gone, marks do not pile up on one letter. */
export const visible = (text: string): string => text.replace(breaks, " ").replace(widthless, "").replace(stacked, "$1");
/** Whether a text has a hidden word in it, however its letters are written. */
export const hasHidden = (text: string, hidden: readonly string[]): boolean => covered(text, hidden) !== text;

const patterns = new WeakMap<readonly string[], RegExp | null>();
/** One pattern for a whole list of hidden words as they are compared, longest first; made once per list. */
function patternOf(hidden: readonly string[]): RegExp | null {
  const known = patterns.get(hidden);
  if (known !== undefined) return known;
  const words = hidden
    .map((w) =>
      plainOf([...w])
        .join("")
        .trim(),
    )
    .filter((w) => w !== "")
    .sort((a, b) => b.length - a.length)
    .map((w) => w.replace(/[.*+?^${}()|[\]\\]/g, "\\$&"));
  const made = words.length === 0 ? null : new RegExp(`(?<![\\p{L}\\p{N}])(?:${words.join("|")})(?![\\p{L}\\p{N}])`, "gu");
  patterns.set(hidden, made);
  return made;
}

/** Covers hidden words, however their letters are written: in any case, with accents, or wide. */
function covered(text: string, hidden: readonly string[]): string {
  const pattern = patternOf(hidden);
  if (pattern === null) return text;
  const letters = [...text];
  // Nearly all names and most of what is written needs no folding: each message is looked at.
  const plain = ascii.test(text) ? [...text.toLowerCase()] : plainOf(letters);
  const folded = plain.join("");
  if (folded.search(pattern) < 0) return text;
  // For each unit of the folded text, which letter of the text it came from.
  const from = plain.flatMap((units, i) => Array<number>(units.length).fill(i));
  for (const found of folded.matchAll(pattern)) {
    const first = from[found.index] ?? 0;
    const last = from[found.index + found[0].length - 1] ?? first;
    for (let i = first; i <= last; i += 1) letters[i] = "";
    letters[first] = "•".repeat(Math.min(8, last - first + 1));
  }
  return letters.join("");
}

/**
 * What a viewer wrote, fit to be shown on the picture: nothing unseen, no addresses, hidden words covered,
 * at most `most` letters. The page puts it in as text, so it is never markup.
 */
export function showable(text: string, hidden: readonly string[] = [], most = 200): string {
  const plain = visible(text).replace(addresses, "(link)");
  const clean = covered(plain.replace(/\s+/g, " ").trim(), hidden);
  const letters = [...clean];
  return letters.length > most ? `${letters.slice(0, most - 1).join("")}…` : clean;
}
