import { commandsFront } from "./commands/notes";
import { cuesFront } from "./cues/notes";
import { frontOf } from "./games/fronts";
import type { Refusal } from "./kernel/refusal";
import type { Note, NoteWords } from "./module/module";
import { pointsFront } from "./points/notes";
import { rewardsFront } from "./rewards/words";
import { rulesFront } from "./rules/notes";
import { showFront } from "./show/notes";

const others: ReadonlyMap<string, NoteWords> = new Map(
  [rulesFront, cuesFront, showFront, commandsFront, rewardsFront, pointsFront].map((f): [string, NoteWords] => [f.kind, f]),
);
/** How a module's notes are told, game or not; without its rules, so a page that shows them stays light. */
export const partOf = (kind: string): NoteWords | null => frontOf(kind) ?? others.get(kind) ?? null;

/** What the engine itself answers, whichever module was meant. */
export function engineRefusalInWords({ code, facts }: Refusal): string | null {
  switch (code) {
    case "viewer/muted":
      return "muted in games, so it did nothing";
    case "viewer/several":
      return `several people are called ${String(facts["name"])}; use the name they sign in with`;
    case "game/unknown":
      return "this game is not there any more";
    case "game/cannot":
      return "it has nothing of the kind";
    case "command/input":
      return `what was asked for does not fit: ${String(facts["where"]) || "all of it"}: ${String(facts["why"])}`;
    case "order/too-deep":
      return `rules answered rules ${String(facts["deepest"])} times in a row; the rest was left out`;
    default:
      return null;
  }
}

/** What a module's note says, in plain words: beside a message, in the try-it strip, as an answer in chat. */
export function noteInWords(kind: string, note: Note): string {
  const common = note.refusal === undefined ? null : engineRefusalInWords(note.refusal);
  return common ?? partOf(kind)?.noteInWords(note) ?? note.refusal?.code ?? "";
}

/** The same in a word or two, for a chip beside a message. */
export function noteInShort(kind: string, note: Note): string {
  const own = partOf(kind)?.noteInShort?.(note) ?? null;
  if (own !== null) return own;
  const { refusal } = note;
  if (refusal === undefined) return noteInWords(kind, note);
  const wait = refusal.facts["freeInS"];
  if (refusal.code === "viewer/muted") return "muted";
  if (refusal.code.endsWith("/already-on")) return "on already";
  if (refusal.code.endsWith("/already-off")) return "off already";
  if (refusal.code.endsWith("/off")) return "off";
  return typeof wait === "number" ? `not yet: ${wait} s` : "refused";
}
