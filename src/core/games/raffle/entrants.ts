import { bytesToHex } from "@noble/hashes/utils.js";
import type { Kept, StepContext } from "../../module/module";
import type { Entry } from "../../points/ledger";
import type { Role, Viewer } from "../../signals/names";
import { isBarred, paidIn, returned, withEntrant } from "./entering";
import { type At, booked, no, type Outcome, still } from "./outcome";
import { type Entrant, freshRaffle, keyOf, mostPeople, type Round } from "./settings";

/** So many get their points back in one part: others are served between two parts. */
export const returnedAtOnce = 250;
export function entered(
  at: At,
  round: Round,
  viewer: Viewer,
  came: Readonly<{ entrant: Entrant; cost: number; more: number }>,
  atMs: number,
): Outcome {
  const { durable } = at;
  const next = withEntrant(round, durable, viewer.id, came.entrant, atMs);
  const seq = next.changes.size;
  const { most, by } = round.settings;
  const facts = { tickets: came.entrant.tickets, most, guess: came.entrant.guess, people: next.round.people };
  return {
    ...still(at, [{ did: by === "number" ? "raffle/guessed" : "raffle/entered", count: came.more, subject: viewer.name, facts }]),
    durable: { ...durable, round: next.round, entrants: next.entrants, changes: next.changes },
    kept: [next.kept],
    orders: [{ do: "emit", what: "raffle/entered", viewer, amount: came.entrant.tickets, text: round.settings.title }],
    ...(came.cost === 0
      ? {}
      : { booking: booked([paidIn(round, viewer.id, came.cost, seq, atMs)], [{ id: viewer.id, name: viewer.name }]) }),
  };
}

export function removed(at: At, round: Round, viewer: string, atMs: number): Outcome {
  const e = at.durable.entrants.get(keyOf(viewer));
  if (e === undefined) return no(at, "raffle/not-in", { viewer });
  const next = withEntrant(round, at.durable, viewer, null, atMs);
  const entries = e.paid === 0 ? [] : [returned(round, viewer, e.paid, atMs, `out.${next.changes.size}`)];
  return {
    ...still(at, [{ did: "raffle/removed", count: e.tickets, subject: e.name, facts: { paid: e.paid } }]),
    durable: { ...at.durable, round: next.round, entrants: next.entrants, changes: next.changes },
    kept: [next.kept],
    ...(entries.length === 0 ? {} : { booking: booked(entries, [{ id: viewer, name: e.name }]) }),
  };
}

export type Named = Readonly<{ id: string; name: string; roles: readonly Role[]; tickets: number }>;
/** By hand, from a list, from who reigned or is there: without a price; whoever is in already gets no more than they may have. */
export function added(at: At, open: Round, viewers: readonly Named[], atMs: number): Outcome {
  let { entrants, changes } = at.durable;
  let round = open;
  const kept: Kept[] = [];
  let full = 0;
  for (const { id, name, roles, tickets } of viewers) {
    const before = entrants.get(keyOf(id));
    const most = Math.min(open.settings.most, (before?.tickets ?? 0) + tickets);
    if (
      open.settings.by === "number" ||
      isBarred(open.settings, at.durable, { id, name }) ||
      entrants.size >= mostPeople ||
      most <= (before?.tickets ?? 0)
    ) {
      full += 1;
      continue;
    }
    const e: Entrant = { id, name, roles: before?.roles ?? roles, tickets: most, paid: before?.paid ?? 0, guess: null, at: 0, tries: 0 };
    const next = withEntrant(round, { ...at.durable, entrants, changes }, id, e, atMs);
    ({ round, entrants, changes } = next);
    kept.push(next.kept);
  }
  if (kept.length === 0) return no(at, "raffle/nobody-added", { left: full });
  return {
    ...still(at, [{ did: "raffle/added", count: kept.length, facts: { left: full } }]),
    durable: { ...at.durable, round, entrants, changes },
    kept,
  };
}

/** Points go back to so many at once; each of them is out then, and kept so, whatever fails in between. */
export function giveBack(at: At, round: Round, atMs: number, ctx: StepContext): Outcome {
  const { durable } = at;
  const some = durable.entrants.take(returnedAtOnce);
  let { entrants, changes } = durable;
  let now = round;
  const kept: Kept[] = [];
  const entries: Entry[] = [];
  const names: { id: string; name: string }[] = [];
  for (const e of some.values()) {
    const next = withEntrant(now, { ...durable, entrants, changes }, e.id, null, atMs);
    ({ round: now, entrants, changes } = next);
    kept.push(next.kept);
    if (e.paid === 0) continue;
    entries.push(returned(round, e.id, e.paid, atMs, `back.${changes.size}`));
    names.push({ id: e.id, name: e.name });
  }
  const over = entrants.size === 0;
  const outcome: Outcome = { ...still(at), kept, ...(entries.length === 0 ? {} : { booking: booked(entries, names) }) };
  if (!over) return { ...outcome, durable: { ...durable, round: now, entrants, changes } };
  if (round.phase !== "cancelled") return { ...outcome, durable: { ...durable, round: { ...now, returning: false }, entrants, changes } };
  // The secret is told here too: anybody sees that there was nothing to hide.
  const secret = ctx.vault.open(round.id, round.sealed);
  const fresh = freshRaffle();
  return {
    ...outcome,
    durable: { ...durable, round: null, entrants: fresh.entrants, changes: fresh.changes, closedMs: atMs },
    kept: [
      ...kept,
      {
        kind: "abandoned",
        viewer: null,
        fromMs: round.openedMs,
        toMs: atMs,
        body: {
          round: round.id,
          n: round.n,
          commitment: round.commitment,
          why: "cancelled",
          title: round.settings.title,
          tries: round.tries,
          gaveUp: round.gaveUp,
          chain: round.chain,
          listHash: round.listHash,
          entriesSince: round.since.seq,
          secret: secret === null ? "" : bytesToHex(secret),
        },
      },
    ],
  };
}
