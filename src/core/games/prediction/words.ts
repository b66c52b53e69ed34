import { cut } from "../../kernel/text";
import type { Hint } from "../../module/game";
import { oddsHundredths } from "../../points/payout";
import { blanksOf, say } from "../../words/blanks";
import { count, counted, plain, seconds, type Sentence } from "../../words/sentence";
import { type PredictionSettings, predictionSettingsSchema, type Round } from "./settings";
import { letterOf } from "./letters";

/** “A It survives, B It cracks”. */
export const outcomesInWords = (outcomes: readonly string[]): string => outcomes.map((o, i) => `${letterOf(i)} ${o}`).join(", ");
export const potOf = (round: Pick<Round, "totals">): number => round.totals.reduce((sum, t) => sum + t.stakes, 0);
/** What an outcome pays for each point, to two decimals; “–” where nobody backs it. */
export function oddsInWords(round: Pick<Round, "totals" | "feeBp">, outcome: number): string {
  const odds = oddsHundredths(round.totals[outcome]?.stakes ?? 0, potOf(round), round.feeBp);
  return odds === null ? "–" : (odds / 100).toFixed(2);
}

export function openedTold(round: Round, word: string, points: string): string {
  const how = round.stakes ? `Write ${word}, a letter and how much: ${word} A ${Math.max(round.least, 100)}` : `Write ${word} and a letter`;
  const time = `It closes in ${seconds(round.locksMs - round.openedMs)}`;
  return cut(`${round.title} ${outcomesInWords(round.outcomes)}. ${how}${round.stakes ? ` (${points})` : ""}. ${time}.`, 400);
}
export function lockedTold(round: Round, points: string): string {
  if (round.people === 0) return `${round.title} is closed. Nobody took part.`;
  const each = round.outcomes.map((_, i) => {
    const { stakes, people } = round.totals[i] ?? { stakes: 0, people: 0 };
    return round.stakes ? `${letterOf(i)} ${count(stakes)} (pays ${oddsInWords(round, i)})` : `${letterOf(i)} ${count(people)}`;
  });
  return cut(`${round.title} is closed: ${each.join(", ")}${round.stakes ? ` ${points}` : ""}.`, 400);
}
export function resultTold(round: Round, points: string): string {
  const result = round.result ?? -1;
  const what = `${round.title} ${letterOf(result)} ${round.outcomes[result] ?? ""}.`;
  const winners = round.paid?.winners ?? 0;
  if (!round.stakes)
    return cut(`${what} ${winners === 0 ? "Nobody was right." : `${counted(winners, "viewer was", "viewers were")} right.`}`, 400);
  if (round.paid?.returned === true) return cut(`${what} Nobody was right, so everybody gets back what they staked.`, 400);
  return cut(`${what} ${counted(winners, "viewer shares", "viewers share")} ${count(round.paid?.pot ?? 0)} ${points}.`, 400);
}
export const cancelledTold = (round: Round, points: string): string =>
  `${round.title} is cancelled.${round.stakes && round.people > 0 ? ` Everybody gets their ${points} back.` : ""}`;
export const takenBackTold = (round: Round): string =>
  `${round.title} The result was told by a slip and is taken back: ${letterOf(round.result ?? 0)} ${round.outcomes[round.result ?? 0] ?? ""} it was not. What was paid comes back.`;

/** The rules of a prediction as sentences with blanks. */
export function predictionSentences(s: PredictionSettings, points = "points"): readonly Sentence[] {
  const { whole, time, toggle, choice, roles, text } = blanksOf(predictionSettingsSchema, s);
  return [
    say("title", "“", text("title", "The question", "Will it survive the firing?"), "” is for ", roles("roles", "Who may take part"), "."),
    say(
      "stakes",
      "Who writes ",
      text("word", "Chat word", "!back"),
      " and a letter ",
      toggle("stakes", "Whether points are staked", `stakes ${points} on it`, "votes for it"),
      s.stakes ? "; they may add to it until it locks." : "; who is right again and again has a streak.",
    ),
    say("open", "It is open for ", time("openMs", "How long it is open"), ", and then locks by itself."),
    ...(s.stakes
      ? [
          say(
            "bounds",
            "The least stake is ",
            whole("least", `Least stake in ${points}`),
            ", the most of one viewer ",
            whole("most", `Most that one viewer may stake in ${points}; 0 for no bound`),
            s.most === 0 ? ` ${points}: 0 is no bound.` : ` ${points}.`,
          ),
          say(
            "fee",
            "The channel keeps ",
            whole("feePercent", "Fee in per cent; 0 for none"),
            " % of the pot; winners share the rest by what they staked.",
          ),
        ]
      : []),
    say(
      "own",
      "Who runs the channel ",
      toggle("barOwn", "Whether who runs the channel is barred", "may not take part", "may take part"),
      ".",
    ),
    say(
      "due",
      "When no result was told ",
      time("dueMs", "Time after the lock until somebody is asked for the result"),
      " after the lock, somebody is asked for it.",
    ),
    say(
      "answers",
      "In chat, ",
      choice("answers", "What is answered in chat", {
        all: "everybody is answered",
        refusals: "only who can’t take part is answered",
        nothing: "nobody is answered",
      }),
      ".",
    ),
  ];
}
/** What viewers are told: nothing of what is not so. */
export const rulesForViewers = (s: PredictionSettings, points?: string): readonly string[] =>
  predictionSentences(s, points)
    .filter((l) => !["due", "answers"].includes(l.id) && (l.id !== "fee" || s.feePercent > 0))
    .map((l) => (l.id === "bounds" && s.most === 0 ? `The least stake is ${count(s.least)} ${points ?? "points"}.` : plain(l)));
export const rulesTold = (s: PredictionSettings, points: string): string => cut(rulesForViewers(s, points).join(" "), 380);

/** Settings that will disappoint, said before anybody takes part. */
export function predictionHints(s: PredictionSettings): readonly Hint[] {
  const hints: Hint[] = [];
  if (s.openMs < 30_000)
    hints.push({
      id: "open",
      text: "The broadcast reaches viewers some seconds late: in less than 30 s few can take part.",
      path: "openMs",
    });
  if (s.stakes && s.feePercent > 10)
    hints.push({ id: "fee", text: `A fee of ${s.feePercent} % makes backing the likely outcome lose.`, path: "feePercent" });
  if (s.stakes && !s.barOwn)
    hints.push({ id: "own", text: "Who tells the result may have staked on it. Viewers will wonder.", path: "barOwn" });
  return hints;
}
