import { z } from "zod";
import { fold } from "../kernel/fold";
import type { Order } from "../kernel/order";
import { refusal, type Refusal } from "../kernel/refusal";
import type { GameRules, Note, StepContext, StepOutcome } from "../kernel/step";
import type { Booking } from "../rewards/desk";
import { earned as earnedByRate } from "../signals/rate";
import type { MessageSignal, Signal, Viewer } from "../signals/signal";
import { amountOf } from "../signals/tiers";
import { count } from "../words/sentence";
import * as ledger from "./ledger";
import { earnKinds, type EarnKind, type PointsSettings, pointsDefaults, pointsSchema } from "./settings";

/** When presence is paid next. */
export const pointsDurableSchema = z.object({ nextMs: z.number().nullable() });
export type PointsDurable = z.infer<typeof pointsDurableSchema>;
/**
 * Who wrote lately, newest first: one link a message, so that a message costs the same in a room of fifty and
 * of fifty thousand. Lost in a crash, which costs those a round of presence at most.
 */
type Heard = Readonly<{ viewer: Viewer; atMs: number; before: Heard | null }>;
export type PointsDust = Readonly<{ heard: Heard | null; length: number }>;
type At = Readonly<{ settings: PointsSettings; durable: PointsDurable; dust: PointsDust }>;
type Outcome = StepOutcome<PointsDurable, PointsDust, never>;

const minute = 60_000;
const mostHeard = 100_000;
const nothing: Booking = { entries: [], sales: [], names: {}, prices: [] };
const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, dust: at.dust, effects: [], notes });
const no = (at: At, why: Refusal): Outcome => still(at, [{ refusal: why, count: 1 }]);
const isEarnKind = (kind: string): kind is EarnKind => (earnKinds as readonly string[]).includes(kind);

/** Times the highest that one of the viewer's roles gives, rounded down; then within what the day still allows. */
export function worthTo(settings: PointsSettings, viewer: Viewer, amount: number, earnedToday: number): number {
  const hundredths = settings.times.filter((t) => viewer.roles.includes(t.role)).reduce((best, t) => Math.max(best, t.hundredths), 100);
  const times = Number((BigInt(amount) * BigInt(hundredths)) / 100n);
  return settings.dailyMost === 0 ? times : Math.max(0, Math.min(times, settings.dailyMost - earnedToday));
}

/** Each viewer's newest word since a time; newest first. */
function oncePerViewer(newest: Heard | null, sinceMs: number): readonly Heard[] {
  const once = new Map<string, Heard>();
  for (let at = newest; at !== null && at.atMs >= sinceMs; at = at.before) if (!once.has(at.viewer.id)) once.set(at.viewer.id, at);
  return [...once.values()];
}
function chained(newestFirst: readonly Heard[]): PointsDust {
  let heard: Heard | null = null;
  for (let i = newestFirst.length - 1; i >= 0; i -= 1) {
    const { viewer, atMs } = newestFirst[i] ?? { viewer: null, atMs: 0 };
    if (viewer !== null) heard = { viewer, atMs, before: heard };
  }
  return { heard, length: newestFirst.length };
}

function onEvent(at: At, kind: EarnKind, signal: Signal, ctx: StepContext): Outcome {
  const viewer = "viewer" in signal ? signal.viewer : null;
  if (viewer === null) return still(at);
  const { value } = earnedByRate(at.settings.signals[kind], amountOf(signal) ?? 0);
  const amount = worthTo(at.settings, viewer, value, ctx.desk.earnedToday(viewer.id));
  if (amount === 0) return still(at);
  const entry = ledger.earned({ key: `sig:${signal.seq}`, atMs: signal.atMs, about: kind, by: "" }, "signal", viewer.id, amount);
  return {
    ...still(at, [{ did: "points/earned", count: amount, subject: at.settings.name }]),
    booking: { ...nothing, entries: [entry], names: { [viewer.id]: viewer.name } },
  };
}

/** Presence is paid in rounds: once for each round to everyone who wrote within the minutes that are set. */
function onTimer(at: At, nowMs: number, ctx: StepContext): Outcome {
  const { settings, durable, dust } = at;
  const everyMs = settings.presence.everyMin * minute;
  const nextMs = (Math.floor(nowMs / everyMs) + 1) * everyMs;
  if (durable.nextMs === null || durable.nextMs > nowMs) return { ...still(at), durable: { nextMs } };
  const round = Math.floor(nowMs / everyMs);
  const entries: ledger.Entry[] = [];
  const names: Record<string, string> = {};
  const heard = oncePerViewer(dust.heard, nowMs - settings.presence.withinMin * minute);
  if (ctx.showId !== null)
    for (const { viewer } of heard) {
      const amount = worthTo(settings, viewer, settings.presence.points, ctx.desk.earnedToday(viewer.id));
      if (amount === 0) continue;
      entries.push(
        ledger.earned({ key: `here:${round}:${viewer.id}`, atMs: nowMs, about: "presence", by: "" }, "presence", viewer.id, amount),
      );
      names[viewer.id] = viewer.name;
    }
  return { ...still(at), durable: { nextMs }, dust: chained(heard), booking: { ...nothing, entries, names } };
}

