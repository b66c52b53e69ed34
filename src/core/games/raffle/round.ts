import { bytesToHex } from "@noble/hashes/utils.js";
import type { Proof } from "../../chance/proof";
import { promiseRound, proofOf } from "../../chance/round";
import { commitmentOf, listHash, listOf, shakeHash } from "../../chance/scheme";
import type { Kept, StepContext } from "../../module/module";
import type { Order } from "../../module/order";
import { done } from "../../points/ledger";
import type { MessageSignal, Role, Signal } from "../../signals/signal";
import { settingsAnnounced, withEntrant } from "./entering";
import { type At, booked, no, type Outcome, still } from "./outcome";
import { type RaffleSettings, freshRaffle, type Round } from "./settings";
import { closedTold, lockedTold, openedTold } from "./words";

export const mostResults = 20;

/** The first messages after the lock, one of each of several viewers: what nobody knew when the secret was made. */
export function shaken(at: At, round: Round, signal: MessageSignal): Outcome {
  if (round.shake.some((s) => s.id === signal.viewer.id)) return still(at);
  const shake = [...round.shake, { id: signal.viewer.id, text: signal.text.slice(0, 500) }];
  const next: Round = { ...round, shake };
  const outcome = still(at, [{ did: "raffle/shook", count: shake.length, subject: signal.viewer.name }]);
  return shake.length >= round.settings.shakers ? stopShaking(at, next, outcome) : { ...outcome, durable: { ...at.durable, round: next } };
}
export const stopShaking = (at: At, round: Round, outcome: Outcome): Outcome => ({
  ...outcome,
  durable: { ...at.durable, round: { ...round, phase: "locked", shakeHash: shakeHash(round.shake) } },
});

export function opened(at: At, game: string, signal: Signal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  const { atMs, seq } = signal;
  const n = durable.n + 1;
  const { round: id, ...promise } = promiseRound(ctx.vault, settingsAnnounced(settings), { game, n, atMs, rehearsing: ctx.rehearsing });
  const round: Round = {
    n,
    id,
    phase: "open",
    returning: false,
    rehearsal: ctx.rehearsing,
    settings,
    ...promise,
    openedMs: atMs,
    locksMs: settings.locks === "time" ? atMs + settings.openMs : null,
    lockedMs: null,
    lockedBy: null,
    since: { seq, atMs },
    people: 0,
    tickets: 0,
    held: 0,
    listHash: "",
    shakenMs: 0,
    shake: [],
    shakeHash: "",
    target: null,
    winners: [],
  };
  const fresh = freshRaffle();
  return {
    ...still(at, [{ did: "raffle/opened", count: 1, subject: settings.title }]),
    durable: { ...durable, n, round, entrants: fresh.entrants, changes: fresh.changes },
    orders: [
      { do: "say", text: openedTold(settings, promise.commitment, ctx.pointsName) },
      { do: "emit", what: "raffle/opened", viewer: null, amount: n, text: settings.title },
    ],
  };
}

/** Tickets times what roles bring, as the roles are now, become part of the chain; then the list is what it is. */
export function locked(at: At, open: Round, by: "time" | "operator", atMs: number): Outcome {
  let { entrants, changes } = at.durable;
  let round = open;
  const kept: Kept[] = [];
  for (const e of at.durable.entrants.values()) {
    const times = timesOf(open.settings, e.roles as readonly Role[]);
    if (times === 1 || open.settings.by === "number") continue;
    const next = withEntrant(round, { ...at.durable, entrants, changes }, e.id, { ...e, tickets: e.tickets * times }, atMs);
    ({ round, entrants, changes } = next);
    kept.push(next.kept);
  }
  const list = listOf(changes.toArray());
  const { shake, shakeMs, title } = open.settings;
  const shut: Round = {
    ...round,
    phase: shake && list.length > 0 ? "shaking" : "locked",
    lockedMs: atMs,
    lockedBy: by,
    listHash: listHash(list),
    shakenMs: shake ? atMs + shakeMs : atMs,
  };
  const orders: Order[] = [
    { do: "say", text: lockedTold(shut) },
    { do: "emit", what: "raffle/locked", viewer: null, amount: round.people, text: title },
  ];
  return {
    ...still(at, [{ did: "raffle/locked", count: round.people, facts: { tickets: round.tickets } }]),
    durable: { ...at.durable, round: shut, entrants, changes },
    kept,
    orders,
  };
}
const timesOf = ({ times }: RaffleSettings, roles: readonly Role[]): number =>
  times.reduce((most, t) => (roles.includes(t.role) ? Math.max(most, t.times) : most), 1);

/** What was held is spent, the secret is told, and the round is kept with its proof. */
export function closed(at: At, round: Round, atMs: number, ctx: StepContext): Outcome {
  if (round.phase === "cancelled") return no(at, "raffle/none");
  if (round.phase !== "locked") return no(at, round.phase === "open" ? "raffle/not-locked" : "raffle/shaking");
  const { durable } = at;
  const winners = round.winners.filter((w) => w.state !== "passed");
  const secret = ctx.vault.open(round.id, round.sealed);
  const entries =
    round.held === 0 ? [] : [done({ key: `${round.id}.close`, atMs, about: `tickets: ${round.settings.title}`, by: "" }, round.held)];
  const names = winners.map((w) => w.name);
  const result = {
    n: round.n,
    round: round.id,
    title: round.settings.title,
    atMs,
    people: round.people,
    tickets: round.tickets,
    winners: names,
  };
  const fresh = freshRaffle();
  return {
    ...still(at, [{ did: "raffle/closed", count: names.length, subject: round.settings.title }]),
    durable: {
      ...durable,
      round: null,
      entrants: fresh.entrants,
      changes: fresh.changes,
      closedMs: atMs,
      won: [
        ...durable.won.filter(([id]) => !winners.some((w) => w.id === id)),
        ...winners.map((w): [string, number] => [w.id, durable.shows]),
      ].slice(-1_000),
      results: [result, ...durable.results].slice(0, mostResults),
    },
    kept: [
      {
        kind: "round",
        viewer: null,
        fromMs: round.openedMs,
        toMs: atMs,
        body: {
          round: round.id,
          n: round.n,
          label: names.length === 0 ? "Nobody was drawn" : names.join(", "),
          title: round.settings.title,
          people: round.people,
          tickets: round.tickets,
          winners: round.winners,
          proof: secret === null || round.settings.by === "number" ? null : proofIn(at, round, bytesToHex(secret)),
          ...(secret !== null && round.settings.by === "number" ? { secret: bytesToHex(secret), commitment: commitmentOf(secret) } : {}),
        },
      },
    ],
    orders: [
      ...(names.length === 0 ? [] : [{ do: "say" as const, text: closedTold(round) }]),
      { do: "emit", what: "raffle/closed", viewer: null, amount: names.length, text: round.settings.title },
    ],
    ...(entries.length === 0 ? {} : { booking: booked(entries, []) }),
  };
}
const proofIn = ({ durable }: At, round: Round, secret: string): Proof =>
  proofOf({
    promise: { ...round, round: round.id },
    settings: settingsAnnounced(round.settings),
    secret,
    lock: { how: round.lockedBy ?? "operator", atMs: round.lockedMs ?? 0 },
    changes: durable.changes.toArray(),
    shake: round.settings.shake && round.shakeHash !== "" ? { messages: round.shake, hash: round.shakeHash } : null,
    draws: round.winners.map(({ index, id, weight, total, ticket, attempts }) => ({ index, id, weight, total, ticket, attempts })),
  });
