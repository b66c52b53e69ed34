import { blanksOf, say } from "../../words/blanks";
import { type Blank, type Part, plain, type Sentence } from "../../words/sentence";
import { type BossSettings, bossSettingsSchema, type HitKind, hitKinds } from "./settings";

const blanks = (s: BossSettings) => blanksOf(bossSettingsSchema, s);

export const most = (kind: HitKind, s: BossSettings): readonly Part[] =>
  s.hits[kind].most > 0 ? [", at most ", blanks(s).whole(`hits.${kind}.most`, `Most damage of one ${kind}`)] : [];

/** The rules as sentences with blanks; `home` is the currency in which tips count. */
export function bossSentences(s: BossSettings, home = "EUR"): readonly Sentence[] {
  const { whole, choice, money } = blanks(s);
  const give = (kind: HitKind, label: string): Blank => whole(`hits.${kind}.rate.give`, label);
  const per = (kind: HitKind, label: string): Blank => whole(`hits.${kind}.rate.per`, label);
  const each = (kind: HitKind, thing: string): readonly Part[] =>
    s.hits[kind].rate.per === 1 ? [` for every ${thing}`] : [" for every ", per(kind, `${thing} for that damage`), ` ${thing}s`];
  const { growth } = s;
  const lines: Sentence[] = [
    say("health", "The first boss has ", whole("health", "Health"), " health."),
    say("follow", "A follow does ", give("follow", "Damage of a follow"), " damage", ...most("follow", s), "."),
    say(
      "membership",
      "A membership does ",
      give("membership", "Damage of a membership"),
      " damage ",
      choice("hits.membership.by", "How a membership counts", {
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
      money("hits.tip.rate.per", "Amount of a tip for that damage", home),
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
      choice("champion.own", "The champion’s own", {
        heal: "heals the boss",
        nothing: "does nothing",
        hurt: "hurts it like anyone’s",
      }),
      ...(s.champion.own === "heal"
        ? [", ", choice("champion.healing", "How far it heals", { full: "up to full health", endless: "without end" })]
        : []),
      ".",
    ),
    say(
      "next",
      "When it falls, ",
      choice("next", "Who comes next", {
        striker: "whoever struck last becomes the boss",
        roster: "the next of the roster comes",
        same: "the same boss comes back",
      }),
      ".",
    ),
    say(
      "growth",
      "The next one has ",
      choice("growth.how", "Health of the next", {
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
      choice("carry", "What is carried over", {
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
        whole("growth.least", "Least health"),
        " and never more than ",
        whole("growth.most", "Most health"),
        "; with no damage yet it is the first boss’s.",
      ),
    );
  return lines;
}

function growthParts(s: BossSettings): readonly Part[] {
  const { whole } = blanks(s);
  const { growth: g } = s;
  const ceiling: readonly Part[] =
    g.ceiling > 0
      ? [", up to ", whole("growth.ceiling", "Ceiling")]
      : [", ", { ...whole("growth.ceiling", "Ceiling (0 for none)"), text: "without a ceiling" }];
  switch (g.how) {
    case "none":
      return [];
    case "step":
      return [": ", whole("growth.step", "Step"), " more", ...ceiling];
    case "percent":
      return [": ", whole("growth.percent", "Percent"), " % more", ...ceiling];
    case "matched":
      return [
        ": what at the pace of the last ",
        whole("growth.lookBackMin", "Minutes looked back"),
        " min would last ",
        whole("growth.lastMin", "Minutes it should last"),
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
