import type { Refusal } from "../kernel/refusal";
import type { Note, NoteWords } from "../module/module";
import { moneyInWords } from "../signals/money-words";
import { count } from "../words/sentence";
import { amountOfUnit, toldOf } from "../games/words";
import type { When } from "./settings";

/** What a tier's amount counts: money, what reactions are worth, a thing in one and many; null where there is nothing to count. */
export type Unit = "money" | "value" | readonly [one: string, many: string] | null;

/** What a rule answers, as far as its amounts depend on it. */
export type Asked = Readonly<{
  when: When | "cue";
  what?: string;
  /** Whatever the amount: a reward does what it says. */ fixed?: boolean;
}>;

export function unitOf({ when, what = "", fixed = false }: Asked): Unit {
  if (fixed) return null;
  switch (when) {
    case "membership":
      return ["month", "months"];
    case "gift":
      return ["membership", "memberships"];
    case "tip":
      return "money";
    case "reaction":
      return "value";
    case "raid":
    case "host":
      return ["viewer", "viewers"];
    case "arrival":
      return ["show", "shows"];
    case "redemption":
    case "purchase":
      return ["point", "points"];
    case "happened":
      return toldOf(what)?.told.unit ?? null;
    default:
      return null;
  }
}

export function amountInWords(asked: Asked, amount: number, home: string): string {
  const unit = unitOf(asked);
  if (unit === "money") return moneyInWords(amount, home);
  return unit === null || unit === "value" ? count(amount) : amountOfUnit(amount, unit);
}

export type Names = Readonly<{
  cue?: (id: string) => string | null;
  game: (id: string) => string | null;
  /** Of which kind a game is; empty when it is gone. */
  kind: (id: string) => string;
  prop: (id: string) => string | null;
  home: string;
}>;

export function ruleRefusalInWords({ code, facts }: Refusal, names: Pick<Names, "home">, asked: Asked): string {
  switch (code) {
    case "rule/off":
      return "the rule is switched off";
    case "rule/other-reaction":
      return `it is for another kind than ${String(facts["reaction"])}`;
    case "rule/role":
      return "this viewer’s role is not among those it is for";
    case "rule/words":
      return "none of its words is in the text";
    case "rule/off-air":
      return "it only counts during a show, and none is on";
    case "rule/too-early":
      return `it counts from minute ${facts["fromMin"]} of the show`;
    case "rule/too-late":
      return `it counted until minute ${facts["toMin"]} of the show`;
    case "rule/currency":
      return `the channel has no rate for ${String(facts["currency"])}, so its amount can’t be told`;
    case "rule/tier":
      return `no tier of it begins at ${amountInWords(asked, Number(facts["amount"]), names.home)} or less, or is for exactly that`;
    case "rule/cooling":
      return `it is on cooldown for ${facts["freeInS"]} s more`;
    default:
      return code;
  }
}

export function ruleNoteInWords({ did, refusal: why, subject = "" }: Note): string {
  const what = subject === "" ? "" : `“${subject}” `;
  if (why !== undefined) return `${what}did not fire: ${ruleRefusalInWords(why, { home: "" }, { when: "message" })}`;
  return did === "rule/fired" ? `rule ${what}answered` : "";
}

export const rulesFront: NoteWords = {
  kind: "rules",
  noteInWords: ruleNoteInWords,
  noteInShort: ({ did, subject = "" }) => (did === "rule/fired" ? subject || "rule" : null),
};
