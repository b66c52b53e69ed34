import type { Note } from "../../module/module";
import { kindOfSignalInWords } from "../../signals/kinds";
import { count } from "../../words/sentence";

export function bossNoteInWords(note: Note): string {
  const { refusal: why, facts = {}, subject } = note;
  if (why !== undefined) {
    switch (why.code) {
      case "boss/off":
        return "the boss battle is switched off";
      case "boss/no-damage":
        return why.facts["kind"] === "command"
          ? "a hit of nothing does nothing"
          : `${kindOfSignalInWords(String(why.facts["kind"]))} does no damage here`;
      case "boss/gift-counted":
        return "not counted again: the gift it came from was";
      case "boss/currency":
        return `the channel has no rate for ${String(why.facts["currency"])}, so it does no damage`;
      case "boss/not-yet":
        return "too little for damage yet; it is kept and added to the viewer’s next one";
      case "boss/champion-idle":
        return "the champion’s own does nothing";
      case "boss/full":
        return `${String(why.facts["boss"])} is at full health already`;
      case "boss/nothing-to-undo":
        return "there is no hit to undo: the last one led to a fall, or was undone already. Set it right with a hit or a heal";
      case "boss/not-the-last":
        return `another hit came after it; set it right by healing ${String(why.facts["boss"])}`;
      case "boss/already-on":
        return "it is running already";
      case "boss/already-off":
        return "it is switched off already";
      default:
        return why.code;
    }
  }
  const left = facts["health"] === undefined ? "" : `, ${count(Number(facts["health"]))} of ${count(Number(facts["max"] ?? 0))} left`;
  switch (note.did) {
    case "boss/hit":
      return `−${count(note.count)} to ${String(facts["boss"] ?? "the boss")} by ${subject ?? "someone"}${left}`;
    case "boss/healed":
      return `+${count(note.count)} to ${String(facts["boss"] ?? "the boss")} by ${subject ?? "someone"}${left}`;
    case "boss/fell":
      return `${subject ?? "the boss"} falls; ${String(facts["next"])} takes its place with ${count(Number(facts["health"]))} health`;
    case "boss/leftover-dropped":
      return `${count(note.count)} damage was dropped: one signal defeats at most ${count(Number(facts["falls"]))}`;
    case "boss/undone":
      return `the hit of ${count(note.count)} by ${subject ?? "someone"} was undone${left}`;
    case "boss/started-over":
      return `started over with ${String(facts["boss"])}`;
    case "boss/switched-on":
      return "the boss battle was switched on";
    case "boss/switched-off":
      return "the boss battle was switched off";
    case "boss/rules-told":
      return "the rules were told in chat";
    default:
      return "";
  }
}

export function bossNoteInShort({ did, refusal: why, count: n, subject, facts = {} }: Note): string | null {
  if (why?.code === "boss/not-yet") return "kept for later";
  const boss = String(facts["boss"] ?? "");
  switch (did) {
    case "boss/hit":
      return `−${count(n)} ${boss}`.trim();
    case "boss/healed":
      return `+${count(n)} ${boss}`.trim();
    case "boss/fell":
      return `${subject ?? "boss"} fell`;
    case "boss/undone":
      return `hit of ${count(n)} undone`;
    default:
      return null;
  }
}
