import type { Note, NoteWords } from "../module/module";

export function cueNoteInWords({ did, refusal: why, subject = "" }: Note): string {
  const what = subject === "" ? "" : `“${subject}” `;
  switch (why?.code ?? did) {
    case "cue/cooling":
      return `${what}is on cooldown for ${String(why?.facts["freeInS"])} s more`;
    case "cue/role":
      return `${what}is not for this role`;
    case "cue/unknown":
      return "this cue is not there any more";
    case "cue/fired":
      return `cue ${what}fired`;
    case "cue/on":
      return `cue ${what}is on`;
    case "cue/off":
      return `cue ${what}is off`;
    default:
      return "";
  }
}

export const cuesFront: NoteWords = {
  kind: "cues",
  noteInWords: cueNoteInWords,
  noteInShort: ({ did, subject = "" }) =>
    did === "cue/fired" || did === "cue/on" ? `cue ${subject}`.trim() : did === "cue/off" ? `cue ${subject} off` : null,
};
