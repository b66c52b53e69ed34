import { currencyDigits, moneyInWords } from "../../signals/money";
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

export const most = (kind: HitKind, s: BossSettings): readonly Part[] =>
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
      "Of the hit that defeats it, ",
      choice("carry", "What is carried over", s.carry, {
        nothing: "nothing is carried over",
        leftover: "what is left over is added to the next one’s health",
        whole: "the whole hit is added to the next one’s health",
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
export const bossRulesInWords = (s: BossSettings, home = "EUR"): readonly string[] =>
  bossSentences(s, home)
    .filter((l) => !silent(s, l.id) && l.id !== "limits")
    .map(plain);
