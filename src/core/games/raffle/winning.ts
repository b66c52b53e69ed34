import { drawTicket, Drum, listOf } from "../../chance/scheme";
import type { StepContext } from "../../module/module";
import type { Role, Viewer } from "../../signals/signal";
import { type At, no, type Outcome, still } from "./outcome";
import { type RaffleSettings, type RaffleWinner, type Entrant, keyOf, type Round } from "./settings";
import { winnerTold } from "./words";

/** A winner who writes in time has claimed it. */
export function claim(at: At, round: Round, viewer: Viewer, atMs: number): Outcome | null {
  const place = round.winners.findIndex((w) => w.state === "waits" && w.id === viewer.id && atMs <= w.untilMs);
  if (place < 0) return null;
  const winners = round.winners.map((w, i): RaffleWinner => (i === place ? { ...w, state: "claimed" } : w));
  return {
    ...still(at, [{ did: "raffle/claimed", count: 1, subject: viewer.name, facts: { prize: round.winners[place]?.prize ?? "" } }]),
    durable: { ...at.durable, round: { ...round, winners } },
    orders: [{ do: "emit", what: "raffle/claimed", viewer, amount: place + 1, text: round.winners[place]?.prize ?? "" }],
  };
}

/** The next winner: by the next ticket out of the drum, or the next nearest to the number that was drawn. */
export function drawn(at: At, round: Round, atMs: number, ctx: StepContext): Outcome {
  if (round.phase === "open") return no(at, "raffle/not-locked");
  if (round.phase === "shaking") return no(at, "raffle/shaking");
  if (round.phase === "cancelled") return no(at, "raffle/none");
  const standing = round.winners.filter((w) => w.state !== "passed").length;
  if (standing >= round.settings.winners) return no(at, "raffle/all-drawn");
  const secret = ctx.vault.open(round.id, round.sealed);
  if (secret === null) return no(at, "raffle/secret-lost");
  const key = { secret, round: round.id, list: round.listHash, shake: round.shakeHash };
  const index = round.winners.length;
  const next = round.settings.by === "number" ? nearest(at, round, key) : fromDrum(at, round, key, index);
  if (next === null) return no(at, "raffle/nobody");
  const e = at.durable.entrants.get(keyOf(next.id));
  const prize = prizeAt(round.settings, standing);
  const { claimMs } = round.settings;
  const winner: RaffleWinner = {
    index,
    id: next.id,
    name: e?.name ?? next.id,
    prize,
    guess: e?.guess ?? null,
    ticket: next.ticket,
    attempts: next.attempts,
    weight: next.weight,
    total: next.total,
    state: claimMs > 0 ? "waits" : "drawn",
    untilMs: claimMs > 0 ? atMs + claimMs : 0,
  };
  const viewer: Viewer = { id: winner.id, name: winner.name, roles: [...(e?.roles ?? [])] as Role[] };
  return {
    ...still(at, [{ did: "raffle/drawn", count: index + 1, subject: winner.name, facts: { prize } }]),
    durable: { ...at.durable, round: { ...round, target: next.target ?? round.target, winners: [...round.winners, winner] } },
    orders: [
      { do: "say", text: winnerTold(round.settings, winner) },
      { do: "emit", what: "raffle/drawn", viewer, amount: index + 1, text: winner.name },
    ],
  };
}
type Key = Parameters<typeof drawTicket>[0];
type Next = Readonly<{ id: string; ticket: number; attempts: number; weight: number; total: number; target?: Round["target"] }>;
function fromDrum({ durable }: At, round: Round, key: Key, index: number): Next | null {
  const list = listOf(durable.changes.toArray());
  const drum = new Drum(list.map((t) => t.weight));
  const placeOf = new Map(list.map((t, i) => [t.id, i]));
  // Without replacement: whoever was drawn before has left, passed over or not.
  for (const w of round.winners) drum.takeOut(placeOf.get(w.id) ?? 0);
  const { total } = drum;
  const ticket = drawTicket(key, index, total);
  if (!ticket.ok) return null;
  const place = drum.at(ticket.value.ticket);
  return { id: list[place]?.id ?? "", ...ticket.value, weight: drum.weight(place), total };
}
/** The number is drawn once; then whoever is nearest, the earlier one where two are as near. */
function nearest({ durable }: At, round: Round, key: Key): Next | null {
  const { from, to } = round.settings.number;
  const span = to - from + 1;
  const ticket = round.target === null ? drawTicket(key, 0, span) : null;
  if (ticket?.ok === false) return null;
  const target = round.target ?? { number: from + (ticket?.value.ticket ?? 0), attempts: ticket?.value.attempts ?? 0 };
  const gone = new Set(round.winners.map((w) => w.id));
  let best: Entrant | null = null;
  for (const e of durable.entrants.values()) {
    if (gone.has(e.id) || e.guess === null) continue;
    const away = Math.abs(e.guess - target.number);
    const bestAway = best === null ? Infinity : Math.abs((best.guess ?? 0) - target.number);
    if (away < bestAway || (away === bestAway && e.at < (best?.at ?? Infinity))) best = e;
  }
  return best === null ? null : { id: best.id, ticket: target.number - from, attempts: target.attempts, weight: 1, total: span, target };
}
/** Prizes go out in their order, each as often as there are. */
function prizeAt({ prizes }: RaffleSettings, at: number): string {
  let left = at;
  for (const { name, count } of prizes) {
    if (left < count) return name;
    left -= count;
  }
  return "";
}