function onMessage(given: At, signal: MessageSignal, ctx: StepContext): Outcome {
  const { viewer } = signal;
  const { dust } = given;
  const full = dust.length >= mostHeard;
  const kept = full ? chained(oncePerViewer(dust.heard, signal.atMs - given.settings.presence.withinMin * minute)) : dust;
  const at: At = { ...given, dust: { heard: { viewer, atMs: signal.atMs, before: kept.heard }, length: kept.length + 1 } };
  const [first = "", second = "", third = ""] = signal.text.trim().split(/\s+/, 3);
  const word = fold(first);
  const is = (command: string): boolean => command !== "" && fold(command) === word;
  const { words, name } = at.settings;
  const say = (text: string): Outcome => ({
    ...still(at, [{ did: "points/answered", count: 1 }]),
    orders: [{ do: "say", text: `@${viewer.name} ${text}` }],
  });
  if (first === "" || first.length > 40) return still(at);
  if (is(words.balance)) return say(`${count(ctx.desk.balance(viewer.id))} ${name}`);
  if (is(words.top)) {
    const top = ctx.desk.top(5);
    return say(top.length === 0 ? `nobody has ${name} yet` : top.map((t, i) => `${i + 1}. ${t.name} ${count(t.balance)}`).join(" · "));
  }
  if (is(words.give)) return onGive(at, signal, second.replace(/^@/, ""), third, ctx);
  return still(at);
}

function onGive(at: At, { viewer, seq, atMs }: MessageSignal, toName: string, amountText: string, ctx: StepContext): Outcome {
  const { give, name, words } = at.settings;
  const answered = (why: Refusal): Outcome => {
    const refused = no(at, why);
    return { ...refused, orders: [{ do: "answer", to: viewer.name, note: refused.notes[0] ?? { count: 1 } }] };
  };
  if (!give.on) return answered(refusal("points/no-giving", { name }));
  const amount = /^\d{1,12}$/.test(amountText) ? Number(amountText) : 0;
  if (toName === "" || amount === 0) return answered(refusal("points/give-how", { word: words.give }));
  if (amount < give.least) return answered(refusal("points/too-little", { least: give.least, name }));
  const to = ctx.desk.named(toName);
  if (to === null) return answered(refusal("points/unknown-viewer", { viewer: toName }));
  if (to.id === viewer.id) return answered(refusal("points/to-oneself"));
  const has = ctx.desk.balance(viewer.id);
  if (has < amount) return answered(refusal("points/too-few", { has, name }));
  // A fee of at least one, where there is a fee.
  const fee = give.feeBp === 0 ? 0 : Math.max(1, Number((BigInt(amount) * BigInt(give.feeBp)) / 10_000n));
  const entry = ledger.given({ key: `give:${seq}`, atMs, about: to.name, by: "" }, viewer.id, to.id, amount, fee);
  const note: Note = { did: "points/given", count: amount - fee, subject: to.name, facts: { name, fee } };
  const orders: Order[] = [{ do: "answer", to: viewer.name, note }];
  return { ...still(at, [note]), orders, booking: { ...nothing, entries: [entry], names: { [viewer.id]: viewer.name, [to.id]: to.name } } };
}

export const pointsRules: GameRules<PointsSettings, PointsDurable, PointsDust, never> = {
  kind: "points",
  settings: pointsSchema,
  defaults: pointsDefaults,
  freshDurable: () => ({ nextMs: null }),
  freshDust: () => ({ heard: null, length: 0 }),
  durable: pointsDurableSchema,
  dueMs: (settings, durable) => (settings.presence.points === 0 ? null : (durable.nextMs ?? 0)),
  step: (at, signal, ctx) => {
    if (signal.kind === "message") return onMessage(at, signal, ctx);
    if (signal.kind === "timer") return onTimer(at, signal.atMs, ctx);
    if (signal.kind === "hand") {
      if (signal.hand.do !== "adjust") return no(at, refusal("game/cannot"));
      const { viewer, name, by, why } = signal.hand;
      if (by === 0) return no(at, refusal("points/nothing"));
      const has = ctx.desk.balance(viewer);
      if (has + by < 0) return no(at, refusal("points/below-none", { has, name: at.settings.name }));
      const entry = ledger.adjusted({ key: `adjust:${signal.id}`, atMs: signal.atMs, about: why, by: signal.by }, viewer, by);
      return {
        ...still(at, [{ did: "points/adjusted", count: by, subject: name, facts: { name: at.settings.name, why } }]),
        booking: { ...nothing, entries: [entry], names: { [viewer]: name } },
      };
    }
    if (isEarnKind(signal.kind)) {
      // What a gift made was paid to the giver.
      if (signal.kind === "membership" && signal.fromGift !== "") return still(at);
      return onEvent(at, signal.kind, signal, ctx);
    }
    return still(at);
  },
  view: (settings, _durable, audience) => (audience === "overlay" ? {} : { name: settings.name, words: settings.words }),
};
