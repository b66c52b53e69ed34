import { z } from "zod";
import { fold } from "../kernel/fold";
import type { Order } from "../module/order";
import { refusal, type Refusal } from "../kernel/refusal";
import type { Module, Note, StepContext, StepOutcome } from "../module/module";
import { mayAs, platformKinds, type Signal } from "../signals/signal";
import { amountOf, tierFor } from "../signals/tiers";
import { ruleEffectSchema } from "./effect";
import { type Pending, perform } from "./effects";
import { pendingTo2, pendingTo3, rulebookTo2, rulebookTo3 } from "./migrations";
import { rulesFront } from "./notes";
import {
  type Rule,
  type Rulebook,
  rulebookDefaults,
  type RulebookDurable,
  rulebookDurableSchema,
  rulebookSchema,
  type Tier,
} from "./settings";

/** When each rule fired last; lost in a crash, which only lets a rule fire a little early. */
export type RulebookTransient = Readonly<{ fired: Readonly<Record<string, number>> }>;
type At = Readonly<{ settings: Rulebook; durable: RulebookDurable; transient: RulebookTransient }>;
type Outcome = StepOutcome<RulebookDurable, RulebookTransient, never>;

export type Decision = Readonly<{ rule: Rule; tier: Tier | null; refusal: Refusal | null; amount: number | null }>;
const mostPending = 500;

/** Whether a rule is about this kind of signal at all. */
function answers(rule: Rule, signal: Signal): boolean {
  if (signal.kind === "timer" || signal.kind === "command" || signal.kind === "cue") return false;
  return rule.when === signal.kind && (signal.kind !== "happened" || rule.what === signal.what);
}

const textOf = (signal: Signal): string => ("text" in signal ? signal.text : "");

function wordsFit({ how, list }: Rule["words"], text: string): boolean {
  if (how === "any") return true;
  const said = fold(text).trim();
  const words = list.map((w) => fold(w).trim()).filter((w) => w !== "");
  return how === "is" ? words.includes(said) : words.some((w) => said.includes(w));
}

/** Why a rule does not answer, or which of its tiers does. In order: on → kind of reaction → role → words → time → tier → cooldown. */
export function decide(rule: Rule, signal: Signal, at: At): Decision {
  const amount = amountOf(signal);
  const no = (code: string, facts: Refusal["facts"] = {}): Decision => ({ rule, tier: null, refusal: refusal(code, facts), amount });
  if (!rule.on) return no("rule/off");
  if (signal.kind === "reaction" && rule.reaction !== "" && fold(rule.reaction) !== fold(signal.reaction))
    return no("rule/other-reaction", { reaction: signal.reaction });
  const viewer = "viewer" in signal ? signal.viewer : null;
  if (!mayAs(viewer, rule.roles)) return no("rule/role");
  if (!wordsFit(rule.words, textOf(signal))) return no("rule/words");
  if (rule.time.how === "show") {
    const { showStartMs } = at.durable;
    if (showStartMs === null) return no("rule/off-air");
    const minute = (signal.atMs - showStartMs) / 60_000;
    if (minute < rule.time.fromMin) return no("rule/too-early", { fromMin: rule.time.fromMin });
    if (rule.time.toMin > 0 && minute >= rule.time.toMin) return no("rule/too-late", { toMin: rule.time.toMin });
  }
  if (amount === null) return no("rule/currency", { currency: signal.kind === "tip" ? signal.currency : "" });
  const tier = tierFor(rule.tiers, amount);
  if (tier === null) return no("rule/tier", { amount });
  const firedMs = at.transient.fired[rule.id];
  if (rule.cooldownMs > 0 && firedMs !== undefined && signal.atMs < firedMs + rule.cooldownMs)
    return no("rule/cooling", { freeInS: Math.ceil((firedMs + rule.cooldownMs - signal.atMs) / 1000) });
  return { rule, tier, refusal: null, amount };
}

/** What would happen if: every rule of this kind with its decision, and what it would ask for. Touches nothing. */
export function explain(
  at: At,
  signal: Signal,
  ctx: StepContext,
): readonly Readonly<{ decision: Decision; orders: readonly Order[]; later: readonly Pending[] }>[] {
  return at.settings.rules
    .filter((rule) => answers(rule, signal))
    .map((rule) => {
      const decision = decide(rule, signal, at);
      const { orders, later } =
        decision.tier === null
          ? { orders: [], later: [] }
          : perform(decision.tier.effects, signal, ctx, { id: `${signal.seq}.${rule.id}`, hidden: at.settings.hiddenWords });
      return { decision, orders, later };
    });
}

const showOf = (durable: RulebookDurable, signal: Signal): RulebookDurable => {
  if (signal.kind === "live") return durable.showStartMs === null ? { ...durable, showStartMs: signal.atMs } : durable;
  if (signal.kind === "ended") return durable.showStartMs === null ? durable : { ...durable, showStartMs: null };
  return durable;
};

