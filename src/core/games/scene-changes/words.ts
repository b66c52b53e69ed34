import type { Note } from "../../module/module";
import type { WordFacts } from "../../module/game";
import { blanksOf, say } from "../../words/blanks";
import { counted, type Part, seconds, type Sentence } from "../../words/sentence";
import { type AnsweredKind, answeredKinds, countedKinds, type StudioSettings, studioSettingsSchema } from "./settings";

export const kindWords: Readonly<Record<AnsweredKind, string>> = {
  follow: "A follow",
  membership: "A membership",
  gift: "Gifts",
  tip: "A tip",
  reaction: "Paid reactions",
  raid: "A raid",
  host: "A hosting channel",
  live: "The begin of a show",
  ended: "The end of a show",
};
const unit: Partial<Record<AnsweredKind, string>> = {
  membership: "months",
  gift: "memberships",
  reaction: "what they are worth",
  raid: "viewers",
  host: "viewers",
};
const isCounted = (kind: AnsweredKind): kind is (typeof countedKinds)[number] => countedKinds.some((k) => k === kind);

export function studioSentences(s: StudioSettings, { home }: Pick<WordFacts, "home">): readonly Sentence[] {
  const { whole, time, toggle, money, choice } = blanksOf(studioSettingsSchema, s);
  const of = (kind: AnsweredKind): Sentence => {
    const { scene, holdMs, on, onlyIn } = s.answers[kind];
    const verb = kind === "gift" || kind === "reaction" ? ["go", "do not go"] : ["goes", "does not go"];
    const whether = toggle(
      `answers.${kind}.on`,
      `Whether ${kindWords[kind].toLowerCase()} changes the scene`,
      verb[0] ?? "",
      verb[1] ?? "",
    );
    if (!on) return say(kind, `${kindWords[kind]} `, whether, " to another scene.");
    const least: readonly Part[] = !isCounted(kind)
      ? []
      : kind === "tip"
        ? [" of at least ", money("answers.tip.least", "The least tip", home)]
        : [" of at least ", whole(`answers.${kind}.least`, `The least of ${kindWords[kind].toLowerCase()}`), ` ${unit[kind] ?? ""}`];
    const where = scene === "" ? "to a scene that is not chosen yet" : `to “${scene}”`;
    const back = holdMs === 0 ? ", where it stays (0 is for good)" : ", then back where it was";
    const only = onlyIn.length === 0 ? "" : `, only from ${onlyIn.map((n) => `“${n}”`).join(" or ")}`;
    return say(
      kind,
      `${kindWords[kind]}`,
      ...least,
      " ",
      whether,
      ` ${where} for `,
      time(`answers.${kind}.holdMs`, `How long after ${kindWords[kind].toLowerCase()}`),
      `${back}${only}.`,
    );
  };
  return [
    ...answeredKinds.map(of),
    say(
      "meanwhile",
      "While one holds, another ",
      choice("meanwhile", "What becomes of another one meanwhile", {
        extend: "for the same scene adds its time, for another scene waits",
        wait: "waits",
        drop: "is left out",
      }),
      "; at most ",
      whole("mostWaiting", "Most waiting"),
      " wait.",
    ),
  ];
}
export function studioToViewers(s: StudioSettings): readonly string[] {
  const some = answeredKinds.filter((k) => s.answers[k].on && s.answers[k].scene !== "");
  return some.length === 0
    ? ["The picture changes its scene when an operator says so."]
    : some.map((k) => {
        const { scene, holdMs } = s.answers[k];
        return `${kindWords[k]} ${k === "gift" || k === "reaction" ? "show" : "shows"} “${scene}”${holdMs === 0 ? "" : ` for ${seconds(holdMs)}`}.`;
      });
}

export function studioNoteInWords({ refusal: why, did, subject = "", count }: Note): string {
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
      return "not from the scene that is on now";
    case "scenes/holds":
      return `left out: ${scene} holds`;
    case "scenes/full":
      return `left out: ${counted(Number(why?.facts["most"]), "scene")} wait already`;
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
      return why?.code ?? (count > 1 ? "" : "");
  }
}
const refusedInShort: Readonly<Record<string, string>> = {
  "scenes/away": "studio away",
  "scenes/refused": "studio refused",
  "scenes/silent": "studio silent",
  "scenes/no-scene": "no scene",
  "scenes/unknown-scene": "no such scene",
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
