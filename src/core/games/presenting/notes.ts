import type { Note } from "../../module/module";
import { counted, seconds } from "../../words/sentence";

export function presentingNoteInWords({ refusal: why, did, count, subject = "" }: Note): string {
  if (why !== undefined) {
    const name = String(why.facts["name"] ?? "");
    switch (why.code) {
      case "presenting/off":
        return "presenting is switched off";
      case "presenting/no-name":
        return "it needs a name, without spaces";
      case "presenting/asked-already":
        return `${name} is being looked for already`;
      case "presenting/full":
        return `${counted(Number(why.facts["most"]), "card")} may wait, and no more`;
      case "presenting/again":
        return `${name} was presented a short while ago: by hand it can be done again, by itself in ${seconds(Number(why.facts["freeInS"]) * 1000)}`;
      case "presenting/not-found":
        return `nobody called ${name} was found`;
      case "presenting/late":
        return `${name} could not be found in time`;
      case "presenting/no-answer":
        return `${name} could not be looked for: the platform does not answer`;
      case "presenting/nothing-shown":
        return "nobody is being presented just now";
      case "presenting/nobody-waits":
        return "nobody waits to be presented";
      case "presenting/already-on":
        return "presenting is on already";
      case "presenting/already-off":
        return "presenting is off already";
      default:
        return why.code;
    }
  }
  switch (did) {
    case "presenting/asked":
      return `${subject} is being looked for`;
    case "presenting/presented":
      return `${subject} is presented`;
    case "presenting/skipped":
      return `the card of ${subject} was ended`;
    case "presenting/cleared":
      return `${counted(count, "card")} that waited ${count === 1 ? "was" : "were"} dropped`;
    case "presenting/switched-on":
      return "presenting was switched on";
    case "presenting/switched-off":
      return "presenting was switched off";
    default:
      return "";
  }
}

export const presentingNoteInShort = ({ did }: Note): string | null =>
  did === "presenting/presented" ? "presented" : did === "presenting/asked" ? "looked for" : null;
