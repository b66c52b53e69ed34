import { inShort } from "../../chance/round";
import { cut } from "../../kernel/text";
import type { Hint } from "../../module/game";
import { blanksOf, say } from "../../words/blanks";
import { count, counted, plain, type Sentence } from "../../words/sentence";
import { inOwnWords } from "./reply";
import { type RaffleSettings, raffleSettingsSchema, type RaffleWinner, type Round } from "./settings";

const cost = ({ price, by }: RaffleSettings, pointsName: string): string =>
  price === 0 ? "" : ` ${by === "number" ? "A number" : "A ticket"} costs ${count(price)} ${pointsName}.`;

/** How to take part, in chat. */
export function openedTold(s: RaffleSettings, commitment: string, pointsName: string): string {
  const how =
    s.by === "number"
      ? `write ${s.word} and a number from ${count(s.number.from)} to ${count(s.number.to)}`
      : s.most === 1
        ? `write ${s.word} to enter`
        : `write ${s.word} and how many, up to ${counted(s.most, "ticket")}`;
  const promise = inShort(commitment);
  const { title, subtitle, word, most, price } = s;
  const usual = `${title} is open: ${how}.${cost(s, pointsName)} Promised by ${promise}.`;
  return inOwnWords(s, "opened", { title, subtitle, word, most, price, points: pointsName, promise }, usual);
}
export function lockedTold({ settings, people, tickets, listHash, phase }: Round): string {
  const { title, shakers } = settings;
  const list = inShort(listHash);
  const usual = `${title} is locked: ${counted(people, "viewer")}, ${counted(tickets, "ticket")}. List ${list}.${
    phase === "shaking" ? ` Write anything now: the first ${count(shakers)} of you shake the drum.` : ""
  }`;
  return inOwnWords(settings, "locked", { title, people, tickets, list, shakers }, usual);
}
export function winnerTold(s: RaffleSettings, { name, prize }: RaffleWinner): string {
  const { title, claimMs } = s;
  const seconds = Math.round(claimMs / 1000);
  const usual = `${name} wins ${prize === "" ? title : prize}.${claimMs > 0 ? ` @${name}, write within ${count(seconds)} s to claim it.` : ""}`;
  return inOwnWords(s, "winner", { viewer: name, prize: prize === "" ? title : prize, title, seconds }, usual);
}
export const closedTold = ({ id, settings }: Round): string =>
  inOwnWords(settings, "over", { title: settings.title, round: id }, `${settings.title} is over. Anybody can check it: round ${id}.`);