/** A rule that comes round has a time when it is due; one that was taken out or changed loses it. */
function wound(durable: RulebookDurable, book: Rulebook, nowMs: number): RulebookDurable {
  const timers: Record<string, number> = {};
  let changed = false;
  for (const rule of book.rules) {
    if (rule.when !== "timer" || !rule.on) continue;
    const due = durable.timers[rule.id];
    const good = due !== undefined && due <= nowMs + rule.everyMs;
    timers[rule.id] = good ? due : nowMs + rule.everyMs;
    if (!good) changed = true;
  }
  if (!changed && Object.keys(durable.timers).length === Object.keys(timers).length) return durable;
  return { ...durable, timers };
}

function onTimer(at: At, signal: Extract<Signal, { kind: "timer" }>, ctx: StepContext): Outcome {
  const orders: Order[] = [];
  const notes: Note[] = [];
  const due = at.durable.pending.filter((p) => p.dueMs <= signal.atMs);
  for (const { orders: waited } of due) orders.push(...waited);
  let pending = at.durable.pending.filter((p) => p.dueMs > signal.atMs);
  const timers = { ...at.durable.timers };
  let fired = at.transient.fired;
  for (const rule of at.settings.rules) {
    const dueMs = timers[rule.id];
    if (rule.when !== "timer" || !rule.on || dueMs === undefined || dueMs > signal.atMs) continue;
    // After a long pause it comes once, not once for every time missed.
    timers[rule.id] = signal.atMs + rule.everyMs;
    const decision = decide(rule, signal, at);
    if (decision.tier === null) continue;
    const done = perform(decision.tier.effects, signal, ctx, { id: `${signal.seq}.${rule.id}`, hidden: at.settings.hiddenWords });
    orders.push(...done.orders);
    pending = [...pending, ...done.later];
    fired = { ...fired, [rule.id]: signal.atMs };
    notes.push({ did: "rule/fired", count: 1, subject: rule.name });
  }
  return { durable: { ...at.durable, pending: pending.slice(0, mostPending), timers }, transient: { fired }, effects: [], notes, orders };
}

/**
 * The rulebook: a part like a game, without a picture. What it does are orders to others. Rules answer
 * in their order; each answers for itself, so one signal may set off several.
 */
export const rulebook: Module<Rulebook, RulebookDurable, RulebookTransient, never> = {
  ...rulesFront,
  settings: rulebookSchema,
  defaults: rulebookDefaults,
  settingsSteps: [rulebookTo2, rulebookTo3],
  stateSteps: [pendingTo2, pendingTo3],
  freshDurable: () => ({ showStartMs: null, pending: [], timers: {} }),
  freshDust: () => ({ fired: {} }),
  durable: rulebookDurableSchema,
  single: true,
  hears: ["message", ...platformKinds, "redemption", "happened", "arrival"],
  provides: ({ money, hiddenWords, queues }) => ({ money, hiddenWords, queues: queues }),
  chatWords: (book) => book.rules.flatMap((r) => (r.words.how === "is" ? r.words.list : [])),
  wordsForViewers: (book) =>
    book.rules
      .filter((r) => r.on && r.when === "message" && r.words.how === "is" && r.roles.includes("viewer"))
      .map((r) => ({ word: r.words.list[0] ?? "", what: r.name })),
  dueMs: ({ rules }, durable) => {
    // Timers that were just set begin with the first signal; this is it when nobody sends one.
    if (rules.some((r) => r.when === "timer" && r.on && !Object.hasOwn(durable.timers, r.id))) return 0;
    let due: number | null = null;
    for (const at of [...durable.pending.map((p) => p.dueMs), ...Object.values(durable.timers)]) if (due === null || at < due) due = at;
    return due;
  },
  step: (given, signal, ctx) => {
    const at: At = { ...given, durable: wound(showOf(given.durable, signal), given.settings, signal.atMs) };
    if (signal.kind === "timer") return onTimer(at, signal, ctx);
    const orders: Order[] = [];
    const notes: Note[] = [];
    const later: Pending[] = [];
    let { fired } = at.transient;
    const asked = z.array(ruleEffectSchema).safeParse(signal.kind === "happened" ? (signal.effects ?? []) : []);
    if (asked.success && asked.data.length > 0) {
      const done = perform(asked.data, signal, ctx, { id: `${signal.seq}.own`, hidden: at.settings.hiddenWords });
      orders.push(...done.orders);
      later.push(...done.later);
    }
    for (const { decision, orders: own, later: waits } of explain(at, signal, ctx)) {
      const { rule, refusal: why } = decision;
      if (why !== null) {
        // Rules that were never meant for this one say nothing; what almost fired does.
        if (!["rule/off", "rule/words", "rule/other-reaction", "rule/role"].includes(why.code))
          notes.push({ refusal: why, count: 1, subject: rule.name });
        continue;
      }
      orders.push(...own);
      later.push(...waits);
      fired = { ...fired, [rule.id]: signal.atMs };
      notes.push({ did: "rule/fired", count: 1, subject: rule.name });
    }
    const durable = later.length === 0 ? at.durable : { ...at.durable, pending: [...at.durable.pending, ...later].slice(-mostPending) };
    return { durable, transient: fired === at.transient.fired ? at.transient : { fired }, effects: [], notes, orders };
  },
  view: (_, durable, audience) => (audience === "operator" ? { showStartMs: durable.showStartMs, waiting: durable.pending.length } : {}),
};
