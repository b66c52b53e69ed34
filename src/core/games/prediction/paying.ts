import type { StepContext } from "../../module/module";
import type { Order } from "../../module/order";
import { type Entry, kept, refunded, unkept, unwon, won } from "../../points/ledger";
import { settle, type Settled } from "../../points/payout";
import { type At, booked, type Outcome, still } from "./outcome";
import type { Round, Stake, Stakes } from "./settings";

/**
 * So many backers are gone through in one part: others are served between two parts. Each of them is told, and the
 * engine carries no more than this out in one turn.
 */
export const paidAtOnce = 250;

const ordered = new WeakMap<Stakes, readonly Stake[]>();
/** Backers in the order in which they came. */
export function inOrder(backers: Stakes): readonly Stake[] {
  let list = ordered.get(backers);
  if (list === undefined) ordered.set(backers, (list = [...backers.values()].sort((a, b) => a.order - b.order)));
  return list;
}

type Paid = Settled & Readonly<{ amounts: ReadonlyMap<string, number> }>;
const settled = new WeakMap<Stakes, Readonly<{ result: number; feeBp: number; paid: Paid }>>();
/** Who gets what, from the stakes and the result alone: worked out once, and again after a restart to the very same. */
export function settledFor(round: Round, backers: Stakes): Paid {
  const result = round.result ?? -1;
  const known = settled.get(backers);
  if (known?.result === result && known.feeBp === round.feeBp) return known.paid;
  const all = inOrder(backers);
  const done = settle(
    all.filter((s) => s.outcome === result),
    all.filter((s) => s.outcome !== result),
    round.feeBp,
  );
  const paid = { ...done, amounts: new Map(done.payouts.map((p) => [p.id, p.amount])) };
  settled.set(backers, { result, feeBp: round.feeBp, paid });
  return paid;
}

const head = (round: Round, key: string, atMs: number) => ({ key: `${round.id}.${key}`, atMs, about: round.title, by: "" });

/** The next part of what is paid, taken back, or given back; the last one ends it. Whatever fails in between, each is gone through once. */
export function nextPart(at: At, round: Round, atMs: number, ctx: StepContext, end: (at: At, round: Round) => Outcome): Outcome {
  const { durable } = at;
  const all = inOrder(durable.backers);
  const part = all.slice(round.through, round.through + paidAtOnce);
  const through = round.through + part.length;
  const work = round.phase === "paying" ? pay : round.phase === "reversing" ? reverse : giveBack;
  const { entries, orders = [], names } = work(round, part, durable.backers, atMs, ctx);
  const next: Round = { ...round, through };
  const moved: At = { ...at, durable: { ...durable, round: next } };
  const last = through >= all.length;
  const fee = last ? feeOf(round, durable.backers, atMs) : [];
  const outcome = last ? end(moved, next) : still(moved);
  const all2 = [...entries, ...fee];
  return {
    ...outcome,
    orders: [...orders, ...(outcome.orders ?? [])],
    ...(all2.length === 0 ? {} : { booking: booked(all2, names) }),
  };
}

type Part = Readonly<{ entries: readonly Entry[]; orders?: readonly Order[]; names: readonly Readonly<{ id: string; name: string }>[] }>;

function pay(round: Round, part: readonly Stake[], backers: Stakes, atMs: number): Part {
  const { amounts, returned } = settledFor(round, backers);
  const to = part.flatMap((s) => {
    const amount = amounts.get(s.id) ?? 0;
    return amount > 0 ? [{ viewer: s.id, name: s.name, amount }] : [];
  });
  const { times, through, stakes } = round;
  const entries = to.length === 0 ? [] : [(returned ? refundedToMany : won)(head(round, `pay.${times}.${through}`, atMs), to)];
  const label = round.outcomes[round.result ?? -1] ?? "";
  // Nobody wins or loses where nobody was right.
  const orders =
    returned && stakes
      ? []
      : part.map((s): Order => {
          const right = s.outcome === round.result;
          const viewer = { id: s.id, name: s.name, roles: [] };
          const amount = right ? (amounts.get(s.id) ?? 0) : s.stake;
          return { do: "emit", what: right ? "prediction/won" : "prediction/lost", viewer, amount: stakes ? amount : 1, text: label };
        });
  return { entries, orders, names: to.map(({ viewer, name }) => ({ id: viewer, name })) };
}
const refundedToMany: typeof won = (h, to) => ({ ...won(h, to), reason: "refunded" });

/** What was paid is taken back, as far as it is still there; who spent it owes the rest. */
function reverse(round: Round, part: readonly Stake[], backers: Stakes, atMs: number, ctx: StepContext): Part {
  const { amounts } = settledFor(round, backers);
  const entries: Entry[] = [];
  const owing: { id: string; name: string; amount: number }[] = [];
  for (const s of part) {
    const amount = amounts.get(s.id) ?? 0;
    if (amount === 0) continue;
    const owed = Math.max(0, amount - ctx.ledgerView.balance(s.id));
    entries.push(unwon(head(round, `undo.${round.times}.${s.id}`, atMs), s.id, amount, owed));
    if (owed > 0) owing.push({ id: s.id, name: s.name, amount: owed });
  }
  const orders: Order[] =
    owing.length === 0 ? [] : [{ do: "command", gameId: "points", viewer: null, command: { do: "owe", viewers: owing, why: round.title } }];
  return { entries, orders, names: part.map(({ id, name }) => ({ id, name })) };
}

function giveBack(round: Round, part: readonly Stake[], _: Stakes, atMs: number): Part {
  const entries = part.filter((s) => s.stake > 0).map((s) => refunded(head(round, `back.${s.id}`, atMs), s.id, s.stake, "pool"));
  return { entries, names: part.map(({ id, name }) => ({ id, name })) };
}

function feeOf(round: Round, backers: Stakes, atMs: number): readonly Entry[] {
  if (round.phase === "returning" || !round.stakes) return [];
  const { fee } = settledFor(round, backers);
  if (fee === 0) return [];
  return round.phase === "paying"
    ? [kept(head(round, `fee.${round.times}`, atMs), fee)]
    : [unkept(head(round, `unfee.${round.times}`, atMs), fee)];
}
