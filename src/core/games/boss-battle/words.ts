import type { Note } from "../../kernel/step";
import { currencyDigits, moneyInWords } from "../../signals/money";
import { earned } from "../../signals/rate";
import { type Blank, count, type Part, plain, type Sentence } from "../../words/sentence";
import { type BossSettings, type HitKind, hitKinds } from "./settings";

const trillion = 1_000_000_000_000;
const whole = (path: string, label: string, value: number, min = 0, max = trillion): Blank => ({
  path,
  label,
  text: count(value),
  field: { kind: "whole", min, max },
});
const choice = (path: string, label: string, value: string, options: Readonly<Record<string, string>>): Blank => ({
  path,
  label,
  text: options[value] ?? value,
  field: { kind: "choice", options: Object.entries(options).map(([v, words]) => ({ value: v, words })) },
});

const most = (kind: HitKind, s: BossSettings): readonly Part[] =>
  s.hits[kind].most > 0 ? [", at most ", whole(`hits.${kind}.most`, `Most damage of one ${kind}`, s.hits[kind].most)] : [];

/** The rules as sentences with blanks; `home` is the currency in which tips count. */
export function bossSentences(s: BossSettings, home = "EUR"): readonly Sentence[] {
  const say = (id: string, ...parts: Part[]): Sentence => ({ id, parts });
  const give = (kind: HitKind, label: string, max = 1_000_000_000): Blank =>
    whole(`hits.${kind}.rate.give`, label, s.hits[kind].rate.give, 0, max);
  const per = (kind: HitKind, label: string): Blank => whole(`hits.${kind}.rate.per`, label, s.hits[kind].rate.per, 1, 1_000_000_000);
  const each = (kind: HitKind, thing: string): readonly Part[] =>
    s.hits[kind].rate.per === 1 ? [` for every ${thing}`] : [" for every ", per(kind, `${thing} for that damage`), ` ${thing}s`];
  const unit = 10 ** currencyDigits(home);
  const { growth } = s;
  const lines: Sentence[] = [
    say("health", "The first boss has ", whole("health", "Health", s.health, 1), " health."),
    say("follow", "A follow does ", give("follow", "Damage of a follow"), " damage", ...most("follow", s), "."),
    say(
      "membership",
      "A membership does ",
      give("membership", "Damage of a membership"),
      " damage ",
      choice("hits.membership.by", "How a membership counts", s.hits.membership.by, {
        each: "however long it lasts",
        months: "for every month of it",
      }),
      ...most("membership", s),
      ".",
    ),
    say(
      "gift",
      "Memberships given away do ",
      give("gift", "Damage of a gift"),
      " damage",
      ...each("gift", "one given"),
      ...most("gift", s),
      ".",
    ),
    say(
      "tip",
      "A tip does ",
      give("tip", "Damage of a tip"),
      " damage for every ",
      {
        path: "hits.tip.rate.per",
        label: "Amount of a tip for that damage",
        text: moneyInWords(s.hits.tip.rate.per, home),
        field: { kind: "money", min: 1, max: 1_000_000 * unit, currency: home },
      },
      ...most("tip", s),
      ". Small tips add up until the show ends.",
    ),
    say(
      "reaction",
      "Paid reactions do ",
      give("reaction", "Damage of paid reactions"),
      " damage for every ",
      per("reaction", "Value of reactions for that damage"),
      " they are worth",
      ...most("reaction", s),
      ".",
    ),
    say("raid", "A raid does ", give("raid", "Damage of a raid"), " damage", ...each("raid", "viewer"), ...most("raid", s), "."),
    say("host", "Being hosted does ", give("host", "Damage of hosting"), " damage", ...each("host", "viewer"), ...most("host", s), "."),
    say("message", "A chat message does ", give("message", "Damage of a chat message"), " damage."),
    say(
      "champion",
      "What the reigning champion gives ",
      choice("champion.own", "The champion’s own", s.champion.own, {
        heal: "heals the boss",
        nothing: "does nothing",
        hurt: "hurts it like anyone’s",
      }),
      ...(s.champion.own === "heal"
        ? [", ", choice("champion.healing", "How far it heals", s.champion.healing, { full: "up to full health", endless: "without end" })]
        : []),
      ".",
    ),
    say(
      "next",
      "When it falls, ",
      choice("next", "Who comes next", s.next, {
        striker: "whoever struck last becomes the boss",
        roster: "the next of the roster comes",
        same: "the same boss comes back",
      }),
      ".",
    ),
    say(
      "growth",
      "The next one has ",
      choice("growth.how", "Health of the next", s.growth.how, {
        none: "the same health",
        step: "more health, by a step",
        percent: "more health, by a share",
        matched: "health to match the room",
      }),
      ...growthParts(s),
      ".",
    ),
    say(
      "carry",
      "Of the blow that fells it, ",
      choice("carry", "What is carried over", s.carry, {
        nothing: "nothing is carried over",
        leftover: "what is left over is added to the next one’s health",
        whole: "the whole blow is added to the next one’s health",
        strikes: "what is left over strikes the next one",
      }),
      ".",
    ),
  ];
  if (growth.how === "matched")
    lines.push(
      say(
        "limits",
        "That is never less than ",
        whole("growth.least", "Least health", growth.least, 1),
        " and never more than ",
        whole("growth.most", "Most health", growth.most, 1),
        "; with no damage yet it is the first boss’s.",
      ),
    );
  return lines;
}

