import type { Order } from "../module/order";
import { exhaustive } from "../kernel/refusal";
import { count, rolesInWords, seconds } from "../words/sentence";
import { exampleOf } from "../words/template";
import { actionOf, toldOf } from "../games/words";
import { emoteSourceSchema, type EmoteSource, formParts, type Field } from "../module/fields";
import type { RuleEffect } from "./effect";
import type { Rule, Tier, When } from "./settings";
import { Asked, amountInWords, Names, unitOf } from "./notes";

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
