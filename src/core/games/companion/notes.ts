import type { Note } from "../../module/module";

export function companionNoteInWords({ refusal: why, did, subject = "it", facts = {} }: Note): string {
  if (why !== undefined) {
    switch (why.code) {
      case "companion/off":
        return "the companion is switched off";
      case "companion/busy":
        return "it has enough to do just now";
      case "companion/role":
        return "this word is for others";
      case "companion/rests":
        return `not yet: it answers that again in ${String(why.facts["freeInS"])} s`;
      case "companion/dancing-already":
        return "it is dancing already";
      case "companion/not-dancing":
        return "it is not dancing";
      case "companion/asleep-already":
        return "it sleeps already";
      case "companion/already-on":
        return "the companion is on already";
      case "companion/already-off":
        return "the companion is off already";
      default:
        return why.code;
    }
  }
  const name = subject === "" ? "it" : subject;
  switch (did) {
    case "companion/greets":
      return `${name} says hello`;
    case "companion/cheers":
      return `${name} cheers`;
    case "companion/startles":
      return `${name} jumps`;
    case "companion/answers":
      return `${name} answers`;
    case "companion/does":
      return `${name} does what it was asked`;
    case "companion/eats":
      return `${name} eats; its mood is ${String(facts["mood"] ?? "")}`;
    case "companion/dances":
      return `${name} dances until told otherwise`;
    case "companion/calms":
      return `${name} stops dancing`;
    case "companion/sleeps":
      return `${name} falls asleep`;
    case "companion/wakes":
      return `${name} wakes up`;
    case "companion/switched-on":
      return "the companion was switched on";
    case "companion/switched-off":
      return "the companion was switched off";
    default:
      return "";
  }
}

export const companionNoteInShort = ({ did, subject = "" }: Note): string | null =>
  did === "companion/greets" ? `${subject} said hello` : did === "companion/eats" ? `${subject} was fed` : null;
