import { recorded } from "../../chance/round";
import { byNearness, drawTicket, Drum, guessesOf, listOf, type Ticket } from "../../chance/scheme";
import type { Kept, StepContext } from "../../module/module";
import type { Role, Viewer } from "../../signals/names";
import { type At, no, type Outcome, still } from "./outcome";
import { type RaffleDurable, type RaffleSettings, type RaffleWinner, keyOf, type Round } from "./settings";
import { targetOf } from "./target";
import { winnerTold } from "./words";

/**
 * A win as a fact: kept when it was claimed, or drawn where nobody has to claim; kept again when it was passed over after that. It
 * belongs to the moment at which it was drawn, and so to the show of that moment.
 */
export function winKept(round: Round, winner: RaffleWinner, standing: boolean, atMs: number): Kept[] {
  // Of a round that was opened before, all wins are kept when it is closed.
  if (round.record === null) return [];
  const drawnMs = winner.untilMs === 0 ? atMs : winner.untilMs - round.settings.claimMs;
  const { id, name, prize, index } = winner;
  const body = { id: `${round.id}.${index}`, round: round.id, title: round.settings.title, name, prize, standing };
  return [{ kind: "win", viewer: { id, name }, fromMs: drawnMs, toMs: drawnMs, body }];
}

/** A winner who writes in time has claimed it. */
export function claim(at: At, round: Round, viewer: Viewer, atMs: number): Outcome | null {
  const place = round.winners.findIndex((w) => w.state === "waits" && w.id === viewer.id && atMs <= w.untilMs);
  if (place < 0) return null;
  const winners = round.winners.map((w, i): RaffleWinner => (i === place ? { ...w, state: "claimed" } : w));
  return {
    ...still(at, [{ did: "raffle/claimed", count: 1, subject: viewer.name, facts: { prize: round.winners[place]?.prize ?? "" } }]),
    durable: { ...at.durable, round: { ...round, winners } },
    kept: winners.slice(place, place + 1).flatMap((w) => winKept(round, w, true, atMs)),
    orders: [{ do: "emit", what: "raffle/claimed", viewer, amount: place + 1, text: round.winners[place]?.prize ?? "" }],
  };
}

/** The next winner: by the next ticket out of the drum, or the next nearest to the number that was drawn. */
export function drawn(at: At, round: Round, atMs: number, ctx: StepContext): Outcome {
  if (round.phase === "open") return no(at, "raffle/not-locked");
  if (round.phase === "shaking") return no(at, "raffle/shaking");
  if (round.phase === "cancelled") return no(at, "raffle/none");
  const standing = round.winners.filter((w) => w.state !== "passed").length;
  if (standing >= round.settings.winners + round.more) return no(at, "raffle/all-drawn");
  const secret = ctx.vault.open(round.id, round.sealed);
  if (secret === null) return no(at, "raffle/secret-lost");
  const index = round.winners.length;
  const next = round.settings.by === "number" ? nearest(at, round, secret) : fromDrum(at, round, secret, index);
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
    durable: {
      ...at.durable,
      round: {
        ...recorded(round, { kind: "draw", atMs, index }),
        target: next.target ?? round.target,
        winners: [...round.winners, winner],
      },
    },
    kept: winner.state === "drawn" ? winKept(round, winner, true, atMs) : [],
    orders: [
      { do: "say", text: winnerTold(round.settings, winner) },
      {
        do: "emit",
        what: "raffle/drawn",
        viewer,
        amount: index + 1,
        text: winner.name,
        effects: round.settings.effects,
        touches: { joy: true },
      },
    ],
  };
}
type Next = Readonly<{ id: string; ticket: number; attempts: number; weight: number; total: number; target?: Round["target"] }>;
/** The closed list is looked at with each draw, and made once. */
const lists = new WeakMap<RaffleDurable["changes"], readonly Ticket[]>();
function listIn(changes: RaffleDurable["changes"]): readonly Ticket[] {
  let list = lists.get(changes);
  if (list === undefined) lists.set(changes, (list = listOf(changes.toArray())));
  return list;
}
function fromDrum({ durable }: At, round: Round, secret: Uint8Array, index: number): Next | null {
  const list = listIn(durable.changes);
  const drum = new Drum(list.map((t) => t.weight));
  // Without replacement: whoever was drawn before has left, passed over or not.
  const gone = new Set(round.winners.map((w) => w.id));
  if (gone.size > 0) list.forEach((t, place) => gone.has(t.id) && drum.takeOut(place));
  const { total } = drum;
  const ticket = drawTicket({ secret, round: round.id, list: round.listHash, shake: round.shakeHash }, index, total);
  if (!ticket.ok) return null;
  const place = drum.at(ticket.value.ticket);
  return { id: list[place]?.id ?? "", ...ticket.value, weight: drum.weight(place), total };
}
/** The number is drawn once; then whoever is nearest, the earlier one where two are as near. */
function nearest({ durable }: At, round: Round, secret: Uint8Array): Next | null {
  const target = round.target ?? targetOf(round, secret);
  const { from, to } = round.settings.number;
  const best = byNearness(guessesOf(durable.changes.toArray()), target.number)[round.winners.length];
  if (best === undefined) return null;
  return { id: best.id, ticket: target.number - from, attempts: target.attempts, weight: 1, total: to - from + 1, target };
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