function growthParts({ growth: g }: BossSettings): readonly Part[] {
  const ceiling: readonly Part[] =
    g.ceiling > 0
      ? [", up to ", whole("growth.ceiling", "Ceiling", g.ceiling)]
      : [", ", { ...whole("growth.ceiling", "Ceiling (0 for none)", 0), text: "without a ceiling" }];
  switch (g.how) {
    case "none":
      return [];
    case "step":
      return [": ", whole("growth.step", "Step", g.step), " more", ...ceiling];
    case "percent":
      return [": ", whole("growth.percent", "Percent", g.percent, 0, 1_000), " % more", ...ceiling];
    case "matched":
      return [
        ": what at the pace of the last ",
        whole("growth.lookBackMin", "Minutes looked back", g.lookBackMin, 1, 60),
        " min would last ",
        whole("growth.lastMin", "Minutes it should last", g.lastMin, 1, 240),
        " min",
      ];
  }
}

const silent = (s: BossSettings, id: string): boolean =>
  (hitKinds as readonly string[]).includes(id) && s.hits[id as HitKind].rate.give === 0;
/** The rules as viewers are told them: without what does nothing. */
export const bossRulesInWords = (s: BossSettings, home = "EUR"): string =>
  bossSentences(s, home)
    .filter((l) => !silent(s, l.id) && l.id !== "limits")
    .map(plain)
    .join(" ");

/** An evening of a middling channel, by the hour: what the warnings are reckoned with. */
const usualHour = {
  follow: 12,
  membership: 6,
  gift: 4,
  tips: 8,
  tip: 5,
  reactions: 10,
  reaction: 100,
  raids: 0.5,
  raid: 40,
  message: 300,
} as const;
export function damagePerHour(s: BossSettings, home = "EUR"): number {
  const of = (kind: HitKind, amount: number): number => {
    const { rate, most: limit } = s.hits[kind];
    const { value } = earned(rate, amount);
    return limit > 0 ? Math.min(limit, value) : value;
  };
  const u = usualHour;
  return (
    u.follow * of("follow", 1) +
    u.membership * of("membership", 1) +
    u.gift * of("gift", 1) +
    u.tips * of("tip", u.tip * 10 ** currencyDigits(home)) +
    u.reactions * of("reaction", u.reaction) +
    u.raids * of("raid", u.raid) +
    u.message * of("message", 1)
  );
}

