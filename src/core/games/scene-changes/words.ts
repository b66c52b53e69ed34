import type { WordFacts } from "../../module/game";
import { blanksOf, say } from "../../words/blanks";
import { type Part, seconds, type Sentence } from "../../words/sentence";
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
