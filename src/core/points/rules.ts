import { z } from "zod";
import { fold } from "../kernel/fold";
import type { Order } from "../module/order";
import { refusal, type Refusal } from "../kernel/refusal";
import type { Module, Note, StepContext, StepOutcome } from "../module/module";
import type { Booking } from "../rewards/ledger-view";
import { earned as earnedByRate } from "../signals/rate";
import type { CommandSignal, MessageSignal, Signal } from "../signals/signal";
import type { Viewer } from "../signals/names";
import { amountOf } from "../signals/tiers";
import { count } from "../words/sentence";
import { pointsLab } from "./lab";
import * as ledger from "./ledger";
import { type PointsCommand, pointsCommands } from "./commands";
import { pointsWordsForViewers } from "./words";
import { pointsFront } from "./notes";
import { earnKinds, type EarnKind, type PointsSettings, pointsDefaults, pointsSchema } from "./settings";

/** When presence is paid next. */
export const pointsDurableSchema = z.object({
  nextMs: z.number().nullable(),
  /** Marks of the lists that were taken in lately, so that one is not taken in twice. */
  takenIn: z.array(z.string()).default([]),
  /** Who owes how much: the next that they earn pays it back. */
  owes: z.array(z.tuple([z.string(), z.int().min(1)])).default([]),
});
export type PointsDurable = z.infer<typeof pointsDurableSchema>;
/**
 * Who wrote lately, newest first: one link a message, so that a message costs the same in a room of fifty and
 * of fifty thousand. Lost in a crash, which costs those a round of presence at most.
 */
type Heard = Readonly<{ viewer: Viewer; atMs: number; before: Heard | null }>;
/** `left`: who is yet to be paid in the round that runs. */
export type PointsTransient = Readonly<{ heard: Heard | null; length: number; left: readonly Heard[] }>;
type At = Readonly<{ settings: PointsSettings; durable: PointsDurable; transient: PointsTransient }>;
type Outcome = StepOutcome<PointsDurable, PointsTransient, never>;

const minute = 60_000;
const mostHeard = 100_000;
/** A round pays so many in one commit; the rest follows, and others come in between. */
export const mostAtOnce = 250;
const mostTakenIn = 50;
const nothing: Booking = { entries: [], sales: [], names: [], prices: [] };
const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, transient: at.transient, effects: [], notes });
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
function chained(newestFirst: readonly Heard[]): PointsTransient {
  let heard: Heard | null = null;
  for (let i = newestFirst.length - 1; i >= 0; i -= 1) {
    const { viewer, atMs } = newestFirst[i] ?? { viewer: null, atMs: 0 };
    if (viewer !== null) heard = { viewer, atMs, before: heard };
  }
  return { heard, length: newestFirst.length, left: [] };
}

function onEvent(at: At, kind: EarnKind, signal: Signal, ctx: StepContext): Outcome {
  const viewer = "viewer" in signal ? signal.viewer : null;
  if (viewer === null) return still(at);
  const { value } = earnedByRate(at.settings.signals[kind], amountOf(signal) ?? 0);
  const amount = worthTo(at.settings, viewer, value, ctx.ledgerView.earnedToday(viewer.id));
  if (amount === 0) return still(at);
  const entry = ledger.earned({ key: `sig:${signal.seq}`, atMs: signal.atMs, about: kind, by: "" }, "signal", viewer.id, amount);
  return repaying(
    {
      ...still(at, [{ did: "points/earned", count: amount, subject: at.settings.name }]),
      booking: { ...nothing, entries: [entry], names: [{ id: viewer.id, name: viewer.name }] },
    },
    [{ viewer: viewer.id, amount }],
    signal.atMs,
    `sig:${signal.seq}`,
  );
}

/** Who owes pays back out of what they earn, before anything else. */
function repaying(outcome: Outcome, earned: readonly Readonly<{ viewer: string; amount: number }>[], atMs: number, key: string): Outcome {
  const { owes } = outcome.durable;
  if (owes.length === 0 || outcome.booking === undefined) return outcome;
  const owing = new Map(owes);
  const entries: ledger.Entry[] = [];
  for (const { viewer, amount } of earned) {
    const debt = owing.get(viewer) ?? 0;
    const back = Math.min(debt, amount);
    if (back === 0) continue;
    if (back === debt) owing.delete(viewer);
    else owing.set(viewer, debt - back);
    entries.push(ledger.repaid({ key: `repaid:${key}:${viewer}`, atMs, about: "", by: "" }, viewer, back));
  }
  if (entries.length === 0) return outcome;
  return {
    ...outcome,
    durable: { ...outcome.durable, owes: [...owing] },
    booking: { ...outcome.booking, entries: [...outcome.booking.entries, ...entries] },
  };
}

