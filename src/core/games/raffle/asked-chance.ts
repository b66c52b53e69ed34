import { ownChance } from "../../chance/own-chance";
import type { Viewer } from "../../signals/names";
import { type At, no, type Outcome, still } from "./outcome";
import { type Entrant, keyOf, type RaffleDurable, type Round } from "./settings";
import { timesOf } from "./round";

/** Winners that are still to be drawn. */
export const winnersLeft = (round: Round): number =>
  round.settings.winners + round.more - round.winners.filter((w) => w.state !== "passed").length;

type Known = Readonly<{ round: Round; kinds: ReadonlyMap<number, number>; words: Map<number, string> }>;
/** Asked again and again while nobody comes in: how many hold how many is counted once, and each answer is worked out once. */
const known = new WeakMap<RaffleDurable["entrants"], Known>();
function knownOf({ entrants }: RaffleDurable, round: Round, weigh: (e: Entrant) => number): Known {
  const before = known.get(entrants);
  if (before?.round === round) return before;
  const gone = new Set(round.winners.map((w) => w.id));
  const kinds = new Map<number, number>();
  for (const e of entrants.values()) if (!gone.has(e.id)) kinds.set(weigh(e), (kinds.get(weigh(e)) ?? 0) + 1);
  const fresh = { round, kinds, words: new Map<number, string>() };
  known.set(entrants, fresh);
  return fresh;
}

/** The chance of one who is in, in words: “12.50 %”, “about 3.1 %”. Null where numbers are named: there it hangs on the number. */
export function chanceInWords(durable: RaffleDurable, round: Round, { id }: Pick<Viewer, "id">): string | null {
  if (round.settings.by === "number") return null;
  const weigh = (e: Entrant): number => (round.phase === "open" ? e.tickets * timesOf(round.settings, e.roles) : e.tickets);
  const own = durable.entrants.get(keyOf(id));
  if (own === undefined || round.winners.some((w) => w.id === id)) return null;
  const { kinds, words } = knownOf(durable, round, weigh);
  const mine = weigh(own);
  const before = words.get(mine);
  if (before !== undefined) return before;
  const others = new Map(kinds);
  others.set(mine, (others.get(mine) ?? 1) - 1);
  const { share, about } = ownChance(mine, others, winnersLeft(round));
  const said = about ? `about ${(share * 100).toFixed(1)} %` : `${(share * 100).toFixed(2)} %`;
  words.set(mine, said);
  return said;
}

export function askedChance(at: At, viewer: Viewer): Outcome {
  const { durable, settings } = at;
  const { round } = durable;
  if (round === null) return no(at, "raffle/not-open");
  const own = durable.entrants.get(keyOf(viewer.id));
  if (own === undefined) return no(at, "raffle/not-in-yet", { word: settings.word });
  const chance = chanceInWords(durable, round, viewer);
  if (chance === null) return no(at, "raffle/no-chance-said", { guess: own.guess ?? 0 });
  return still(at, [{ did: "raffle/chance", count: 1, subject: viewer.name, facts: { chance, tickets: own.tickets } }]);
}
