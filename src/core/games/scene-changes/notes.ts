import type { Note } from "../../module/module";
import { counted } from "../../words/sentence";

export function studioNoteInWords({ refusal: why, did, subject = "" }: Note): string {
  const by = String(why?.facts["by"] ?? "");
  const of = by === "" ? "" : ` for ${by}`;
  const scene = `“${String(why?.facts["scene"] ?? "")}”`;
  switch (why?.code ?? did) {
    case "scenes/off":
      return "scene changes are switched off";
    case "scenes/already-on":
      return "scene changes are on already";
    case "scenes/already-off":
      return "scene changes are off already";
    case "scenes/away":
      return "the studio does not answer: the scene stays as it is";
    case "scenes/no-scene":
      return "no scene is chosen";
    case "scenes/unknown-scene":
      return `the studio has no scene ${scene}`;
    case "scenes/other-scene":
      return `no change${of}: it may not begin from this scene`;
    case "scenes/by-hand":
      return `no change${of}: an operator chose a scene meanwhile`;
    case "scenes/holds":
      return `no change${of}: ${scene} holds`;
    case "scenes/full":
      return `no change${of}: ${counted(Number(why?.facts["most"]), "scene")} wait already`;
    case "scenes/silent":
      return `the studio did not answer in time: it may not be at ${scene}`;
    case "scenes/refused":
      return `the studio would not go to ${scene}: ${String(why?.facts["why"])}`;
    case "scenes/no-return":
      return `the studio does not answer: nothing goes back to ${scene}`;
    case "scenes/nothing-holds":
      return "nothing holds: there is nothing to go back from";
    case "scenes/went":
      return `scene “${subject}”`;
    case "scenes/returned":
      return `back at “${subject}”`;
    case "scenes/there":
      return `“${subject}” is on already`;
    case "scenes/extended":
      return `“${subject}” holds longer`;
    case "scenes/waits":
      return `“${subject}” waits its turn`;
    case "scenes/moved-on":
      return `somebody went to “${subject}”: nothing goes back`;
    case "scenes/rehearsed":
      return `would go to “${subject}”: a rehearsal leaves the studio alone`;
    case "scenes/switched-on":
      return "scene changes were switched on";
    case "scenes/switched-off":
      return "scene changes were switched off";
    default:
      return why?.code ?? "";
  }
}

const refusedInShort: Readonly<Record<string, string>> = {
  "scenes/away": "studio away",
  "scenes/refused": "studio refused",
  "scenes/silent": "studio silent",
  "scenes/no-scene": "no scene",
  "scenes/unknown-scene": "no such scene",
  "scenes/other-scene": "other scene",
  "scenes/by-hand": "by hand",
  "scenes/holds": "one holds",
  "scenes/full": "too many wait",
  "scenes/no-return": "no way back",
};

export const studioNoteInShort = ({ refusal: why, did, subject = "" }: Note): string | null =>
  why !== undefined
    ? Object.hasOwn(refusedInShort, why.code)
      ? (refusedInShort[why.code] ?? null)
      : null
    : did === "scenes/went"
      ? `scene ${subject}`
      : did === "scenes/returned"
        ? `back at ${subject}`
        : null;
