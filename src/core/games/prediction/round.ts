import { Map as Entries } from "immutable";
import type { StepContext } from "../../module/module";
import type { Order } from "../../module/order";
import type { Signal } from "../../signals/signal";
import { type At, no, type Outcome, still } from "./outcome";
import { inOrder, nextPart, settledFor } from "./paying";
import type { StreaksRow } from "./rows";
import { freshPrediction, keyOf, type Round, type Stake, type Stakes, type Streaks } from "./settings";
import { cancelledTold, lockedTold, openedTold, resultTold, takenBackTold } from "./words";

export const mostResults = 20;
/** Of so many the streak is kept, the longest first. */
const mostStreaks = 20_000;

export type Question = Readonly<{ title: string; outcomes: readonly string[]; openMs: number }>;
export function opened(at: At, question: Question, game: string, signal: Signal, ctx: StepContext): Outcome {
  const { durable, settings } = at;
  const { atMs, seq } = signal;
  const n = durable.n + 1;
  const { stakes, least, most } = settings;
  const round: Round = {
    n,
    id: `${game}.${n}.${atMs.toString(36)}`,
    phase: "open",
    rehearsal: ctx.rehearsing,
    title: question.title,
    outcomes: [...question.outcomes],
    stakes,
    least,
    most,
    feeBp: settings.feePercent * 100,
    openedMs: atMs,
    locksMs: atMs + question.openMs,
    lockedMs: null,
    dueMs: 0,
    late: false,
    since: { seq, atMs },
    totals: question.outcomes.map(() => ({ stakes: 0, people: 0 })),
    people: 0,
    result: null,
    by: "",
    through: 0,
    times: 0,
    endedMs: 0,
    paid: null,
  };
  return {
    ...still(at, [{ did: "prediction/opened", count: 1, subject: round.title }]),
    durable: { ...durable, n, round, backers: Entries() },
    orders: [
      { do: "say", text: openedTold(round, settings.word, ctx.pointsName) },
      { do: "emit", what: "prediction/opened", viewer: null, amount: n, text: round.title },
    ],
  };
}

export function locked(at: At, round: Round, atMs: number, ctx: StepContext): Outcome {
  const next: Round = { ...round, phase: "locked", lockedMs: atMs, dueMs: atMs + at.settings.dueMs };
  return {
    ...still(at, [{ did: "prediction/locked", count: round.people, subject: round.title }]),
    durable: { ...at.durable, round: next },
    orders: [
      { do: "say", text: lockedTold(next, ctx.pointsName) },
      { do: "emit", what: "prediction/locked", viewer: null, amount: round.people, text: round.title },
    ],
  };
}

const mostShown = 12;
/** Who backed an outcome with most, by their names. */
function topBackers(backers: Stakes, outcome: number): readonly string[] {
  const more = (a: Stake, b: Stake): number => b.stake - a.stake || a.order - b.order;
  // There may be fifty thousand: the few are found in one pass.
  let top: Stake[] = [];
  for (const one of backers.values()) {
    if (one.outcome !== outcome) continue;
    const least = top[mostShown - 1];
    if (least === undefined || more(one, least) < 0) top = [...top, one].sort(more).slice(0, mostShown);
  }
  return top.map((s) => s.name);
}

/** The result is told at once; points follow part by part. */
export function resulted(at: At, round: Round, result: number, by: string, ctx: StepContext): Outcome {
  const told: Round = { ...round, phase: "paying", result, by, through: 0, times: round.times + 1, late: false };
  const { fee, pot, returned } = settledFor(told, at.durable.backers);
  const winners = round.totals[result]?.people ?? 0;
  const next: Round = { ...told, paid: { winners, pot, fee, returned } };
  const label = round.outcomes[result] ?? "";
  const people = topBackers(at.durable.backers, result);
  const orders: Order[] = [
    { do: "say", text: resultTold(next, ctx.pointsName) },
    { do: "emit", what: "prediction/resulted", viewer: null, amount: winners, text: label, touches: { people, joy: winners > 0 } },
  ];
  return {
    ...still(at, [{ did: "prediction/resulted", count: winners, subject: label, facts: { title: round.title, pot } }]),
    durable: { ...at.durable, round: next },
    orders,
  };
}

export function cancelled(at: At, round: Round, ctx: StepContext): Outcome {
  return {
    ...still(at, [{ did: "prediction/cancelled", count: round.people, subject: round.title }]),
    durable: { ...at.durable, round: { ...round, phase: "returning", through: 0 } },
    orders: [
      { do: "say", text: cancelledTold(round, ctx.pointsName) },
      { do: "emit", what: "prediction/cancelled", viewer: null, amount: round.people, text: round.title },
    ],
  };
}

