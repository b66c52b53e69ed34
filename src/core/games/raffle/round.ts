import { bytesToHex } from "@noble/hashes/utils.js";
import type { Proof } from "../../chance/proof";
import { promiseRound, proofOf, recorded } from "../../chance/round";
import { guessesOf, listHash, listOf, shakeHash } from "../../chance/scheme";
import { cut } from "../../kernel/text";
import type { Kept, StepContext } from "../../module/module";
import type { Order } from "../../module/order";
import { kept as keptPoints } from "../../points/ledger";
import type { MessageSignal, Signal } from "../../signals/signal";
import { announcedBefore, settingsAnnounced, withEntrant } from "./entering";
import { type At, booked, no, type Outcome, still } from "./outcome";
import { type Owed, type RaffleSettings, freshRaffle, keyOf, mostOwed, type Round } from "./settings";
import { targetOf } from "./target";
import { closedTold, lockedTold, openedTold } from "./words";

export const mostResults = 20;
/** Rounds that are cancelled within a day of each other are told as one row of tries. */
const inARowMs = 86_400_000;
/** Up to so many entries a proof is kept whole. */
export const wholeProofs = 2_000;

/** The first messages after the lock, one of each of several viewers: what nobody knew when the secret was made. */
export function shaken(at: At, round: Round, signal: MessageSignal): Outcome {
  if (round.shake.some((s) => s.id === signal.viewer.id) || signal.atMs > round.shakenMs) return still(at);
  const message = { id: signal.viewer.id, text: cut(signal.text, 500) };
  const shake = [...round.shake, message];
  const next: Round = { ...recorded(round, { kind: "shake", atMs: signal.atMs, ...message }), shake };
  const outcome = still(at, [{ did: "raffle/shook", count: shake.length, subject: signal.viewer.name }]);
  return shake.length >= round.settings.shakers
    ? stopShaking(at, next, outcome, signal.atMs)
    : { ...outcome, durable: { ...at.durable, round: next } };
}
export function stopShaking(at: At, shook: Round, outcome: Outcome, atMs: number): Outcome {
  const shake = shakeHash(shook.shake);
  const round: Round = { ...recorded(shook, { kind: "shaken", atMs, shake }), phase: "locked", shakeHash: shake };
  return { ...outcome, durable: { ...at.durable, round } };
}

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
    record: [],
    target: null,
    more: 0,
    winners: [],
    tries: 1 + (atMs - durable.givenUp.atMs < inARowMs ? durable.givenUp.count : 0),
    gaveUp: null,
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
    // As they were seen last, which may be after they came in.
    const roles = at.transient.chatted.get(keyOf(e.id))?.roles ?? e.roles;
    const times = timesOf(open.settings, roles);
    if (times === 1 || open.settings.by === "number") continue;
    const next = withEntrant(round, { ...at.durable, entrants, changes }, e.id, { ...e, roles, tickets: e.tickets * times }, atMs);
    ({ round, entrants, changes } = next);
    kept.push(next.kept);
  }
  const list = open.settings.by === "number" ? guessesOf(changes.toArray()) : listOf(changes.toArray());
  const { shake, shakeMs, title } = open.settings;
  const hash = listHash(list);
  const shut: Round = {
    ...recorded(round, { kind: "lock", atMs, by, list: hash }),
    phase: shake && list.length > 0 ? "shaking" : "locked",
    lockedMs: atMs,
    lockedBy: by,
    listHash: hash,
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
/** How often each ticket of somebody counts: by the highest that their roles bring. */
export const timesOf = ({ times }: RaffleSettings, roles: readonly string[]): number =>
  times.reduce((most, t) => (roles.includes(t.role) ? Math.max(most, t.times) : most), 1);

/** What was held is spent, the secret is told, and the round is kept with its proof. */
export function closed(at: At, round: Round, atMs: number, ctx: StepContext): Outcome {
  if (round.phase === "cancelled") return no(at, "raffle/none");
  if (round.phase !== "locked") return no(at, round.phase === "open" ? "raffle/not-locked" : "raffle/shaking");
  const { durable } = at;
  const winners = round.winners.filter((w) => w.state !== "passed");
  const secret = ctx.vault.open(round.id, round.sealed);
  const entries = round.held === 0 ? [] : [keptPoints({ key: `${round.id}.close`, atMs, about: round.settings.title, by: "" }, round.held)];
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
      givenUp: winners.length === 0 ? durable.givenUp : freshRaffle().givenUp,
      won: [
        ...durable.won.filter(([id]) => !winners.some((w) => w.id === id)),
        ...winners.map((w): [string, number, number] => [w.id, durable.shows, atMs]),
      ].slice(-1_000),
      owed: owedWith(durable.owed, round, atMs),
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
          tries: round.tries,
          winsKept: round.record !== null,
          ...proofPart(at, round, secret),
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
/** Prizes that are now to be handed over; those that were sent make room first, then the oldest. */
function owedWith(owed: readonly Owed[], round: Round, atMs: number): Owed[] {
  const won = round.winners
    .filter((w) => w.state !== "passed" && w.prize !== "")
    .map((w): Owed => ({
      id: `${round.id}.${w.index}`,
      round: round.id,
      title: round.settings.title,
      viewer: w.name,
      prize: w.prize,
      how: round.settings.prizes.find((p) => p.name === w.prize)?.how ?? "",
      atMs,
      state: w.state === "claimed" ? "claimed" : "promised",
    }));
  const all = [...won, ...owed];
  const open = all.filter((o) => o.state !== "sent").slice(0, mostOwed);
  const sent = all.filter((o) => o.state === "sent").slice(0, mostOwed - open.length);
  return [...open, ...sent].sort((a, b) => b.atMs - a.atMs || (a.id < b.id ? -1 : 1));
}
/** Of a large round the entries stand in their rows already: its proof is put together from them when somebody asks. */
function proofPart(at: At, round: Round, secret: Uint8Array | null) {
  if (secret === null) return { proof: null };
  const proof = proofIn(at, round, secret);
  return at.durable.changes.size <= wholeProofs ? { proof } : { proof: { ...proof, changes: [], list: [] }, entriesSince: round.since.seq };
}
function proofIn({ durable }: At, round: Round, secret: Uint8Array): Proof {
  const { settings, shakeHash: shook } = round;
  const target = settings.by === "number" ? (round.target ?? targetOf(round, secret)) : null;
  return proofOf({
    promise: { ...round, round: round.id },
    openedMs: round.openedMs,
    settings: round.record === null ? announcedBefore(settings) : settingsAnnounced(settings),
    record: round.record,
    secret: bytesToHex(secret),
    lock: { how: round.lockedBy ?? "operator", atMs: round.lockedMs ?? 0 },
    changes: durable.changes.toArray(),
    shake: settings.shake && shook !== "" ? { messages: round.shake, hash: shook } : null,
    ...(target === null ? {} : { number: { ...settings.number, target: target.number, attempts: target.attempts } }),
    draws: round.winners.map(({ index, id, weight, total, ticket, attempts }) => ({ index, id, weight, total, ticket, attempts })),
  });
}
