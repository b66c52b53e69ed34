import type { Order } from "../kernel/order";
import { exhaustive, type Refusal } from "../kernel/refusal";
import type { Note } from "../kernel/step";
import { moneyInWords } from "../signals/money";
import { roleWords } from "../signals/signal";
import { count, rolesInWords, seconds } from "../words/sentence";
import type { Cue } from "../cues/settings";
import type { Reward } from "../rewards/settings";
import type { Deed } from "./deeds";
import type { Rule, Rulebook, Tier, When } from "./settings";

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
  happened: "something comes to pass in a game",
  redemption: "somebody buys a reward",
  purchase: "somebody buys something on the platform",
  live: "the show goes live",
  ended: "the show ends",
  timer: "time comes round",
};
export const whatWords: Readonly<Record<string, string>> = {
  "boss/fell": "a boss falls",
  "boss/hit": "a boss is hit",
  "boss/healed": "a boss is healed",
};
/** The unit of a tier's amount; empty where there is nothing to count. */
export const unitOf = (when: When): "" | "months" | "memberships" | "money" | "value" | "viewers" | "damage" | "points" => {
  switch (when) {
    case "membership":
      return "months";
    case "gift":
      return "memberships";
    case "tip":
      return "money";
    case "reaction":
      return "value";
    case "raid":
    case "host":
      return "viewers";
    case "redemption":
    case "purchase":
      return "points";
    case "happened":
      return "damage";
    default:
      return "";
  }
};
export const amountInWords = (when: When, amount: number, home: string): string => {
  const unit = unitOf(when);
  if (unit === "money") return moneyInWords(amount, home);
  return unit === "" || unit === "value" ? count(amount) : `${count(amount)} ${amount === 1 ? unit.replace(/s$/, "") : unit}`;
};

export type Names = Readonly<{
  cue?: (id: string) => string | null;
  game: (id: string) => string | null;
  prop: (id: string) => string | null;
  home: string;
}>;

export function deedInWords(deed: Deed, when: When | "cue", names: Names): string {
  const game = (id: string): string => names.game(id) ?? "a game that is gone";
  const prop = (id: string): string => names.prop(id) ?? "a prop that is gone";
  switch (deed.do) {
    case "damage": {
      const per = when === "cue" || unitOf(when) === "" ? "" : ` for every ${amountInWords(when, deed.rate.per, names.home)}`;
      return `${deed.how === "damage" ? "hit" : "heal"} ${game(deed.game)} by ${count(deed.rate.give)}${per}`;
    }
    case "flock": {
      const of =
        deed.from === "message" && when === "reaction"
          ? "of their own picture"
          : deed.from === "message"
            ? "of the message’s emotes"
            : deed.from === "most-used"
              ? "of the emotes written most"
              : `of ${deed.chosen.length} chosen ${deed.chosen.length === 1 ? "emote" : "emotes"}`;
      return `a flock of ${count(deed.count)} ${of} on ${game(deed.game)}`;
    }
    case "show": {
      const parts = [
        deed.picture === "" ? "" : prop(deed.picture),
        deed.text === "" ? "" : `“${deed.text}”`,
        deed.sound === "" ? "" : `the sound ${prop(deed.sound)}`,
      ].filter((p) => p !== "");
      return `show ${parts.length === 0 ? "nothing yet" : parts.join(", ")} for ${seconds(deed.ms)}`;
    }
    case "sound":
      return deed.sound === "" ? "play no sound yet" : `play ${prop(deed.sound)}`;
    case "say":
      return `say “${deed.text}” in chat`;
    case "switch":
      return `${deed.on ? "start" : "stop"} ${game(deed.game)}`;
    case "tell-rules":
      return `tell the rules of ${game(deed.game)} in chat`;
    case "cue":
      return `fire the cue ${names.cue?.(deed.cue) ?? "that is chosen"}`;
    case "wait":
      return `wait ${seconds(deed.ms)}`;
    default:
      return exhaustive(deed);
  }
}

export function tierInWords(rule: Pick<Rule, "when">, tier: Pick<Tier, "at" | "amount">, home: string): string {
  if (unitOf(rule.when) === "") return "";
  if (tier.at === "exact") return `exactly ${amountInWords(rule.when, tier.amount, home)}`;
  return tier.amount === 0 ? "any amount" : `${amountInWords(rule.when, tier.amount, home)} or more`;
}

