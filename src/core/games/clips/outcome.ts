import { Map as Times } from "immutable";
import { refusal, type Refusal } from "../../kernel/refusal";
import type { Kept, Note, StepOutcome } from "../../module/module";
import type { Order } from "../../module/order";
import { type Laned, pass } from "./lane";
import { both, giveBack } from "./settling";
import type { Clip, ClipsDurable, ClipsSettings } from "./settings";

/** When somebody sent one last; lost in a crash, which costs a rest at most. */
export type ClipsDust = Readonly<{ own: Times<string, number> }>;
export const freshDust = (): ClipsDust => ({ own: Times() });
export type At = Readonly<{ settings: ClipsSettings; durable: ClipsDurable; transient: ClipsDust }>;
export type Outcome = StepOutcome<ClipsDurable, ClipsDust, never>;
type Facts = Record<string, string | number>;

export const still = ({ durable, transient }: At, notes: readonly Note[] = []): Outcome => ({ durable, transient, effects: [], notes });
export const no = (at: At, code: string, facts: Facts = {}): Outcome => still(at, [{ refusal: refusal(code, facts), count: 1 }]);

/** With what the lane does by now. */
export function passed(at: At, outcome: Outcome, atMs: number, hushed: boolean): Outcome {
  return laid(at, outcome, pass(at.settings, outcome.durable, atMs, hushed), atMs);
}
export function laid(at: At, outcome: Outcome, laned: Laned, atMs: number): Outcome {
  const done = both({ ...outcome, durable: laned.durable, notes: [...outcome.notes, ...laned.notes] }, laned, null);
  const kept = laned.over.map((over): Kept => ({
    kind: "clip",
    viewer: over.clip.viewer,
    fromMs: over.sinceMs,
    toMs: atMs,
    body: {
      title: over.clip.title,
      address: over.clip.address,
      seenMs: Math.round(over.seenMs),
      skipped: over.skipped,
      paid: "amount" in over.clip.pay ? over.clip.pay.amount : 0,
      by: over.clip.pay.by,
      currency: over.clip.pay.by === "money" ? over.clip.pay.currency : "",
    },
  }));
  const shown = laned.over.filter((o) => o.seenMs > 0);
  const told = shown.map(({ clip }): Order => ({
    do: "emit",
    what: "clips/shown",
    viewer: clip.viewer === null ? null : { ...clip.viewer, roles: [] },
    amount: Math.round((clip.facts?.ms ?? 0) / 1000),
    text: clip.title,
  }));
  return { ...done, orders: [...(done.orders ?? []), ...told], kept: [...(done.kept ?? []), ...kept] };
}

/** Out of the queue before it was shown: not made any more, and given back. */
export function leftOut(outcome: Outcome, clip: Clip, why: string, atMs: number): Outcome {
  const queue = outcome.durable.queue.filter((c) => c.n !== clip.n);
  const settled = giveBack({ ...outcome.durable, queue }, clip, why, atMs);
  const unfilmed: readonly Order[] = clip.phase === "making" ? [{ do: "unfilm", n: clip.n }] : [];
  return both({ ...outcome, durable: settled.durable, orders: [...(outcome.orders ?? []), ...unfilmed] }, settled, clip.viewer);
}

/** It never comes to be: out of the queue, given back, and its sender is told why. */
export function failed(before: Outcome, clip: Clip, why: Refusal, atMs: number): Outcome {
  const note: Note = { refusal: why, count: 1, subject: clip.viewer?.name ?? "", facts: { n: clip.n } };
  const answer: readonly Order[] = clip.viewer === null ? [] : [{ do: "answer", to: clip.viewer.name, note }];
  const outcome = { ...before, notes: [...before.notes, note], orders: [...(before.orders ?? []), ...answer] };
  return leftOut(outcome, clip, "it could not be shown", atMs);
}

export const answered = (outcome: Outcome, to: string): Outcome => {
  const [note] = outcome.notes;
  return note === undefined ? outcome : { ...outcome, orders: [...(outcome.orders ?? []), { do: "answer", to, note }] };
};
