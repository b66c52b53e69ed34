import type { Refusal } from "../../kernel/refusal";
import type { Note } from "../../module/module";
import { count, counted } from "../../words/sentence";

/** Why something was held back, for the one who wrote it. */
export function wallRefusalInWords({ code, facts }: Refusal, held: number, subject?: string): string {
  switch (code) {
    case "wall/off":
      return "the wall is switched off";
    case "wall/role":
      return "this viewer’s role may not send emotes";
    case "wall/no-emotes":
      return "no emote found in the message";
    case "wall/repeat":
      return `${counted(held, "repeat")} left out: each emote shows once per message`;
    case "wall/most-per-message":
      return `${counted(held, "emote")} left out: at most ${facts["most"]} per message`;
    case "wall/singles-off":
      return `${counted(held, "single emote")} left out: singles are off`;
    case "wall/combo-counted-once":
      return `${counted(held, "copy", "copies")} not counted: each viewer counts once`;
    case "wall/combo-waiting":
      return `${subject ?? "it"}: not yet, ${facts["seen"]} of ${facts["needed"]} within ${facts["withinS"]} s`;
    case "wall/viewer-limit":
      return `${counted(held, "emote")} left out: at most ${facts["most"]} per viewer within ${facts["withinS"]} s; next in ${facts["freeInS"]} s`;
    case "wall/no-trim":
      return `the wall has no trimming number ${facts["trim"]}`;
    case "wall/already-on":
      return "the wall is on already";
    case "wall/already-off":
      return "the wall is off already";
    case "wall/flock-nothing-chosen":
      return "no emotes are chosen for flocks yet";
    case "wall/flock-nothing-used":
      return `no emote was written in the last ${facts["minutes"]} min`;
    default:
      return code;
  }
}

export function wallNoteInWords(note: Note): string {
  if (note.refusal) return wallRefusalInWords(note.refusal, note.count, note.subject);
  switch (note.did) {
    case "wall/shown":
      return `${counted(note.count, "emote")} shown`;
    case "wall/flock":
      return `a flock of ${count(note.count)}`;
    case "wall/cleared":
      return "the wall was cleared";
    case "wall/trim-on":
      return `emotes wear trimming ${count(note.count)}`;
    case "wall/trim-off":
      return `emotes wear trimming ${count(note.count)} no more`;
    case "wall/removed":
      return "its emotes were taken off the picture";
    case "wall/switched-on":
      return "the wall was switched on";
    case "wall/switched-off":
      return "the wall was switched off";
    default:
      return "";
  }
}

export function wallNoteInShort({ did, refusal: why, count: n }: Note): string | null {
  if (why?.code === "wall/combo-waiting") return `${String(why.facts["seen"])} of ${String(why.facts["needed"])}`;
  if (why !== undefined) return why.code.endsWith("/off") || why.code.includes("/already-") ? null : `${count(n)} held back`;
  switch (did) {
    case "wall/shown":
      return `wall ×${count(n)}`;
    case "wall/flock":
      return `flock of ${count(n)}`;
    case "wall/removed":
      return "taken off";
    default:
      return null;
  }
}
