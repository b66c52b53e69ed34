import type { Refusal } from "../kernel/refusal";
import type { Note } from "../kernel/step";
import { count } from "../words/sentence";

const wait = (s: number): string => (s < 90 ? `${s} s` : s < 5_400 ? `${Math.ceil(s / 60)} min` : `${Math.ceil(s / 3_600)} h`);

/** Why a reward was not sold, for the one who wanted it: one reason, the first that applies. */
export function rewardRefusalInWords({ code, facts }: Refusal): string {
  const name = String(facts["reward"] ?? "this");
  const n = (key: string): string => count(Number(facts[key] ?? 0));
  switch (code) {
    case "reward/off":
      return `${name} is not sold at the moment`;
    case "reward/hushed":
      return "buying pauses at the moment; nothing was paid";
    case "reward/off-air":
      return `${name} is sold during the show only`;
    case "reward/kept":
      return `${name} is kept for somebody else`;
    case "reward/role":
      return `${name} is not for your role`;
    case "reward/text":
      return `${name} needs words behind it${facts["asks"] === "" ? "" : `: ${String(facts["asks"])}`}`;
    case "reward/show-limit":
      return `${name} was sold ${n("most")} times in this show; that is all for today`;
    case "reward/own-limit":
      return `${name} is sold to each viewer ${n("most")} times a show`;
    case "reward/sold-out":
      return `${name} is sold out`;
    case "reward/own-rest":
      return `you can have ${name} again in ${wait(Number(facts["freeInS"]))}`;
    case "reward/rest":
      return `${name} rests for ${wait(Number(facts["freeInS"]))} more`;
    case "reward/dearer":
      return `${name} costs ${n("price")} by now; nothing was paid`;
    case "reward/too-poor":
      return `${name} costs ${n("price")}; you have ${n("has")}, ${n("lacks")} too few`;
    case "sale/unknown":
      return "this sale is not there any more";
    case "sale/refunded-already":
      return "its points were given back already";
    case "sale/done-already":
      return "it was done already";
    case "sale/none-waits":
      return "none of it waits";
    case "game/cannot":
      return "rewards have nothing of the kind";
    default:
      return code;
  }
}

export function rewardNoteInWords(note: Note): string {
  if (note.refusal !== undefined) return rewardRefusalInWords(note.refusal);
  const subject = note.subject ?? "";
  switch (note.did) {
    case "reward/bought":
      return `${subject} for ${count(note.count)}`;
    case "reward/asked":
      return `${subject} for ${count(note.count)}; it waits for a yes`;
    case "reward/done":
      return `${String(note.facts?.["reward"])} of ${subject} was done`;
    case "reward/refunded":
      return `${subject} got ${count(note.count)} back for ${String(note.facts?.["reward"])}`;
    case "reward/refunded-all":
      return `${count(note.count)} who asked for ${subject} got their points back`;
    default:
      return "";
  }
}
