import { frontOf } from "./games/fronts";
import type { Note } from "./module/module";
import { noteInShort, noteInWords } from "./notes";
import type { TalkItem } from "./wire/messages";

/** What stands beside a message: what it caused, or why it did not. */
export type ChipTone = "good" | "spent" | "no" | "said";
export type Chip = Readonly<{ key: string; game: string; kind: string; note: Note; short: string; words: string; tone: ChipTone }>;

const toneOf = (kind: string, note: Note): ChipTone => {
  if (note.refusal !== undefined) return "no";
  if (note.did !== undefined && frontOf(kind)?.striking?.includes(note.did) === true) return "spent";
  return note.did?.startsWith("show/") === true || note.did?.startsWith("rule/") === true ? "said" : "good";
};

export function chipsOf(item: TalkItem, kindOf: (game: string) => string): readonly Chip[] {
  return item.notes.flatMap(({ game, note: given }, i): Chip[] => {
    // The engine's own notes; the wire leaves them as they are.
    const note = given as Note;
    const kind = kindOf(game);
    const why = note.refusal?.code;
    // What is true of nearly every line is not worth a word beside each.
    if (why !== undefined && (frontOf(kind)?.unsaid?.includes(why) === true || why.startsWith("rule/"))) return [];
    const short = noteInShort(kind, note);
    if (short === "") return [];
    return [{ key: `${item.n}.${i}`, game, kind, note, short, words: noteInWords(kind, note), tone: toneOf(kind, note) }];
  });
}