export function whenInWords(rule: Rule): string {
  const start =
    rule.when === "happened"
      ? (whatWords[rule.what] ?? rule.what)
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

export function ruleRefusalInWords({ code, facts }: Refusal, names: Names, when: When): string {
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
      return `no tier of it begins at ${amountInWords(when, Number(facts["amount"]), names.home)} or less, or is for exactly that`;
    case "rule/cooling":
      return `it rests for ${facts["freeInS"]} s more`;
    default:
      return code;
  }
}

export function partNoteInWords(note: Note): string {
  const what = note.subject === undefined || note.subject === "" ? "" : `“${note.subject}” `;
  const { refusal: why } = note;
  if (why !== undefined) {
    if (why.code === "cue/cooling") return `${what}rests for ${why.facts["freeInS"]} s more`;
    if (why.code === "cue/role") return `${what}is not for this role`;
    if (why.code === "cue/unknown") return "this cue is not there any more";
    return `${what}did not fire: ${ruleRefusalInWords(why, { game: () => null, prop: () => null, home: "" }, "message")}`;
  }
  switch (note.did) {
    case "rule/fired":
      return `rule ${what}answered`;
    case "cue/fired":
      return `cue ${what}fired`;
    case "cue/on":
      return `cue ${what}is on`;
    case "cue/off":
      return `cue ${what}is off`;
    default:
      return "";
  }
}

export function orderInWords(order: Order, names: Names): string {
  const game = (id: string): string => names.game(id) ?? "a game that is gone";
  switch (order.do) {
    case "hand":
      switch (order.hand.do) {
        case "damage":
          return `${game(order.gameId)} is hit by ${count(order.hand.amount)}`;
        case "heal":
          return `${game(order.gameId)} is healed by ${count(order.hand.amount)}`;
        case "flock":
          return `a flock of ${count(order.hand.count)} on ${game(order.gameId)}`;
        case "switch":
          return `${game(order.gameId)} is ${order.hand.on ? "started" : "stopped"}`;
        case "tell-rules":
          return `chat is told the rules of ${game(order.gameId)}`;
        default:
          return `${game(order.gameId)}: ${order.hand.do}`;
      }
    case "say":
      return `chat is told “${order.text}”`;
    case "show": {
      const { picture, text, sound, ms } = order.moment;
      const parts = [
        picture === "" ? "" : (names.prop(picture.replace(/^prop:/, "")) ?? "a prop that is gone"),
        text === "" ? "" : `“${text}”`,
        sound === "" ? "" : `sound ${names.prop(sound) ?? "that is gone"}`,
      ].filter((p) => p !== "");
      return `${parts.join(", ")} for ${seconds(ms)}`;
    }
    case "tell":
      return order.what;
    case "cue":
    case "answer":
    case "announce":
    case "aside":
    case "hush":
    case "redeemed":
      // The show's and the rewards' own; rules and cues order nothing of the kind.
      return order.do;
    default:
      return exhaustive(order);
  }
}

export type BookFacts = Readonly<{
  games: readonly Readonly<{ id: string; kind: string }>[];
  props: readonly Readonly<{ id: string; kind: "picture" | "sound" }>[];
}>;
export type RuleHint = Readonly<{ ruleId: string; text: string }>;

function deedProblems(deeds: readonly Deed[], facts: BookFacts): readonly string[] {
  const problems: string[] = [];
  const kindOf = (id: string): string | undefined => facts.games.find((g) => g.id === id)?.kind;
  const there = (id: string, kind: "picture" | "sound"): boolean => facts.props.some((p) => p.id === id && p.kind === kind);
  for (const deed of deeds) {
    if ("game" in deed) {
      const kind = kindOf(deed.game);
      if (kind === undefined) problems.push("it acts on a game that is not there");
      else if (deed.do === "damage" && kind !== "boss-battle") problems.push("it hits a game that has no health");
      else if (deed.do === "tell-rules" && kind !== "boss-battle")
        problems.push("it tells the rules of a game that has none to tell in chat yet");
      else if (deed.do === "flock" && kind !== "emote-wall") problems.push("it sends a flock to a game that has no emotes");
    }
    if (deed.do === "flock" && deed.from === "chosen" && deed.chosen.length === 0)
      problems.push("its flock is of chosen emotes, and none is chosen");
    if ((deed.do === "show" || deed.do === "sound") && deed.sound !== "" && !there(deed.sound, "sound"))
      problems.push("it plays a sound that is not there");
    if (deed.do === "sound" && deed.sound === "") problems.push("it plays a sound, and none is chosen");
    if (deed.do === "show" && deed.picture !== "" && !there(deed.picture, "picture")) problems.push("it shows a picture that is not there");
    if (deed.do === "show" && deed.picture === "" && deed.text === "" && deed.sound === "")
      problems.push("it shows nothing: neither picture nor text nor sound is chosen");
    if (deed.do === "say" && deed.text.trim() === "") problems.push("it says nothing in chat");
  }
  return [...new Set(problems)];
}

