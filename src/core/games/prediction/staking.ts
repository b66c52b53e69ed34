import { refusal, type Refusal } from "../../kernel/refusal";
import type { Kept, StepContext } from "../../module/module";
import { staked } from "../../points/ledger";
import { mayAs } from "../../signals/signal";
import type { Viewer } from "../../signals/names";
import { amountMeant, askedIn, outcomeMeant } from "./asked";
import { type At, booked, no, type Outcome, still } from "./outcome";
import { keyOf, mostBackers, type Round, type Stake } from "./settings";
import { letterOf } from "./letters";

/** How a stake is kept: as it stands from then on. */
export type StakeRow = Readonly<{ stake: Stake }>;
/** A message that came just too late is told so; later ones mean something else. */
const lateMs = 60_000;

const own = (viewer: Viewer): boolean => viewer.roles.some((r) => r === "moderator" || r === "streamer");

/** Somebody backs an outcome, or adds to what they staked on it. The first check that fails answers. */
export function backed(at: At, viewer: Viewer, text: string, atMs: number, ctx: StepContext): Outcome {
  const { durable, settings } = at;
  const { round } = durable;
  if (!durable.on) return no(at, "prediction/off");
  // Its time counts, even where the timer comes a moment later.
  if (round === null || round.phase !== "open" || atMs >= round.locksMs) {
    const closedMs = round === null ? 0 : (round.lockedMs ?? round.locksMs);
    const seconds = Math.max(1, Math.ceil((atMs - closedMs) / 1000));
    const late = round !== null && round.result === null && seconds * 1000 <= lateMs;
    return late ? no(at, "prediction/late", { seconds }) : no(at, "prediction/not-open");
  }
  if (!mayAs(viewer, settings.roles)) return no(at, "prediction/role");
  if (settings.barOwn && own(viewer)) return no(at, "prediction/own");
  const asked = askedIn(text, round.stakes);
  const letters = `A to ${letterOf(round.outcomes.length - 1)}`;
  const before = durable.backers.get(keyOf(viewer.id));
  const meant = asked.outcome === "" && before !== undefined ? before.outcome : outcomeMeant(asked.outcome, round.outcomes);
  if (meant === null) return no(at, "prediction/which", { letters });
  if (before !== undefined && before.outcome !== meant)
    return no(at, "prediction/other-outcome", { letter: letterOf(before.outcome), label: round.outcomes[before.outcome] ?? "" });
  if (before === undefined && durable.backers.size >= mostBackers) return no(at, "prediction/no-room");
  if (!round.stakes) return before === undefined ? withStake(at, round, viewer, meant, 0, atMs) : no(at, "prediction/told-already");
  const has = ctx.ledgerView.balance(viewer.id);
  const amount = amountMeant(asked.amount, has);
  if (!amount.ok) return no(at, amount.code, { points: ctx.pointsName, example: `${letterOf(meant)} 100` });
  const why = bounds(round, before, amount.amount, has, ctx);
  return why === null ? withStake(at, round, viewer, meant, amount.amount, atMs) : still(at, [{ refusal: why, count: 1 }]);
}

function bounds(round: Round, before: Stake | undefined, amount: number, has: number, ctx: StepContext): Refusal | null {
  const points = ctx.pointsName;
  if (before === undefined && amount < round.least) return refusal("prediction/too-little", { least: round.least, points });
  const already = before?.stake ?? 0;
  if (round.most > 0 && already + amount > round.most) return refusal("prediction/too-much", { most: round.most, already, points });
  if (amount > has) return refusal("prediction/too-poor", { has, points });
  return null;
}

function withStake(at: At, round: Round, viewer: Viewer, outcome: number, amount: number, atMs: number): Outcome {
  const { durable } = at;
  const key = keyOf(viewer.id);
  const before = durable.backers.get(key);
  const stake: Stake = {
    id: viewer.id,
    name: viewer.name,
    outcome,
    stake: (before?.stake ?? 0) + amount,
    order: before?.order ?? round.people + 1,
  };
  const totals = round.totals.map((t, i) =>
    i === outcome ? { stakes: t.stakes + amount, people: t.people + (before === undefined ? 1 : 0) } : t,
  );
  const next: Round = { ...round, totals, people: round.people + (before === undefined ? 1 : 0) };
  const label = round.outcomes[outcome] ?? "";
  const kept: Kept = { kind: "stake", viewer, fromMs: atMs, toMs: atMs, body: { stake } satisfies StakeRow };
  // How often somebody added is in the total: a key of its own for each.
  const key0 = `${round.id}.in.${viewer.id}.${stake.stake}`;
  return {
    ...still(at, [
      { did: "prediction/backed", count: amount, subject: viewer.name, facts: { letter: letterOf(outcome), label, stake: stake.stake } },
    ]),
    durable: { ...durable, round: next, backers: durable.backers.set(key, stake) },
    kept: [{ ...kept, viewer: { id: viewer.id, name: viewer.name } }],
    orders: [{ do: "emit", what: "prediction/backed", viewer, amount: round.stakes ? amount : 1, text: label }],
    ...(amount === 0
      ? {}
      : {
          booking: booked(
            [staked({ key: key0, atMs, about: round.title, by: "" }, viewer.id, amount)],
            [{ id: viewer.id, name: viewer.name }],
          ),
        }),
  };
}