/**
 * Presence is paid in rounds: once for each round to everyone who wrote, or had the viewer page open, within
 * the minutes that are set. A large room is paid in several commits, each due at once after the one before.
 */
function onTimer(at: At, nowMs: number, ctx: StepContext): Outcome {
  const { settings, durable, transient } = at;
  const everyMs = settings.presence.everyMin * minute;
  const round = Math.floor(nowMs / everyMs);
  if (durable.nextMs === null || durable.nextMs > nowMs) return { ...still(at), durable: { ...durable, nextMs: (round + 1) * everyMs } };
  const begun = transient.left.length > 0;
  const heard = begun ? transient.left : oncePerViewer(transient.heard, nowMs - settings.presence.withinMin * minute);
  const now = heard.slice(0, mostAtOnce);
  const left = ctx.showId === null ? [] : heard.slice(mostAtOnce);
  const to: { viewer: string; amount: number }[] = [];
  const names: { id: string; name: string }[] = [];
  if (ctx.showId !== null)
    for (const { viewer } of now) {
      const amount = worthTo(settings, viewer, settings.presence.points, ctx.ledgerView.earnedToday(viewer.id));
      if (amount === 0) continue;
      to.push({ viewer: viewer.id, amount });
      names.push({ id: viewer.id, name: viewer.name });
    }
  const head = { key: `here:${round}:${to[0]?.viewer ?? ""}`, atMs: nowMs, about: "", by: "" };
  const next = left.length > 0 ? durable.nextMs : (round + 1) * everyMs;
  const paid: Outcome = {
    ...still(at),
    durable: { ...durable, nextMs: next },
    transient: { ...(begun ? transient : chained(heard)), left },
    booking: to.length === 0 ? nothing : { ...nothing, entries: [ledger.earnedByMany(head, "presence", to)], names },
  };
  return repaying(paid, to, nowMs, `here:${round}`);
}

/** A round that is due further off than one round ever is was set by a clock that leapt and has been set right since. */
const rewound = (at: At, nowMs: number): At =>
  at.durable.nextMs === null || at.durable.nextMs - nowMs <= at.settings.presence.everyMin * minute
    ? at
    : { ...at, durable: { ...at.durable, nextMs: null } };

const hear = (at: At, viewer: Viewer, atMs: number): At => {
  const { transient } = at;
  const kept =
    transient.length >= mostHeard
      ? { ...chained(oncePerViewer(transient.heard, atMs - at.settings.presence.withinMin * minute)), left: transient.left }
      : transient;
  return { ...at, transient: { ...kept, heard: { viewer, atMs, before: kept.heard }, length: kept.length + 1 } };
};

