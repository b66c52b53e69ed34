import { noteInShort, noteInWords } from "../../../core/games/note-words";
import type { Note } from "../../../core/kernel/step";
import type { TalkItem } from "../../../core/wire/messages";

/** What stands beside a message: what it caused, or why it did not. Pure, so that it can be tested without a page. */
export type Tone = "good" | "spent" | "no" | "said";
export type Chip = Readonly<{ key: string; game: string; kind: string; note: Note; short: string; words: string; tone: Tone }>;
export type TalkFilter = "all" | "effects" | "refused";

/** True of nearly every line of chat, so not worth a word beside each. */
const silent = new Set(["wall/no-emotes", "wall/off", "boss/off", "boss/no-damage"]);
const toneOf = (note: Note): Tone => {
  if (note.refusal !== undefined) return "no";
  if (note.did === "boss/hit" || note.did === "boss/healed" || note.did === "boss/fell") return "spent";
  return note.did?.startsWith("show/") === true || note.did?.startsWith("rule/") === true ? "said" : "good";
};

export function chipsOf(item: TalkItem, kindOf: (game: string) => string): readonly Chip[] {
  return item.notes.flatMap(({ game, note: given }, i): Chip[] => {
    // The engine's own notes; the wire leaves them as they are.
    const note = given as Note;
    if (note.refusal !== undefined && (silent.has(note.refusal.code) || note.refusal.code.startsWith("rule/"))) return [];
    const kind = kindOf(game);
    const short = noteInShort(kind, note);
    if (short === "") return [];
    return [{ key: `${item.n}.${i}`, game, kind, note, short, words: noteInWords(kind, note), tone: toneOf(note) }];
  });
}

export const passes = (filter: TalkFilter, item: TalkItem, chips: readonly Chip[]): boolean =>
  filter === "all" ||
  (filter === "refused" ? chips.some((c) => c.tone === "no") || item.kind === "unsaid" : chips.some((c) => c.tone !== "no"));

/** What can be done about a consequence with one click: the hand, and how it is called. */
export function takeBack(
  chip: Chip,
): Readonly<{ label: string; hand: { do: "undo"; seq: number } | { do: "remove"; seq: number } }> | null {
  const seq = chip.note.facts?.["seq"];
  if (typeof seq !== "number") return null;
  if (chip.note.did === "boss/hit") return { label: `Undo this hit of ${chip.note.count}`, hand: { do: "undo", seq } };
  if (chip.note.did === "wall/shown" || chip.note.did === "wall/flock")
    return { label: "Take its emotes off the picture", hand: { do: "remove", seq } };
  return null;
}