export type Hint = Readonly<{ id: string; text: string; path?: string }>;
/** Settings that would spoil the game, told before the show. */
export function bossHints(s: BossSettings, home = "EUR"): readonly Hint[] {
  const hints: Hint[] = [];
  const five = 5 * 10 ** currencyDigits(home);
  const single: readonly (readonly [string, HitKind, number])[] = [
    ["One follow", "follow", 1],
    ["One membership", "membership", 1],
    ["One gifted membership", "gift", 1],
    [`A tip of ${moneyInWords(five, home)}`, "tip", five],
    ["One chat message", "message", 1],
  ];
  const killer = single.find(([, kind, amount]) => {
    const { rate, most: limit } = s.hits[kind];
    const { value } = earned(rate, amount);
    return (limit > 0 ? Math.min(limit, value) : value) >= s.health;
  });
  if (killer !== undefined)
    hints.push({
      id: "one-blow",
      text: `${killer[0]} alone fells the boss: there is no fight. Give it more health, or the blow less damage.`,
      path: "health",
    });
  const hourly = damagePerHour(s, home);
  if (hourly === 0)
    hints.push({
      id: "nothing-hits",
      text: "Nothing hits the boss by itself. Only rules, cues and operators can.",
      path: "hits.follow.rate.give",
    });
  else {
    const hours = s.health / hourly;
    if (hours > 4)
      hints.push({
        id: "too-hard",
        text: `At the pace of a usual evening (12 follows, 6 memberships, 8 tips of ${moneyInWords(five, home)} an hour) it would stand for some ${count(Math.round(hours))} hours.`,
        path: "health",
      });
  }
  if (s.champion.own === "heal" && s.hits.message.rate.give > 0) {
    // A champion who chats twice a minute.
    const healed = 120 * s.hits.message.rate.give;
    const others = Math.max(1, hourly - healed);
    if (healed > others * 0.4)
      hints.push({
        id: "chat-heals",
        text: `A champion who writes twice a minute heals away ${Math.round((100 * healed) / others)} % of what all others strike: every message of theirs heals.`,
        path: "hits.message.rate.give",
      });
  }
  if (s.champion.own === "heal" && s.champion.healing === "endless" && s.next === "striker")
    hints.push({
      id: "endless",
      text: "Healing without end lets one generous champion grow out of everyone’s reach. “Up to full health” keeps it a fight.",
      path: "champion.healing",
    });
  if (s.growth.how === "percent" && s.growth.percent >= 50 && s.growth.ceiling === 0)
    hints.push({
      id: "runaway",
      text: `With ${s.growth.percent} % more each time and no ceiling, the tenth boss has ${count(Math.round(s.health * (1 + s.growth.percent / 100) ** 9))} health.`,
      path: "growth.percent",
    });
  if (s.next === "roster" && s.roster.length === 1)
    hints.push({ id: "one-roster", text: "The roster has one boss only, so the same one comes each time." });
  if (!s.looks.figure && !s.looks.band && !s.looks.numbers)
    hints.push({
      id: "no-health",
      text: "Nothing on the picture shows its health: figure, band and numbers are all off.",
      path: "looks.band",
    });
  return hints;
}

const kindWords: Readonly<Record<string, string>> = {
  follow: "a follow",
  membership: "a membership",
  gift: "a gift",
  tip: "a tip",
  reaction: "reactions",
  raid: "a raid",
  host: "hosting",
  message: "a message",
  operator: "the operator",
  rule: "a rule",
};
export const hitKindInWords = (kind: string): string => kindWords[kind] ?? kind;

export function bossNoteInWords(note: Note): string {
  const { refusal: why, facts = {}, subject } = note;
  if (why !== undefined) {
    switch (why.code) {
      case "boss/off":
        return "the boss battle is switched off";
      case "boss/no-damage":
        return why.facts["kind"] === "hand"
          ? "a blow of nothing does nothing"
          : `${hitKindInWords(String(why.facts["kind"]))} does no damage here`;
      case "boss/gift-counted":
        return "not counted again: the gift it came from was";
      case "boss/currency":
        return `the channel has no rate for ${String(why.facts["currency"])}, so it does no damage`;
      case "boss/not-yet":
        return "too little for damage yet; it is kept and added to the viewer’s next one";
      case "boss/champion-idle":
        return "the champion’s own does nothing";
      case "boss/full":
        return `${String(why.facts["boss"])} is at full health already`;
      case "boss/nothing-to-undo":
        return "there is no hit to undo: the last one led to a fall, or was undone already. Set it right with a hit or a heal";
      case "boss/not-the-last":
        return `another hit came after it; set it right by healing ${String(why.facts["boss"])}`;
      case "boss/already-on":
        return "it is running already";
      case "boss/already-off":
        return "it is switched off already";
      case "game/cannot":
        return "a boss battle has nothing of the kind";
      default:
        return why.code;
    }
  }
  const left = facts["health"] === undefined ? "" : `, ${count(Number(facts["health"]))} of ${count(Number(facts["max"] ?? 0))} left`;
  switch (note.did) {
    case "boss/hit":
      return `−${count(note.count)} to ${String(facts["boss"] ?? "the boss")} by ${subject ?? "someone"}${left}`;
    case "boss/healed":
      return `+${count(note.count)} to ${String(facts["boss"] ?? "the boss")} by ${subject ?? "someone"}${left}`;
    case "boss/fell":
      return `${subject ?? "the boss"} falls; ${String(facts["next"])} reigns with ${count(Number(facts["health"]))} health`;
    case "boss/leftover-dropped":
      return `${count(note.count)} damage was dropped: one signal fells at most ${count(Number(facts["falls"]))}`;
    case "boss/undone":
      return `the hit of ${count(note.count)} by ${subject ?? "someone"} was undone${left}`;
    case "boss/started-over":
      return `started over with ${String(facts["boss"])}`;
    case "boss/switched-on":
      return "the boss battle was switched on";
    case "boss/switched-off":
      return "the boss battle was switched off";
    case "boss/rules-told":
      return "the rules were told in chat";
    default:
      return "";
  }
}
