import { ownChance } from "../../chance/own-chance";
import type { Viewer } from "../../signals/signal";
import { type At, no, type Outcome, still } from "./outcome";
import { type Entrant, keyOf, type RaffleDurable, type Round } from "./settings";
import { timesOf } from "./round";

/** Winners that are still to be drawn. */
export const winnersLeft = (round: Round): number =>
  round.settings.winners + round.more - round.winners.filter((w) => w.state !== "passed").length;

/** The chance of one who is in, in words: “12.50 %”, “about 3.1 %”. Null where numbers are named: there it hangs on the number. */
export function chanceInWords({ entrants }: RaffleDurable, round: Round, { id }: Pick<Viewer, "id">): string | null {
  if (round.settings.by === "number") return null;
  const gone = new Set(round.winners.map((w) => w.id));
  const weigh = (e: Entrant): number => (round.phase === "open" ? e.tickets * timesOf(round.settings, e.roles) : e.tickets);
  const own = entrants.get(keyOf(id));
  if (own === undefined || gone.has(id)) return null;
  const others: number[] = [];
  for (const e of entrants.values()) if (e.id !== id && !gone.has(e.id)) others.push(weigh(e));
  const { share, about } = ownChance(weigh(own), others, winnersLeft(round));
  return about ? `about ${(share * 100).toFixed(1)} %` : `${(share * 100).toFixed(2)} %`;
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
