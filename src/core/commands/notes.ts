import type { Note, NoteWords } from "../module/module";

export function commandNoteInWords(note: Note): string {
  if (note.refusal?.code === "command/role") return `${note.subject ?? "it"} is not for this role`;
  if (note.refusal?.code === "command/rests")
    return `${note.subject ?? "it"} is on cooldown for ${String(note.refusal.facts["freeInS"])} s more`;
  return note.did === "command/answered" ? "answered" : (note.refusal?.code ?? "");
}

export const commandsFront: NoteWords = {
  kind: "commands",
  noteInWords: commandNoteInWords,
  noteInShort: ({ did }) => (did === "command/answered" ? "command" : null),
};
