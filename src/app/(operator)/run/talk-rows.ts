import { gameOf } from "../../../core/games/registry";
import { moduleOf, noteInShort, noteInWords } from "../../../core/modules";
import type { Note, TakeBack } from "../../../core/module/module";
import type { TalkItem } from "../../../core/wire/messages";

/** What stands beside a message: what it caused, or why it did not. Pure, so that it can be tested without a page. */
export type Tone = "good" | "spent" | "no" | "said";
export type Chip = Readonly<{ key: string; game: string; kind: string; note: Note; short: string; words: string; tone: Tone }>;
export type TalkFilter = "all" | "effects" | "refused";

const toneOf = (kind: string, note: Note): Tone => {
  if (note.refusal !== undefined) return "no";
  if (note.did !== undefined && gameOf(kind)?.striking?.includes(note.did) === true) return "spent";
  return note.did?.startsWith("show/") === true || note.did?.startsWith("rule/") === true ? "said" : "good";
};

export function chipsOf(item: TalkItem, kindOf: (game: string) => string): readonly Chip[] {
  return item.notes.flatMap(({ game, note: given }, i): Chip[] => {
    // The engine's own notes; the wire leaves them as they are.
    const note = given as Note;
    const kind = kindOf(game);
    const why = note.refusal?.code;
    // What is true of nearly every line is not worth a word beside each.
    if (why !== undefined && (gameOf(kind)?.unsaid?.includes(why) === true || why.startsWith("rule/"))) return [];
    const short = noteInShort(kind, note);
    if (short === "") return [];
    return [{ key: `${item.n}.${i}`, game, kind, note, short, words: noteInWords(kind, note), tone: toneOf(kind, note) }];
  });
}

export const passes = (filter: TalkFilter, item: TalkItem, chips: readonly Chip[]): boolean =>
  // What nobody said and what came to nothing is no line of talk.
  (filter === "all" && (item.text !== "" || chips.length > 0)) ||
  (filter === "refused" && (chips.some((c) => c.tone === "no") || item.kind === "unsaid")) ||
  (filter === "effects" && chips.some((c) => c.tone !== "no"));

/** What can be done about a consequence with one click, the likeliest first. */
export const takeBack = (chip: Chip): readonly TakeBack[] => moduleOf(chip.kind)?.takeBack?.(chip.note) ?? [];
