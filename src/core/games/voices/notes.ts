import type { Note } from "../../module/module";
import { counted } from "../../words/sentence";

export function voicesNoteInWords({ refusal: why, did, subject = "", facts = {} }: Note): string {
  const who = subject === "" ? "a text" : `what ${subject} wrote`;
  if (why !== undefined) {
    const name = String(why.facts["name"] ?? "");
    switch (why.code) {
      case "voices/off":
        return "voices are switched off";
      case "voices/role":
        return "not spoken: it is for others here";
      case "voices/hidden":
        return "not spoken: there is a word in it that is never said";
      case "voices/empty":
        return "not spoken: nothing is left to say";
      case "voices/own-rest":
        return `not yet: once more in ${String(why.facts["freeInS"])} s`;
      case "voices/shared-rest":
        return `not yet: somebody else was just heard; in ${String(why.facts["freeInS"])} s`;
      case "voices/too-long":
        return `too long to be read: ${String(why.facts["letters"])} letters, and ${String(why.facts["most"])} are read`;
      case "voices/full":
        return `${counted(Number(why.facts["most"]), "text")} may wait, and no more`;
      case "voices/engine":
        return `the voice could not speak${name === "" ? "" : ` what ${name} wrote`}; it was skipped`;
      case "voices/nothing-said":
        return "nothing is being said just now";
      case "voices/nothing-waits":
        return "nothing waits to be said";
      case "voices/decided-already":
        return "this was decided already, or said";
      case "voices/held-already":
        return "voices are held already";
      case "voices/not-held":
        return "voices are not held";
      case "voices/unknown":
        return name === "" ? "nobody was named" : `nobody called ${name} is known here`;
      case "voices/no-voice":
        return `there is no voice called ${String(why.facts["voice"])}`;
      case "voices/too-many-own":
        return `there are ${String(why.facts["most"])} voices of viewers’ own, and no more are kept`;
      case "voices/already-on":
        return "voices are on already";
      case "voices/already-off":
        return "voices are off already";
      default:
        return why.code;
    }
  }
  switch (did) {
    case "voices/taken":
      return `${who} waits to be said`;
    case "voices/asks":
      return `${who} waits for somebody’s yes`;
    case "voices/said":
      return `${who} is said`;
    case "voices/skipped":
      return `${who} was skipped`;
    case "voices/cleared":
      return "what waited to be said was dropped";
    case "voices/dropped":
      return `${who} was dropped`;
    case "voices/approved":
      return `${who} was let through`;
    case "voices/held":
      return "voices are held: nothing more begins";
    case "voices/goes-on":
      return "voices go on";
    case "voices/given":
      return facts["voice"] === ""
        ? `${subject} speaks in the usual voice again`
        : `${subject} speaks in the voice ${String(facts["voice"])} from now on`;
    case "voices/switched-on":
      return "voices were switched on";
    case "voices/switched-off":
      return "voices were switched off";
    default:
      return "";
  }
}

export const voicesNoteInShort = ({ did }: Note): string | null =>
  did === "voices/taken" ? "to be said" : did === "voices/asks" ? "asks for a yes" : did === "voices/said" ? "said" : null;
