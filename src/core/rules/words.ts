import type { Order } from "../module/order";
import { exhaustive, type Refusal } from "../kernel/refusal";
import type { Note } from "../module/module";
import { moneyInWords } from "../signals/money";
import { count, rolesInWords, seconds } from "../words/sentence";
import { exampleOf } from "../words/template";
import { actionOf, amountOfUnit, toldOf } from "../games/words";
import { emoteSourceSchema, type EmoteSource, type Field, formParts } from "../module/fields";
import type { RuleEffect } from "./effect";
import type { Rule, Tier, When } from "./settings";

/** A rule in plain words: the same sentences in the list, in “what would happen if” and in the log. */
export const whenWords: Readonly<Record<When, string>> = {
  message: "somebody writes in chat",
  follow: "somebody follows",
  membership: "somebody becomes or stays a member",
  gift: "somebody gives memberships away",
  tip: "somebody tips",
  reaction: "somebody sends paid reactions",
  raid: "a raid comes in",
  host: "another channel hosts",
  arrival: "somebody writes for the first time in a show",
  happened: "something comes to pass in a game",
  redemption: "somebody buys a reward",
  purchase: "somebody buys something on the platform",
  live: "the show goes live",
  ended: "the show ends",
  timer: "time comes round",
};
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

const lower = (words: string): string => `${words[0]?.toLowerCase() ?? ""}${words.slice(1)}`;
/** One value of an action, in words; `per` only where an amount is given for every so much. */
function valueInWords(
  field: Field,
  value: unknown,
  asked: Asked,
  per: number | null,
  { home, prop: props }: Pick<Names, "home" | "prop">,
): string {
  switch (field.kind) {
    case "amount":
      return `${count(Number(value))}${per === null || unitOf(asked) === null ? "" : ` for every ${amountInWords(asked, per, home)}`}`;
    case "whole":
      return `${count(Number(value))}${field.unit === undefined ? "" : ` ${field.unit}`}`;
    case "time":
      return seconds(Number(value));
    case "choice":
      return field.options.find((o) => o.value === value)?.words ?? String(value);
    case "text":
      if (field.oneOf !== undefined && value === "") return field.oneOf.none;
      return `“${exampleOf(String(value))}”`;
    case "prop":
      return value === "" ? `no ${field.of}` : (props(String(value)) ?? `a ${field.of} that is gone`);
    case "emotes": {
      const read = emoteSourceSchema.safeParse(value);
      return read.success ? emotesInWords(read.data, asked.when) : "of emotes";
    }
    case "signal":
      return "";
  }
}
export const emotesInWords = ({ from, chosen }: EmoteSource, when: When | "cue"): string =>
  from === "message"
    ? when === "reaction"
      ? "of their own picture"
      : "of the message’s emotes"
    : from === "most-used"
      ? "of the emotes written most"
      : `of ${chosen.length} chosen ${chosen.length === 1 ? "emote" : "emotes"}`;

/** “hit Old Spall by 40 for every 1.00 EUR”: an action with what it is given. */
export function actionInWords(
  act: Readonly<{ game: string; act: string; input: Readonly<Record<string, unknown>>; per: number | null }>,
  asked: Asked,
  names: Names,
): string {
  const game = names.game(act.game) ?? "a game that is gone";
  const action = actionOf(names.kind(act.game), act.act);
  if (action === null) return `do something with ${game} that it can’t`;
  const words = formParts(action.form).map((part) => {
    if (typeof part === "string") return part;
    if (part.blank === "game") return game;
    const field = action.input[part.blank];
    const value = Object.hasOwn(act.input, part.blank) ? act.input[part.blank] : field?.start;
    return field === undefined ? "" : valueInWords(field, value, asked, act.per, names);
  });
  return lower(words.join(""));
}

