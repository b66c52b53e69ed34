import { blanksOf, say } from "../words/blanks";
import type { Sentence } from "../words/sentence";
import { earnKinds, type EarnKind, pointsSchema, type PointsSettings } from "./settings";

const kindWords: Readonly<Record<EarnKind, string>> = {
  follow: "A follow",
  membership: "A month of membership",
  gift: "A membership given away",
  tip: "A tip",
  reaction: "A paid reaction",
  raid: "A raid",
  host: "Hosting",
};

const perWords: Readonly<Record<EarnKind, string>> = {
  follow: "",
  membership: " for every month",
  gift: " for each",
  tip: " for every ",
  reaction: " for every 1 it is worth",
  raid: " for every viewer it brings",
  host: " for every viewer",
};

/** How points are earned and given, as the sentences one edits. */
export function pointsSentences(s: PointsSettings, home = "EUR"): readonly Sentence[] {
  const { whole, money, toggle, text } = blanksOf(pointsSchema, s);
  return [
    say("name", "Points are called ", text("name", "Name of the points", "points"), "."),
    say(
      "presence",
      "During a show, who wrote within ",
      whole("presence.withinMin", "Minutes within which somebody wrote"),
      " minutes gets ",
      whole("presence.points", "Points for being there"),
      " every ",
      whole("presence.everyMin", "Minutes between rounds"),
      " minutes.",
    ),
    ...earnKinds.map((kind) =>
      say(
        `earn.${kind}`,
        `${kindWords[kind]} brings `,
        whole(`signals.${kind}.give`, `Points for: ${kindWords[kind].toLowerCase()}`),
        perWords[kind],
        ...(kind === "tip" ? [money("signals.tip.per", "Amount of a tip for which points are given", home)] : []),
        ".",
      ),
    ),
    say(
      "daily",
      "In a day a viewer earns at most ",
      whole("dailyMost", "Most a viewer earns in a day; 0 for no limit"),
      s.dailyMost === 0 ? ", which means there is no limit." : ".",
    ),
    say(
      "give",
      "Viewers ",
      toggle("give.on", "Whether viewers may give points to each other", "may", "may not"),
      " give to each other",
      ...(s.give.on ? [", at least ", whole("give.least", "Least amount to give")] : []),
      ".",
    ),
  ];
}

/** The chat words of points, as viewers are told them. */
export const pointsWordsForViewers = (
  { words, give }: PointsSettings,
  name: string,
): readonly Readonly<{ word: string; what: string }>[] => [
  { word: words.balance, what: `how much ${name} you have` },
  { word: words.top, what: `who has most ${name}` },
  ...(give.on ? [{ word: words.give, what: `give ${name} to somebody: the word, a name and an amount` }] : []),
];
