import type { Note } from "../../module/module";
import { count, counted } from "../../words/sentence";
import { nameOfSegment } from "./stands";

const refusals: Readonly<Record<string, (facts: Readonly<Record<string, unknown>>) => string>> = {
  "wheel/off": () => "the wheel is switched off",
  "wheel/already-on": () => "the wheel is on already",
  "wheel/already-off": () => "the wheel is off already",
  "wheel/turning": (f) => `it is turning: ${count(Number(f["freeInS"]))} s until it rests`,
  "wheel/full": (f) => `${counted(Number(f["most"]), "spin")} wait already, and no more can`,
  "wheel/empty": () => "every segment was drawn: bring them back first",
  "wheel/all-there": () => "all segments are on the wheel",
  "wheel/none-wait": () => "no spin waits",
  "wheel/secret-lost": () => "the secret of this spin can’t be read any more; another was promised, spin again",
};

export function wheelNoteInWords({ refusal: why, did, count: n, subject = "", facts = {} }: Note): string {
  if (why !== undefined) return Object.hasOwn(refusals, why.code) ? (refusals[why.code]?.(why.facts) ?? why.code) : why.code;
  switch (did) {
    case "wheel/spun":
      return `${subject} spun the wheel`;
    case "wheel/waits":
      return n === 1 ? `${subject} spins next` : `${subject} spins in ${counted(n, "turn")}`;
    case "wheel/drawn":
      return `the wheel came to ${nameOfSegment(subject)}, for ${String(facts["by"] ?? "")}`;
    case "wheel/reset":
      return n === 0 ? "the count of what was drawn begins anew" : `${counted(n, "segment")} came back`;
    case "wheel/dropped":
      return `${counted(n, "spin")} that waited ${n === 1 ? "was" : "were"} dropped`;
    case "wheel/rules-told":
      return "chat was told the chances";
    case "wheel/switched-on":
      return "the wheel was switched on";
    case "wheel/switched-off":
      return "the wheel was switched off";
    default:
      return "";
  }
}

export function wheelNoteInShort({ refusal: why, did, count: n, subject = "" }: Note): string | null {
  if (why !== undefined) return why.code === "wheel/full" ? "too many wait" : null;
  switch (did) {
    case "wheel/spun":
      return "spun";
    case "wheel/waits":
      return `waits, ${count(n)}`;
    case "wheel/drawn":
      return nameOfSegment(subject).slice(0, 30);
    default:
      return null;
  }
}