function onMessage(given: At, signal: MessageSignal, ctx: StepContext): Outcome {
  const { viewer } = signal;
  const at = hear(given, viewer, signal.atMs);
  const [first = "", second = "", third = ""] = signal.text.trim().split(/\s+/, 3);
  const word = fold(first);
  const is = (command: string): boolean => command !== "" && fold(command) === word;
  const { words, name } = at.settings;
  const say = (text: string): Outcome => ({
    ...still(at, [{ did: "points/answered", count: 1 }]),
    orders: [{ do: "say", text: `@${viewer.name} ${text}` }],
  });
  if (first === "" || first.length > 40) return still(at);
  if (is(words.balance)) return say(`you have ${count(ctx.ledgerView.balance(viewer.id))} ${name}`);
  if (is(words.top)) {
    const top = ctx.ledgerView.top(5);
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
  const to = ctx.ledgerView.named(toName);
  if (to === null && ctx.ledgerView.areSeveral(toName)) return answered(refusal("viewer/several", { name: toName }));
  if (to === null) return answered(refusal("points/unknown-viewer", { viewer: toName }));
  if (to.id === viewer.id) return answered(refusal("points/to-oneself"));
  const has = ctx.ledgerView.balance(viewer.id);
  if (has < amount) return answered(refusal("points/too-few", { has, name }));
  // A fee of at least one, where there is a fee.
  const fee = give.feeBp === 0 ? 0 : Math.max(1, Number((BigInt(amount) * BigInt(give.feeBp)) / 10_000n));
  const entry = ledger.given({ key: `give:${seq}`, atMs, about: to.name, by: "" }, viewer.id, to.id, amount, fee);
  const note: Note = { did: "points/given", count: amount - fee, subject: to.name, facts: { name, fee } };
  const orders: Order[] = [{ do: "answer", to: viewer.name, note }];
  return { ...still(at, [note]), orders, booking: { ...nothing, entries: [entry], names: [{ id: viewer.id, name: viewer.name }, to] } };
}

function onCommand(at: At, signal: CommandSignal, ctx: StepContext): Outcome {
  const { name } = at.settings;
  const { by, atMs, id } = signal;
  // The engine has read it by the schemas in commands.ts.
  const command = signal.command as PointsCommand;
  if (ctx.rehearsing) return no(at, refusal("points/rehearsing", { name }));
  switch (command.do) {
    case "adjust": {
      if (command.by === 0) return no(at, refusal("points/nothing"));
      const has = ctx.ledgerView.balance(command.viewer);
      if (has + command.by < 0) return no(at, refusal("points/below-none", { has, name }));
      const entry = ledger.adjusted({ key: `adjust:${id}`, atMs, about: command.why, by }, command.viewer, command.by);
      return {
        ...still(at, [{ did: "points/adjusted", count: command.by, subject: command.name, facts: { name, why: command.why } }]),
        booking: { ...nothing, entries: [entry], names: [{ id: command.viewer, name: command.name }] },
      };
    }
    case "take-in": {
      if (at.durable.takenIn.includes(command.key)) return no(at, refusal("points/taken-in-already"));
      const entry = ledger.earnedByMany(
        { key: `in:${command.key}`, atMs, about: command.why, by },
        "opening",
        command.viewers.map((v) => ({ viewer: v.id, amount: v.by })),
      );
      return {
        ...still(at, [{ did: "points/taken-in", count: command.viewers.length, facts: { name, why: command.why } }]),
        durable: { ...at.durable, takenIn: [command.key, ...at.durable.takenIn].slice(0, mostTakenIn) },
        booking: { ...nothing, entries: [entry], names: command.viewers.map((v) => ({ id: v.id, name: v.name })) },
      };
    }
    case "owe": {
      const owing = new Map(at.durable.owes);
      for (const v of command.viewers) owing.set(v.id, (owing.get(v.id) ?? 0) + v.amount);
      const all = command.viewers.reduce((sum, v) => sum + v.amount, 0);
      return {
        ...still(at, [{ did: "points/owed", count: command.viewers.length, facts: { name, all, why: command.why } }]),
        durable: { ...at.durable, owes: [...owing] },
      };
    }
    case "merge": {
      if (command.from === command.to) return no(at, refusal("points/to-oneself"));
      const has = ctx.ledgerView.balance(command.from);
      if (has === 0) return no(at, refusal("points/nothing-there", { viewer: command.fromName, name }));
      // What one owes goes along with what one has.
      const owing = new Map(at.durable.owes);
      const debt = owing.get(command.from) ?? 0;
      owing.delete(command.from);
      if (debt > 0) owing.set(command.to, (owing.get(command.to) ?? 0) + debt);
      const entry = ledger.merged({ key: `merge:${id}`, atMs, about: command.fromName, by }, command.from, command.to, has);
      return {
        ...still(debt === 0 ? at : { ...at, durable: { ...at.durable, owes: [...owing] } }, [
          { did: "points/merged", count: has, subject: command.toName, facts: { name, from: command.fromName } },
        ]),
        booking: {
          ...nothing,
          entries: [entry],
          names: [
            { id: command.from, name: command.fromName },
            { id: command.to, name: command.toName },
          ],
        },
      };
    }
  }
}

export const pointsRules: Module<PointsSettings, PointsDurable, PointsTransient, never> = {
  ...pointsFront,
  settings: pointsSchema,
  defaults: pointsDefaults,
  freshDurable: () => ({ nextMs: null, takenIn: [], owes: [] }),
  freshDust: () => ({ heard: null, length: 0, left: [] }),
  durable: pointsDurableSchema,
  single: true,
  hears: ["message", "here", ...earnKinds],
  lab: pointsLab,
  commands: pointsCommands,
  provides: (settings) => ({ pointsName: settings.name, dayOffsetMin: settings.dayOffsetMin }),
  chatWords: (settings) => Object.values(settings.words),
  wordsForViewers: pointsWordsForViewers,
  dueMs: (settings, durable) => (settings.presence.points === 0 ? null : (durable.nextMs ?? 0)),
  step: (given, signal, ctx) => {
    const at = rewound(given, signal.atMs);
    if (signal.kind === "message") return onMessage(at, signal, ctx);
    if (signal.kind === "timer") return onTimer(at, signal.atMs, ctx);
    if (signal.kind === "here") return still(hear(at, signal.viewer, signal.atMs));
    if (signal.kind === "command") return onCommand(at, signal, ctx);
    if (isEarnKind(signal.kind)) {
      // What a gift made was paid to the giver.
      if (signal.kind === "membership" && signal.fromGift !== "") return still(at);
      return onEvent(at, signal.kind, signal, ctx);
    }
    return still(at);
  },
  view: (settings, _durable, audience) => (audience === "overlay" ? {} : { name: settings.name, words: settings.words }),
};