export function effectInWords(effect: RuleEffect, asked: Asked, names: Names): string {
  const game = (id: string): string => names.game(id) ?? "a game that is gone";
  const prop = (id: string): string => names.prop(id) ?? "a prop that is gone";
  switch (effect.do) {
    case "act":
      return actionInWords(effect, asked, names);
    case "show": {
      const parts = [
        effect.picture === "" ? "" : prop(effect.picture),
        effect.text === "" ? "" : `“${exampleOf(effect.text)}”`,
        effect.sound === "" ? "" : `the sound ${prop(effect.sound)}`,
      ].filter((p) => p !== "");
      return `show ${parts.length === 0 ? "nothing yet" : parts.join(", ")} for ${seconds(effect.ms)}`;
    }
    case "sound":
      return effect.sound === "" ? "play no sound yet" : `play ${prop(effect.sound)}`;
    case "say":
      return `say “${exampleOf(effect.text)}” in chat`;
    case "switch":
      return `${effect.on ? "start" : "stop"} ${game(effect.game)}`;
    case "cue":
      return `fire the cue ${names.cue?.(effect.cue) ?? "that is chosen"}`;
    case "wait":
      return `wait ${seconds(effect.ms)}`;
    default:
      return exhaustive(effect);
  }
}

export function tierInWords(rule: Asked, tier: Pick<Tier, "at" | "amount">, home: string): string {
  if (unitOf(rule) === null) return "";
  if (tier.at === "exact") return `exactly ${amountInWords(rule, tier.amount, home)}`;
  return tier.amount === 0 ? "any amount" : `${amountInWords(rule, tier.amount, home)} or more`;
}

export function whenInWords(rule: Rule): string {
  const start =
    rule.when === "happened"
      ? (toldOf(rule.what)?.told.words ?? "something comes to pass that no game tells of")
      : rule.when === "timer"
        ? `every ${seconds(rule.everyMs)}`
        : rule.when === "reaction" && rule.reaction !== ""
          ? `somebody sends ${rule.reaction}`
          : whenWords[rule.when];
  const who = rule.roles.includes("viewer") ? "" : `, by ${rolesInWords(rule.roles)}`;
  const words =
    rule.words.how === "any"
      ? ""
      : rule.words.how === "is"
        ? `, being just ${rule.words.list.join(" or ")}`
        : `, with ${rule.words.list.join(" or ")} in it`;
  const time =
    rule.time.how === "any"
      ? ""
      : rule.time.toMin > 0
        ? `, from minute ${rule.time.fromMin} to ${rule.time.toMin} of the show`
        : rule.time.fromMin > 0
          ? `, from minute ${rule.time.fromMin} of the show`
          : ", during the show";
  return `${start}${who}${words}${time}`;
}

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

export function orderInWords(order: Order, names: Names): string {
  const game = (id: string): string => names.game(id) ?? "a game that is gone";
  switch (order.do) {
    case "command": {
      const { gameId, command } = order;
      if (command.do === "switch") return `${command["on"] === true ? "start" : "stop"} ${game(gameId)}`;
      return actionInWords({ game: gameId, act: command.do, input: command, per: null }, { when: "cue" }, names);
    }
    case "say":
      return `chat is told “${order.text}”`;
    case "show": {
      const { picture, text, sound, ms } = order.alert;
      const parts = [
        picture === "" ? "" : (names.prop(picture.replace(/^prop:/, "")) ?? "a prop that is gone"),
        text === "" ? "" : `“${text}”`,
        sound === "" ? "" : `sound ${names.prop(sound) ?? "that is gone"}`,
      ].filter((p) => p !== "");
      return `${parts.join(", ")} for ${seconds(ms)}`;
    }
    case "emit":
      return order.what;
    case "cue":
    case "answer":
    case "look-up":
    case "speak":
    case "studio":
    case "film":
    case "give-back":
    case "unfilm":
    case "end-alert":
    case "apart":
    case "arrived":
    case "announce":
    case "snapshot":
    case "hush":
    case "redeemed":
      // The show's and the rewards' own; rules and cues order nothing of the kind.
      return order.do;
    default:
      return exhaustive(order);
  }
}
