import { findEmotes, type EmoteIndex } from "../../chat/emotes";
import type { EmoteSpan } from "../../signals/signal";
import { addresses, visible } from "../../words/template";

/** How a text is made fit for being spoken (RULES section 16). */
export type Cleaning = Readonly<{
  links: "word" | "nothing";
  emotes: "word" | "once" | "nothing";
  emoji: "name" | "nothing";
}>;
export type CleaningKit = Readonly<{
  emotes: EmoteIndex;
  marks: readonly EmoteSpan[];
  /** What an emoji is called; null for one nobody knows. */
  emojiName: (emoji: string) => string | null;
}>;

const segmenter = new Intl.Segmenter(undefined, { granularity: "grapheme" });
export const graphemesOf = (text: string): readonly string[] => [...segmenter.segment(text)].map((s) => s.segment);

/** A word as it is said: wobblePot is two words. */
const spoken = (word: string): string =>
  word
    .replace(/([\p{Ll}\d])(\p{Lu})/gu, "$1 $2")
    .replace(/[_-]+/g, " ")
    .toLowerCase();
const isEmoji = /\p{Extended_Pictographic}|\p{Regional_Indicator}|\u20e3/u;
const soundsLike = /[\p{L}\p{N}]/u;

/** The words of a text, with the places that chat marked as emotes kept whole. */
function words(text: string, marks: readonly EmoteSpan[]): readonly Readonly<{ word: string; marked: boolean }>[] {
  const out: { word: string; marked: boolean }[] = [];
  let at = 0;
  const plain = (part: string): void => {
    for (const word of part.split(/\s+/)) if (word !== "") out.push({ word, marked: false });
  };
  for (const { start, length } of marks) {
    if (start < at || start + length > text.length) continue;
    plain(text.slice(at, start));
    out.push({ word: text.slice(start, start + length), marked: true });
    at = start + length;
  }
  plain(text.slice(at));
  return out;
}

/** Letters of one word: no more than three of the same running; emoji by their names, with room around them. */
function lettersOf(word: string, { emoji }: Cleaning, { emojiName }: CleaningKit): string {
  let out = "";
  let last = "";
  let running = 0;
  for (const g of graphemesOf(word)) {
    running = g === last ? running + 1 : 1;
    last = g;
    if (isEmoji.test(g)) {
      // The same picture many times is said once.
      if (emoji === "name" && running === 1) out += ` ${emojiName(g) ?? ""} `;
    } else if (running <= 3) out += g;
  }
  return out;
}

/** The text as it is given to an engine: words, and nothing that an engine, a shell or a reader of markup could take for more. */
export function cleanText(text: string, how: Cleaning, kit: CleaningKit): string {
  const said: string[] = [];
  const emotes = new Set<string>();
  for (const { word, marked } of words(text, kit.marks)) {
    const emote = marked || findEmotes(word, [], kit.emotes, { own: true, marked: false, emoji: false }).length > 0;
    if (emote) {
      if (how.emotes === "nothing" || (how.emotes === "once" && emotes.has(word))) continue;
      emotes.add(word);
      said.push(spoken(word));
      continue;
    }
    const linked = word.replace(addresses, how.links === "word" ? " a link " : " ");
    said.push(lettersOf(visible(linked), how, kit));
  }
  const plain = said
    .join(" ")
    // What engines read as something else than words: markup, phonemes in brackets, orders of their own.
    .replace(/[<>[\]{}\\|^~`*#=]+/g, " ")
    .replace(/\s+/g, " ")
    .trim();
  const kept: string[] = [];
  for (const word of plain.split(" ")) {
    const same = word.toLowerCase();
    if (kept.length >= 2 && kept[kept.length - 1]?.toLowerCase() === same && kept[kept.length - 2]?.toLowerCase() === same) continue;
    kept.push(word);
  }
  const out = kept.join(" ");
  return soundsLike.test(out) ? out : "";
}

/** A name as it is said: `_` and digits are pauses; a name of nothing else is said as it is. */
export function spokenName(name: string): string {
  const paused = visible(name)
    .replace(/[_\d.-]+/g, ", ")
    .replace(/([\p{Ll}])(\p{Lu})/gu, "$1 $2")
    .replace(/^[,\s]+|[,\s]+$/g, "")
    .replace(/\s+/g, " ");
  return soundsLike.test(paused) ? paused : visible(name);
}

/** At most so many letters, to the end of a sentence where there is one, else of a word. */
export function cutToSentence(text: string, most: number): string {
  const letters = graphemesOf(text);
  if (letters.length <= most) return text;
  const part = letters.slice(0, most).join("");
  const sentence = /^.*[.!?…](?=\s|$)/su.exec(part)?.[0];
  if (sentence !== undefined && graphemesOf(sentence).length > most * 0.3) return sentence;
  const word = part.slice(0, Math.max(part.lastIndexOf(" "), 0)).trim();
  return word === "" ? part : word;
}