/** Rules that can never fire, or fire something missing: told in the editor, before the show. */
export function ruleHints(book: Rulebook, facts: BookFacts): readonly RuleHint[] {
  const hints: RuleHint[] = [];
  for (const rule of book.rules) {
    const say = (text: string): void => void hints.push({ ruleId: rule.id, text });
    if (rule.words.how !== "any" && rule.words.list.every((w) => w.trim() === ""))
      say("It can never answer: it waits for words, and none is given.");
    if (rule.words.how !== "any" && ["follow", "gift", "raid", "host", "live", "ended", "timer"].includes(rule.when))
      say("It can never answer: it waits for words in a text, and this kind of signal has none.");
    if (rule.time.how === "show" && rule.time.toMin > 0 && rule.time.toMin <= rule.time.fromMin)
      say("It can never answer: its time ends before it begins.");
    if (rule.time.how === "show" && rule.when === "ended") say("It can never answer: when the show has ended, it is no longer on.");
    if (["live", "ended", "timer"].includes(rule.when) && !rule.roles.includes("viewer"))
      say(`It can never answer: nobody sends this signal, so nobody of ${rule.roles.map((r) => roleWords[r]).join(", ")} does.`);
    if (unitOf(rule.when) === "" && rule.tiers.every((t) => (t.at === "exact" ? t.amount !== 1 : t.amount > 1)))
      say("It can never answer: this kind of signal always counts as 1.");
    if (rule.when === "happened" && whatWords[rule.what] === undefined) say("It can never answer: no game tells of this.");
    if (rule.when === "happened" && !facts.games.some((g) => g.kind === "boss-battle"))
      say("It can never answer yet: there is no boss battle.");
    if (rule.tiers.every((t) => t.deeds.length === 0)) say("It does nothing yet: choose what happens.");
    for (const problem of deedProblems(
      rule.tiers.flatMap((t) => t.deeds),
      facts,
    ))
      say(`Worth a look: ${problem}.`);
    if (rule.when === "happened" && rule.what !== "boss/fell" && rule.tiers.some((t) => t.deeds.some((d) => d.do === "damage")))
      say("It answers hits with hits. Izzam stops after 20 in a row, but viewers will wonder.");
  }
  return hints;
}

/** What is worth a look before a reward is sold. */
export function rewardHints(rewards: readonly Reward[], facts: BookFacts & Readonly<{ voices: boolean }>): readonly RuleHint[] {
  return rewards.flatMap((reward) => {
    const hints: RuleHint[] = [];
    const say = (text: string): void => void hints.push({ ruleId: reward.id, text });
    if (reward.deeds.length === 0 && !reward.approval && reward.codes.length === 0)
      say("Who buys it gets nothing yet: choose what happens, or let it wait for somebody’s yes.");
    if (reward.words.every((w) => w === "")) say("It has no chat word: it is bought on the viewer page only.");
    if (!facts.voices && reward.deeds.some((d) => (d.do === "show" || d.do === "sound") && d.sound !== ""))
      say("No overlay page plays sound yet: open an overlay that makes sound in your broadcast software.");
    if (reward.detail !== "" && !reward.approval) say("It asks for something private, but does not wait for a yes: nobody would read it.");
    for (const problem of deedProblems(reward.deeds, facts)) say(`Worth a look: ${problem}.`);
    return hints;
  });
}

export function cueHints(cues: readonly Cue[], facts: BookFacts): readonly RuleHint[] {
  return cues.flatMap((cue) => {
    const hints: RuleHint[] = [];
    if (cue.deeds.length === 0) hints.push({ ruleId: cue.id, text: "It does nothing yet: choose what happens." });
    for (const problem of deedProblems([...cue.deeds, ...cue.offDeeds], facts))
      hints.push({ ruleId: cue.id, text: `Worth a look: ${problem}.` });
    return hints;
  });
}
