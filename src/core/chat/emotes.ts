import { fold } from "../kernel/fold";
import type { EmoteSpan } from "../signals/signal";

/**
 * Finding emotes in what was said. A found emote is a key that says where its picture comes from:
 * `own:<id>` the channel's own, `mark:<id>` the chat platform's, `emoji:<grapheme>` drawn from a font.
 */
export type EmoteKey = string;
export type FoundEmote = Readonly<{ key: EmoteKey; word: string }>;
export type EmoteWord = Readonly<{ id: string; word: string }>;

export type EmoteIndex = Readonly<{
  exact: ReadonlyMap<string, FoundEmote>;
  folded: ReadonlyMap<string, FoundEmote>;
  shortest: number;
  longest: number;
  /** First characters of all words, both cases: most words of a message are ruled out by one look-up. */
  firsts: ReadonlySet<number>;
}>;

export function emoteIndex(words: readonly EmoteWord[]): EmoteIndex {
  const exact = new Map<string, FoundEmote>();
  const folded = new Map<string, FoundEmote>();
  const firsts = new Set<number>();
  let shortest = Infinity;
  let longest = 0;
  for (const { id, word } of words) {
    const found = { key: `own:${id}`, word };
    exact.set(word, found);
    const plain = fold(word);
    if (!folded.has(plain)) folded.set(plain, found);
    for (const form of [word, word.toLowerCase(), word.toUpperCase(), plain, plain.toUpperCase()]) {
      if (form !== "") firsts.add(form.charCodeAt(0));
      shortest = Math.min(shortest, form.length);
      longest = Math.max(longest, form.length);
    }
  }
  return { exact, folded, shortest, longest, firsts };
}

export type Sources = Readonly<{ marked: boolean; own: boolean; emoji: boolean }>;

/** No message yields more than this; what a game takes of it is the game's own limit. */
export const mostFound = 500;

/** All emotes of a message, in the order they stand in the text. */
export function findEmotes(text: string, marks: readonly EmoteSpan[], index: EmoteIndex, sources: Sources): readonly FoundEmote[] {
  const found: FoundEmote[] = [];
  let at = 0;
  for (const mark of marks) {
    if (mark.start > at) inPlain(text, at, mark.start, index, sources, found);
    if (sources.marked) {
      const word = text.slice(mark.start, mark.start + mark.length);
      found.push({ key: `mark:${mark.id}`, word });
    }
    at = mark.start + mark.length;
    if (found.length >= mostFound) return found.slice(0, mostFound);
  }
  if (at < text.length) inPlain(text, at, text.length, index, sources, found);
  return found.length > mostFound ? found.slice(0, mostFound) : found;
}

function inPlain(text: string, from: number, to: number, index: EmoteIndex, sources: Sources, found: FoundEmote[]): void {
  let start = from;
  // All character codes of the word or-ed together: above 127 somewhere means it is not plain ASCII.
  let bits = 0;
  for (let i = from; i < to; i += 1) {
    const code = text.charCodeAt(i);
    if (code > 32 && code !== 0xa0 && code !== 0x3000) {
      bits |= code;
      continue;
    }
    if (i > start) {
      inWord(text, start, i, bits < 128, index, sources, found);
      if (found.length >= mostFound) return;
    }
    start = i + 1;
    bits = 0;
  }
  if (to > start) inWord(text, start, to, bits < 128, index, sources, found);
}

function inWord(text: string, from: number, to: number, ascii: boolean, index: EmoteIndex, sources: Sources, found: FoundEmote[]): void {
  const length = to - from;
  if (ascii) {
    if (!sources.own || length < index.shortest || length > index.longest) return;
    if (!index.firsts.has(text.charCodeAt(from))) return;
    const word = text.slice(from, to);
    const hit = index.exact.get(word) ?? index.folded.get(word.toLowerCase());
    if (hit !== undefined) found.push(hit);
    return;
  }
  const word = text.slice(from, to);
  if (sources.own) {
    const hit = index.exact.get(word) ?? (word.length <= 200 ? index.folded.get(fold(word)) : undefined);
    if (hit !== undefined) {
      found.push(hit);
      return;
    }
  }
  if (sources.emoji && maybeEmoji.test(word)) emojiIn(word, found);
}

const maybeEmoji = /\p{Extended_Pictographic}|\p{Regional_Indicator}|\u20E3/u;
/** One grapheme that asks to be drawn as emoji: presentation by default, selector, keycap or flag. */
const isEmoji =
  /^(?:\p{Emoji_Presentation}|\p{Extended_Pictographic}(?:\uFE0F|\p{Emoji_Modifier}|\u200D)|\p{Regional_Indicator}{2}|[0-9#*]\uFE0F?\u20E3)/u;
const graphemes = new Intl.Segmenter("en", { granularity: "grapheme" });
const longestEmojiUnits = 48;

/** Parting a word into graphemes is slow, and the same few words of emoji are written over and over. */
const emojiOf = new Map<string, readonly FoundEmote[]>();
const mostWords = 5_000;
const longestKept = 64;

function emojiIn(word: string, found: FoundEmote[]): void {
  const known = emojiOf.get(word);
  if (known !== undefined) {
    for (const emote of known) found.push(emote);
    return;
  }
  const mine: FoundEmote[] = [];
  for (const { segment } of graphemes.segment(word)) {
    if (segment.length > longestEmojiUnits || !isEmoji.test(segment)) continue;
    mine.push({ key: `emoji:${segment}`, word: segment });
    if (found.length + mine.length >= mostFound) break;
  }
  for (const emote of mine) found.push(emote);
  if (word.length > longestKept) return;
  if (emojiOf.size >= mostWords) emojiOf.clear();
  emojiOf.set(word, mine);
}
