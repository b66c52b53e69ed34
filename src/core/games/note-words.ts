import type { Note } from "../kernel/step";
import { commandNoteInWords } from "../commands/rules";
import { partNoteInWords } from "../rules/words";
import { pointsNoteInWords } from "../points/words";
import { rewardNoteInWords } from "../rewards/words";
import { showNoteInWords } from "../show/words";
import { bossNoteInWords } from "./boss-battle/words";
import { wallNoteInWords } from "./emote-wall/words";

const words: Readonly<Record<string, (note: Note) => string>> = {
  "emote-wall": wallNoteInWords,
  "boss-battle": bossNoteInWords,
  show: showNoteInWords,
  commands: commandNoteInWords,
  rewards: rewardNoteInWords,
  points: pointsNoteInWords,
};

/** What a part's note says, in plain words: beside a message, in the try-it strip, as an answer in chat. */
export function noteInWords(kind: string, note: Note): string {
  if (note.refusal?.code === "viewer/muted" || note.refusal?.code === "game/unknown") return showNoteInWords(note);
  return (words[kind] ?? partNoteInWords)(note);
}

/** The same in a word or two, for a chip beside a message. */
export function noteInShort(kind: string, note: Note): string {
  const { refusal, did, count, facts = {} } = note;
  const n = String(count).replace(/\B(?=(\d{3})+$)/g, ",");
  if (refusal !== undefined) {
    const wait = refusal.facts["freeInS"];
    if (refusal.code === "viewer/muted") return "muted";
    if (refusal.code.endsWith("/already-on")) return "on already";
    if (refusal.code.endsWith("/already-off")) return "off already";
    if (refusal.code === "wall/combo-waiting") return `${String(refusal.facts["seen"])} of ${String(refusal.facts["needed"])}`;
    if (refusal.code === "boss/not-yet") return "kept for later";
    if (refusal.code.endsWith("/off")) return "off";
    if (refusal.code.startsWith("wall/")) return `${n} held back`;
    return typeof wait === "number" ? `not yet: ${wait} s` : "refused";
  }
  switch (did) {
    case "wall/shown":
      return `wall ×${n}`;
    case "wall/flock":
      return `flock of ${n}`;
    case "wall/removed":
      return "taken off";
    case "boss/hit":
      return `−${n} ${String(facts["boss"] ?? "")}`.trim();
    case "boss/healed":
      return `+${n} ${String(facts["boss"] ?? "")}`.trim();
    case "boss/fell":
      return `${note.subject ?? "boss"} fell`;
    case "boss/undone":
      return `hit of ${n} undone`;
    case "rule/fired":
      return note.subject ?? "rule";
    case "cue/fired":
    case "cue/on":
      return `cue ${note.subject ?? ""}`.trim();
    case "cue/off":
      return `cue ${note.subject ?? ""} off`;
    case "command/answered":
    case "command/done":
      return "command";
    case "reward/bought":
      return `${note.subject ?? ""} −${n}`;
    case "reward/asked":
      return `asked: ${note.subject ?? ""}`;
    case "reward/refunded":
      return `+${n} back`;
    case "points/given":
      return `gave ${n}`;
    default:
      return noteInWords(kind, note);
  }
}