/** A wrong result is taken back: what was paid comes back part by part, and it is locked again. */
export function takenBack(at: At, round: Round): Outcome {
  if (round.phase !== "done" || round.result === null) return no(at, "prediction/nothing-to-undo");
  return {
    ...still(at, [{ did: "prediction/taken-back", count: round.people, subject: round.outcomes[round.result] ?? "" }]),
    durable: { ...at.durable, round: { ...round, phase: "reversing", through: 0 } },
    orders: [
      { do: "say", text: takenBackTold(round) },
      { do: "emit", what: "prediction/taken-back", viewer: null, amount: round.people, text: round.title },
    ],
  };
}

/** The next part of a prediction that pays, takes back or gives back. */
export const goOn = (at: At, round: Round, signal: Signal, ctx: StepContext): Outcome =>
  nextPart(at, round, signal.atMs, ctx, (moved, through) => {
    switch (round.phase) {
      case "paying":
        return ended(moved, through, signal);
      case "reversing":
        return lockedAgain(moved, through, signal.atMs);
      default:
        return gone(moved, through, signal.atMs);
    }
  });

function ended(at: At, round: Round, { atMs, seq }: Signal): Outcome {
  const { durable } = at;
  const label = round.outcomes[round.result ?? -1] ?? "";
  const { id, n, title, people, paid, rehearsal, stakes } = round;
  const result = { n, round: id, title, label, atMs, people, pot: paid?.pot ?? 0, rehearsal };
  const streaks = stakes ? durable.streaks : streaksAfter(at, round);
  const body = {
    round: id,
    n,
    title,
    label,
    by: round.by,
    result: round.result,
    outcomes: round.outcomes.map((o, i) => ({ label: o, ...(round.totals[i] ?? { stakes: 0, people: 0 }) })),
    ...paid,
    stakes,
  };
  const streaksRow: StreaksRow = { streaks: [...streaks].map(([key, many]) => [key.slice(2), many] as const) };
  return {
    ...still(at, [{ did: "prediction/paid", count: paid?.winners ?? 0, subject: label }]),
    durable: {
      ...durable,
      round: { ...round, phase: "done", endedMs: atMs },
      streaks,
      streaksSince: stakes || rehearsal ? durable.streaksSince : { seq, atMs },
      results: [result, ...durable.results.filter((r) => r.round !== id)].slice(0, mostResults),
    },
    kept: [
      { kind: "result", viewer: null, fromMs: round.openedMs, toMs: atMs, body },
      ...(stakes ? [] : [{ kind: "streaks", viewer: null, fromMs: atMs, toMs: atMs, body: streaksRow }]),
    ],
  };
}

/** Who was right goes on with their streak, who was wrong begins anew, who took no part keeps it. */
function streaksAfter({ durable }: At, round: Round): Streaks {
  const next = durable.streaks.asMutable();
  for (const s of durable.backers.values()) {
    const key = keyOf(s.id);
    if (s.outcome === round.result) next.set(key, (next.get(key) ?? 0) + 1);
    else next.delete(key);
  }
  const all = next.asImmutable();
  return all.size <= mostStreaks ? all : Entries([...all].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1)).slice(0, mostStreaks));
}

function lockedAgain(at: At, round: Round, atMs: number): Outcome {
  const { durable } = at;
  return {
    ...still(at, [{ did: "prediction/reversed", count: inOrder(durable.backers).length, subject: round.title }]),
    durable: {
      ...durable,
      round: { ...round, phase: "locked", result: null, paid: null, dueMs: atMs + at.settings.dueMs },
      results: durable.results.filter((r) => r.round !== round.id),
    },
    kept: [
      {
        kind: "taken-back",
        viewer: null,
        fromMs: round.openedMs,
        toMs: atMs,
        body: { round: round.id, title: round.title, label: round.outcomes[round.result ?? -1] ?? "" },
      },
    ],
  };
}

function gone(at: At, round: Round, atMs: number): Outcome {
  const { durable } = at;
  const body = { round: round.id, n: round.n, title: round.title, people: round.people };
  return {
    ...still(at, [{ did: "prediction/given-back", count: round.people, subject: round.title }]),
    durable: { ...durable, round: { ...round, phase: "cancelled", endedMs: atMs }, backers: freshPrediction().backers },
    kept: [{ kind: "cancelled", viewer: null, fromMs: round.openedMs, toMs: atMs, body }],
  };
}
