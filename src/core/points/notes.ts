import type { Refusal } from "../kernel/refusal";
import type { Note, NoteWords } from "../module/module";
import { count, counted } from "../words/sentence";

export function pointsRefusalInWords({ code, facts }: Refusal): string {
  const name = String(facts["name"] ?? "points");
  switch (code) {
    case "points/no-giving":
      return `${name} can’t be given to others here`;
    case "points/give-how":
      return `say to whom and how much: ${String(facts["word"])} name 50`;
    case "points/too-little":
      return `the least one can give is ${count(Number(facts["least"]))} ${name}`;
    case "points/unknown-viewer":
      return `nobody called ${String(facts["viewer"])} has points here`;
    case "points/to-oneself":
      return "that would be to yourself";
    case "points/too-few":
      return `you have ${count(Number(facts["has"]))} ${name}`;
    case "points/below-none":
      return `there are ${count(Number(facts["has"]))} ${name} there; nobody can have less than 0`;
    case "points/rehearsing":
      return `a rehearsal touches no ${name}: set it right when it has ended`;
    case "points/taken-in-already":
      return "this very list was imported already";
    case "points/nothing-there":
      return `${String(facts["viewer"])} has no ${name}`;
    case "points/nothing":
      return "nothing to change";
    default:
      return code;
  }
}

export function pointsNoteInWords(note: Note): string {
  if (note.refusal !== undefined) return pointsRefusalInWords(note.refusal);
  const name = String(note.facts?.["name"] ?? note.subject ?? "points");
  switch (note.did) {
    case "points/earned":
      return `+${count(note.count)} ${note.subject ?? "points"}`;
    case "points/given":
      return `${count(note.count)} ${name} went to ${note.subject ?? ""}`;
    case "points/adjusted":
      return `${note.subject ?? ""}: ${note.count > 0 ? "+" : ""}${count(note.count)} ${name}, ${String(note.facts?.["why"])}`;
    case "points/taken-in":
      return `${counted(note.count, "viewer")} got their ${name}: ${String(note.facts?.["why"])}`;
    case "points/merged":
      return `${count(note.count)} ${name} of ${String(note.facts?.["from"])} went to ${note.subject ?? ""}`;
    case "points/owed":
      return `${counted(note.count, "viewer")} ${note.count === 1 ? "owes" : "owe"} ${count(Number(note.facts?.["all"]))} ${String(note.facts?.["name"])}: ${String(note.facts?.["why"])}`;
    case "points/answered":
      return "answered";
    default:
      return "";
  }
}

export const pointsFront: NoteWords = {
  kind: "points",
  noteInWords: pointsNoteInWords,
  noteInShort: (note) => (note.did === "points/given" ? `gave ${count(note.count)}` : null),
};
