import { roleWords } from "../signals/names";
import { actionOf, toldOf } from "../games/words";
import { emoteSourceSchema } from "../module/fields";
import { entriesOf } from "../module/field-of";
import type { Cue } from "../cues/settings";
import { givesNothing, type Reward } from "../rewards/settings";
import type { RuleEffect } from "./effect";
import type { Rulebook } from "./settings";
import { unitOf } from "./notes";

export type BookFacts = Readonly<{
  games: readonly Readonly<{ id: string; kind: string }>[];
  props: readonly Readonly<{ id: string; kind: "picture" | "sound" }>[];
}>;

export type RuleHint = Readonly<{ ruleId: string; text: string }>;

function effectProblems(effects: readonly RuleEffect[], facts: BookFacts): readonly string[] {
  const problems: string[] = [];
  const kindOf = (id: string): string | undefined => facts.games.find((g) => g.id === id)?.kind;
  const there = (id: string, kind: "picture" | "sound"): boolean => facts.props.some((p) => p.id === id && p.kind === kind);
  for (const effect of effects) {
    if ("game" in effect) {
      const kind = kindOf(effect.game);
      if (kind === undefined) problems.push("it acts on a game that is not there");
      else if (effect.do === "act" && actionOf(kind, effect.act) === null) problems.push("it asks for something that its game can’t do");
    }
    if (effect.do === "act") {
      const chosen = Object.values(effect.input).map((v) => emoteSourceSchema.safeParse(v));
      if (chosen.some((c) => c.success && c.data.from === "chosen" && c.data.chosen.length === 0))
        problems.push("it is of chosen emotes, and none is chosen");
    }
    if (effect.do === "act")
      for (const [name, field] of entriesOf(actionOf(kindOf(effect.game) ?? "", effect.act)?.input ?? {})) {
        const given = Object.hasOwn(effect.input, name) ? effect.input[name] : "";
        if (field.kind === "prop" && typeof given === "string" && given !== "" && !there(given, field.of))
          problems.push(`it names a ${field.of} that is not there`);
      }
    if ((effect.do === "show" || effect.do === "sound") && effect.sound !== "" && !there(effect.sound, "sound"))
      problems.push("it plays a sound that is not there");
    if (effect.do === "sound" && effect.sound === "") problems.push("it plays a sound, and none is chosen");
    if (effect.do === "show" && effect.picture !== "" && !there(effect.picture, "picture"))
      problems.push("it shows a picture that is not there");
    if (effect.do === "show" && effect.picture === "" && effect.text === "" && effect.sound === "")
      problems.push("it shows nothing: neither picture nor text nor sound is chosen");
    if (effect.do === "say" && effect.text.trim() === "") problems.push("it says nothing in chat");
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
    if (rule.words.how !== "any" && ["follow", "gift", "raid", "host", "arrival", "live", "ended", "timer"].includes(rule.when))
      say("It can never answer: it waits for words in a text, and this kind of signal has none.");
    if (rule.time.how === "show" && rule.time.toMin > 0 && rule.time.toMin <= rule.time.fromMin)
      say("It can never answer: its time ends before it begins.");
    if (rule.time.how === "show" && rule.when === "ended") say("It can never answer: when the show has ended, it is no longer on.");
    if (["live", "ended", "timer"].includes(rule.when) && !rule.roles.includes("viewer"))
      say(`It can never answer: nobody sends this signal, so nobody of ${rule.roles.map((r) => roleWords[r]).join(", ")} does.`);
    if (unitOf(rule) === null && rule.tiers.every((t) => (t.at === "exact" ? t.amount !== 1 : t.amount > 1)))
      say("It can never answer: this kind of signal always counts as 1.");
    const told = rule.when === "happened" ? toldOf(rule.what) : null;
    if (rule.when === "happened" && told === null) say("It can never answer: no game tells of this.");
    else if (told !== null && !facts.games.some((g) => g.kind === told.game.kind))
      say(`It can never answer yet: there is no ${told.game.name}.`);
    if (rule.tiers.every((t) => t.effects.length === 0)) say("It does nothing yet: choose what happens.");
    for (const problem of effectProblems(
      rule.tiers.flatMap((t) => t.effects),
      facts,
    ))
      say(`Worth a look: ${problem}.`);
    const goesRound = (effect: RuleEffect): boolean =>
      effect.do === "act" &&
      told?.told.from?.includes(effect.act) === true &&
      facts.games.some((g) => g.id === effect.game && g.kind === told.game.kind);
    if (rule.tiers.some((t) => t.effects.some(goesRound)))
      say(`It answers “${told?.told.words ?? ""}” by doing the same again. Izzam stops after 20 in a row, but viewers will wonder.`);
  }
  return hints;
}

/** What is worth a look before a reward is sold. */
export function rewardHints(rewards: readonly Reward[], facts: BookFacts & Readonly<{ audible: boolean }>): readonly RuleHint[] {
  return rewards.flatMap((reward) => {
    const hints: RuleHint[] = [];
    const say = (text: string): void => void hints.push({ ruleId: reward.id, text });
    if (givesNothing(reward)) say("It does nothing yet, so nobody can buy it. Choose what happens, or let it wait for somebody’s yes.");
    if (reward.words.every((w) => w === "")) say("It has no chat word: it is bought on the viewer page only.");
    if (!facts.audible && reward.effects.some((d) => (d.do === "show" || d.do === "sound") && d.sound !== ""))
      say("No overlay page plays sound yet: open an overlay that makes sound in your broadcast software.");
    if (reward.detail !== "" && !reward.approval) say("It asks for something private, but does not wait for a yes: nobody would read it.");
    for (const problem of effectProblems(reward.effects, facts)) say(`Worth a look: ${problem}.`);
    return hints;
  });
}

export function cueHints(cues: readonly Cue[], facts: BookFacts): readonly RuleHint[] {
  return cues.flatMap((cue) => {
    const hints: RuleHint[] = [];
    if (cue.effects.length === 0) hints.push({ ruleId: cue.id, text: "It does nothing yet: choose what happens." });
    for (const problem of effectProblems([...cue.effects, ...cue.offEffects], facts))
      hints.push({ ruleId: cue.id, text: `Worth a look: ${problem}.` });
    return hints;
  });
}
