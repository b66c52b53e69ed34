import type { Note } from "../../module/module";
import { count, counted } from "../../words/sentence";

type Facts = Readonly<Record<string, unknown>>;
const n = (facts: Facts, key: string): number => Number(facts[key] ?? 0);
const t = (facts: Facts, key: string): string => String(facts[key] ?? "");
const refusals: Readonly<Record<string, (facts: Facts) => string>> = {
  "prediction/off": () => "predictions are switched off",
  "prediction/already-on": () => "it is on already",
  "prediction/already-off": () => "it is off already",
  "prediction/not-open": () => "nothing is open to take part in",
  "prediction/late": (f) => `it was locked ${count(n(f, "seconds"))} s before your message`,
  "prediction/role": () => "this one is not for everybody",
  "prediction/own": () => "who runs the channel takes no part",
  "prediction/which": (f) => `say which: ${t(f, "letters")}`,
  "prediction/other-outcome": (f) => `you are with ${t(f, "letter")} ${t(f, "label")}, and that stands`,
  "prediction/no-room": () => "no more can take part",
  "prediction/told-already": () => "you have voted, and that stands",
  "prediction/no-amount": (f) => `say how much, a whole number from 1, all or half: ${t(f, "example")}`,
  "prediction/none-left": (f) => `you have no ${t(f, "points")}`,
  "prediction/too-little": (f) => `the least is ${count(n(f, "least"))} ${t(f, "points")}`,
  "prediction/too-much": (f) =>
    `the most is ${count(n(f, "most"))} ${t(f, "points")}${n(f, "already") > 0 ? `, and you have ${count(n(f, "already"))} on it` : ""}`,
  "prediction/too-poor": (f) => `you have ${count(n(f, "has"))} ${t(f, "points")}`,
  "prediction/open-already": () => "one is under way: tell its result or cancel it first",
  "prediction/no-template": () =>
    "there is no template of this name. Or write a question and its outcomes: Will it hold? It holds; It leaks",
  "prediction/none": () => "none is under way",
  "prediction/locked-already": () => "it is locked already",
  "prediction/lock-first": () => "lock it first",
  "prediction/told-before": (f) => `the result was told: ${t(f, "label")}`,
  "prediction/nothing-to-undo": () => "there is no result to take back",
  "prediction/long-enough": () => "it is open for a day already",
  "prediction/no-viewer": () => "nobody is there who could take part",
};

export function predictionNoteInWords({ refusal: why, did, count: c, subject = "", facts = {} }: Note): string {
  if (why !== undefined) return Object.hasOwn(refusals, why.code) ? (refusals[why.code]?.(why.facts) ?? why.code) : why.code;
  switch (did) {
    case "prediction/opened":
      return `“${subject}” was opened`;
    case "prediction/backed":
      return c === 0
        ? `your vote is ${t(facts, "letter")} ${t(facts, "label")}`
        : `${count(n(facts, "stake"))} on ${t(facts, "letter")} ${t(facts, "label")}`;
    case "prediction/locked":
      return `“${subject}” was locked with ${counted(c, "viewer")}`;
    case "prediction/later":
      return `the result of “${subject}” is asked for later`;
    case "prediction/longer":
      return `“${subject}” is open a minute longer`;
    case "prediction/resulted":
      return `${subject} it is; ${counted(c, "viewer was", "viewers were")} right`;
    case "prediction/paid":
      return `${counted(c, "viewer was", "viewers were")} paid for ${subject}`;
    case "prediction/cancelled":
      return `“${subject}” was cancelled; what was staked goes back`;
    case "prediction/given-back":
      return `${counted(c, "viewer has", "viewers have")} their own back`;
    case "prediction/taken-back":
      return `the result ${subject} is taken back`;
    case "prediction/reversed":
      return `“${subject}” is locked again`;
    case "prediction/platform-open":
      return `the platform’s “${subject}” is open`;
    case "prediction/platform-locked":
      return `the platform’s “${subject}” is locked`;
    case "prediction/platform-done":
      return `the platform’s “${subject}” is decided`;
    case "prediction/platform-cancelled":
      return `the platform’s “${subject}” was cancelled`;
    case "prediction/rules-told":
      return "chat was told the rules";
    case "prediction/switched-on":
      return "predictions were switched on";
    case "prediction/switched-off":
      return "predictions were switched off";
    default:
      return "";
  }
}

export function predictionNoteInShort({ refusal: why, did, count: c, facts = {} }: Note): string | null {
  if (why !== undefined) return why.code === "prediction/late" ? `${count(n(why.facts, "seconds"))} s late` : "refused";
  if (did === "prediction/backed") return c === 0 ? t(facts, "letter") : `${count(c)} on ${t(facts, "letter")}`;
  if (why === undefined && did !== undefined && Object.hasOwn(short, did)) return short[did] ?? null;
  return null;
}
const short: Readonly<Record<string, string>> = {
  "prediction/opened": "opened",
  "prediction/locked": "locked",
  "prediction/longer": "a minute longer",
  "prediction/later": "asked later",
  "prediction/resulted": "result told",
  "prediction/paid": "paid",
  "prediction/cancelled": "cancelled",
  "prediction/given-back": "given back",
  "prediction/taken-back": "result taken back",
  "prediction/reversed": "locked again",
};
