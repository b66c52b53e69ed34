import type { Refusal } from "../kernel/refusal";
import type { Note } from "../module/module";
import { blanksOf, say } from "../words/blanks";
import { count, counted, type Sentence } from "../words/sentence";
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

export function pointsRefusalInWords({ code, facts }: Refusal): string {
  const name = String(facts["name"] ?? "points");
  switch (code) {
    case "points/no-giving":
      return `${name} can’t be given to others here`;
    case "points/give-how":
      return `say to whom and how much: ${String(facts["word"])} name 50`;
    case "points/too-little":
      return `the least one can give is ${count(Number(facts["least"]))} ${name}`;
    case "points/unknown-viewer":
      return `nobody called ${String(facts["viewer"])} has points here`;
    case "points/to-oneself":
      return "that would be to yourself";
    case "points/too-few":
      return `you have ${count(Number(facts["has"]))} ${name}`;
    case "points/below-none":
      return `there are ${count(Number(facts["has"]))} ${name} there; nobody can have less than 0`;
    case "points/rehearsing":
      return `a rehearsal touches no ${name}: set it right when it has ended`;
    case "points/taken-in-already":
      return "this very list was imported already";
    case "points/nothing-there":
      return `${String(facts["viewer"])} has no ${name}`;
    case "points/nothing":
      return "nothing to change";
    default:
      return code;
  }
}

export function pointsNoteInWords(note: Note): string {
  if (note.refusal !== undefined) return pointsRefusalInWords(note.refusal);
  const name = String(note.facts?.["name"] ?? note.subject ?? "points");
  switch (note.did) {
    case "points/earned":
      return `+${count(note.count)} ${note.subject ?? "points"}`;
    case "points/given":
      return `${count(note.count)} ${name} went to ${note.subject ?? ""}`;
    case "points/adjusted":
      return `${note.subject ?? ""}: ${note.count > 0 ? "+" : ""}${count(note.count)} ${name}, ${String(note.facts?.["why"])}`;
    case "points/taken-in":
      return `${counted(note.count, "viewer")} got their ${name}: ${String(note.facts?.["why"])}`;
    case "points/merged":
      return `${count(note.count)} ${name} of ${String(note.facts?.["from"])} went to ${note.subject ?? ""}`;
    case "points/owed":
      return `${counted(note.count, "viewer")} ${note.count === 1 ? "owes" : "owe"} ${count(Number(note.facts?.["all"]))} ${String(note.facts?.["name"])}: ${String(note.facts?.["why"])}`;
    case "points/answered":
      return "answered";
    default:
      return "";
  }
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