/** The rules of a draw as sentences with blanks. */
export function raffleSentences(s: RaffleSettings, pointsName = "points"): readonly Sentence[] {
  const { whole, time, toggle, choice, roles, text } = blanksOf(raffleSettingsSchema, s);
  const lines: Sentence[] = [
    say("title", "It is called ", text("title", "Title", "Last week’s mug"), ", and is for ", roles("roles", "Who may enter"), "."),
    say(
      "by",
      "Winners are drawn ",
      choice("by", "What winners are drawn by", { tickets: "from all tickets", number: "by the number nearest to one that is drawn" }),
      "; who writes ",
      text("word", "Chat word", "!in"),
      s.by === "tickets" ? " is in." : " and a number is in.",
    ),
  ];
  if (s.by === "tickets")
    lines.push(
      say(
        "tickets",
        "One viewer has up to ",
        whole("most", "Most tickets of one viewer"),
        s.most === 1 ? " ticket, for " : " tickets, each for ",
        whole("price", `Price in ${pointsName}; 0 for none`),
        ` ${pointsName}.`,
      ),
    );
  else
    lines.push(
      say(
        "number",
        "Numbers go from ",
        whole("number.from", "Lowest number"),
        " to ",
        whole("number.to", "Highest number"),
        "; one may be named ",
        whole("tries", "How often one may name a number"),
        s.tries === 1 ? " time, for " : " times, each for ",
        whole("price", `Price in ${pointsName}; 0 for none`),
        ` ${pointsName}.`,
      ),
    );
  lines.push(
    s.locks === "time"
      ? say(
          "locks",
          "It locks ",
          choice("locks", "What locks it", { hand: "by hand", time: "by itself" }),
          " after ",
          time("openMs", "How long it is open"),
          ".",
        )
      : say("locks", "It locks ", choice("locks", "What locks it", { hand: "by hand", time: "by itself" }), "."),
    s.shake
      ? say(
          "shake",
          "After the lock, viewers ",
          toggle("shake", "Whether viewers shake the drum", "shake the drum", "do nothing more"),
          ": the first ",
          whole("shakers", "How many viewers shake it"),
          " to write within ",
          time("shakeMs", "Time for shaking"),
          " have a hand in the result.",
        )
      : say(
          "shake",
          "After the lock, viewers ",
          toggle("shake", "Whether viewers shake the drum", "shake the drum", "do nothing more"),
          ".",
        ),
    say(
      "winners",
      "There ",
      s.winners === 1 ? "is " : "are ",
      whole("winners", "How many winners"),
      s.winners === 1 ? " winner, who " : " winners; each ",
      s.claimMs > 0 ? "must write within " : "need not answer: ",
      time("claimMs", "Time to claim; 0 for no such need"),
      s.claimMs > 0 ? ", or the next is drawn." : ".",
    ),
    say(
      "rest",
      "Who won can’t win again for ",
      whole("restShows", "Shows for which a winner rests; 0 for none"),
      s.restShows === 1 ? " show and " : " shows and ",
      whole("restDays", "Days for which a winner rests; 0 for none"),
      s.restDays === 1 ? " day." : " days.",
    ),
    say(
      "lately",
      "To enter, one must have written within ",
      whole("chattedMin", "Minutes within which somebody wrote; 0 for no such need"),
      s.chattedMin === 0 ? " minutes: 0 is no such need." : s.chattedMin === 1 ? " minute." : " minutes.",
    ),
    say(
      "answers",
      "In chat, ",
      choice("answers", "What is answered in chat", {
        all: "everybody is answered",
        refusals: "only who can’t be in is answered",
        nothing: "nobody is answered",
      }),
      "; who writes ",
      text("chanceWord", "Chat word for one’s own chance; empty for none", "!mychance"),
      s.chanceWord === "" ? " (no word) is told nothing." : " is told their chance.",
    ),
  );
  return lines;
}
/** What viewers are told: nothing of what is not so. */
export const rulesForViewers = (s: RaffleSettings, pointsName?: string): readonly string[] =>
  raffleSentences(s, pointsName)
    .filter((l) => (l.id !== "rest" || s.restShows + s.restDays > 0) && (l.id !== "lately" || s.chattedMin > 0) && l.id !== "answers")
    .map(plain);
export const rulesTold = (s: RaffleSettings, pointsName: string): string => cut(rulesForViewers(s, pointsName).join(" "), 380);

/** Settings that will disappoint, said before anybody enters. */
export function raffleHints(s: RaffleSettings): readonly Hint[] {
  const hints: Hint[] = [];
  const prizes = s.prizes.reduce((sum, p) => sum + p.count, 0);
  if (s.prizes.length > 0 && prizes < s.winners)
    hints.push({
      id: "prizes",
      text: `There are ${counted(s.winners, "winner")} and ${counted(prizes, "prize")}: the last win the title alone.`,
      path: "winners",
    });
  if (s.prizes.length > 0 && prizes > s.winners)
    hints.push({
      id: "winners",
      text: `There are ${counted(prizes, "prize")} and ${counted(s.winners, "winner")}: the last prizes stay.`,
      path: "winners",
    });
  if (s.claimMs > 0 && s.claimMs < 15_000)
    hints.push({
      id: "claim",
      text: "The broadcast reaches viewers some seconds late: in less than 15 s few can answer.",
      path: "claimMs",
    });
  if (!s.shake)
    hints.push({
      id: "shake",
      text: "Nobody but you has a hand in the result. Let viewers shake the drum, and nobody can doubt it.",
      path: "shake",
    });
  if (s.by === "number" && s.number.to - s.number.from < 9)
    hints.push({ id: "number", text: "So few numbers are there that many name the same; the earliest of them wins.", path: "number.to" });
  return hints;
}
