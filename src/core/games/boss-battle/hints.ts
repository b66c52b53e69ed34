import type { Hint } from "../../module/game";
import { currencyDigits, moneyInWords } from "../../signals/money-words";
import { earned } from "../../signals/rate";
import { count, counted } from "../../words/sentence";
import type { BossSettings, HitKind } from "./settings";

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
      text: `${killer[0]} alone defeats the boss: there is no fight. Give it more health, or the hit less damage.`,
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
        text: `At the pace of a usual evening (12 follows, 6 memberships, 8 tips of ${moneyInWords(five, home)} an hour) it would stand for some ${counted(Math.round(hours), "hour")}.`,
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
