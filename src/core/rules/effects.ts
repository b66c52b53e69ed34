import { z } from "zod";
import { findEmotes } from "../chat/emotes";
import { actionOf } from "../games/words";
import { exhaustive } from "../kernel/refusal";
import { type Order, orderSchema } from "../module/order";
import { emoteSourceSchema } from "../module/fields";
import { entriesOf } from "../module/field-of";
import type { StepContext } from "../module/module";
import { alertLookDefaults, lengthOf } from "../alerts/alert";
import { moneyInWords } from "../signals/money-words";
import { earned } from "../signals/rate";
import type { Signal } from "../signals/signal";
import { nameOf } from "../signals/names";
import { amountOf } from "../signals/tiers";
import { fillTemplate, showable, type Values } from "../words/template";
import type { RuleEffect } from "./effect";

/** The variables a text may use, by the kind of signal it answers. */
export const variablesOf: Readonly<Record<string, readonly string[]>> = {
  message: ["viewer", "text", "channel"],
  follow: ["viewer", "channel"],
  membership: ["viewer", "months", "text", "channel"],
  gift: ["viewer", "count", "recipient", "channel"],
  tip: ["viewer", "amount", "text", "channel"],
  reaction: ["viewer", "count", "reaction", "text", "channel"],
  raid: ["viewer", "viewers", "channel"],
  host: ["viewer", "viewers", "channel"],
  arrival: ["viewer", "shows", "channel"],
  live: ["channel"],
  ended: ["channel"],
  timer: ["channel"],
  purchase: ["viewer", "text", "reward", "price", "channel"],
  redemption: ["viewer", "text", "reward", "price", "channel"],
  happened: ["viewer", "game", "amount", "text", "channel"],
  cue: ["channel"],
};

/** What the variables stand for. Only what viewers wrote is cleaned; numbers stay numbers, for plural forms. */
export function valuesOf(signal: Signal, ctx: StepContext, hidden: readonly string[]): Values {
  const channel = ctx.channelName;
  const who = (viewer: Parameters<typeof nameOf>[0]): string => showable(nameOf(viewer), hidden, 40);
  switch (signal.kind) {
    case "message":
      return { channel, viewer: who(signal.viewer), text: showable(signal.text, hidden) };
    case "follow":
      return { channel, viewer: who(signal.viewer) };
    case "membership":
      return { channel, viewer: who(signal.viewer), months: signal.months, text: showable(signal.text, hidden) };
    case "gift":
      return { channel, viewer: who(signal.viewer), count: signal.count, recipient: showable(signal.recipients[0] ?? "", hidden, 40) };
    case "tip":
      return {
        channel,
        viewer: who(signal.viewer),
        amount: moneyInWords(signal.amountMinor, signal.currency),
        text: showable(signal.text, hidden),
      };
    case "reaction":
      return {
        channel,
        viewer: who(signal.viewer),
        count: signal.count,
        reaction: showable(signal.reaction, hidden, 40),
        text: showable(signal.text, hidden),
      };
    case "raid":
    case "host":
      return { channel, viewer: who(signal.viewer), viewers: signal.viewers };
    case "arrival":
      return { channel, viewer: who(signal.viewer), shows: signal.shows };
    case "happened":
      return {
        channel,
        viewer: who(signal.viewer),
        game: ctx.gameName(signal.gameId),
        amount: signal.amount,
        text: showable(signal.text, hidden),
      };
    case "purchase":
    case "redemption":
      return {
        channel,
        viewer: who(signal.viewer),
        text: showable(signal.text, hidden),
        reward: signal.kind === "purchase" ? showable(signal.title, hidden, 60) : signal.reward,
        price: signal.price,
      };
    case "live":
    case "ended":
    case "forecast":
    case "timer":
    case "cue":
    case "command":
    case "purchase-request":
    case "here":
      return { channel };
    default:
      return exhaustive(signal);
  }
}

/** What follows a wait: ready orders and when they are due. Durable, so that a wait outlives a restart. */
export const pendingSchema = z.object({ dueMs: z.number(), id: z.string(), orders: z.array(orderSchema) });
export type Pending = z.infer<typeof pendingSchema>;

/** When the first of what waits is due; null when nothing waits. */
export const nextDue = (pending: readonly Pending[]): number | null =>
  pending.reduce<number | null>((due, p) => (due === null || p.dueMs < due ? p.dueMs : due), null);
/** What is due by now, and what goes on waiting. */
export const whatIsDue = (pending: readonly Pending[], nowMs: number): Readonly<{ orders: readonly Order[]; rest: Pending[] }> => ({
  orders: pending.filter((p) => p.dueMs <= nowMs).flatMap((p) => p.orders),
  rest: pending.filter((p) => p.dueMs > nowMs),
});

/** A variable that stands for nothing leaves no gap. */
const filled = (text: string, values: Values): string => fillTemplate(text, values).replace(/ {2,}/g, " ").trim();

/** The emotes of a message; of paid reactions their own picture, the prop that is called as they are. */
const messageKeys = (signal: Signal, ctx: StepContext): readonly string[] =>
  signal.kind === "reaction"
    ? [ctx.pictureNamed(signal.reaction)].filter((key) => key !== null)
    : signal.kind === "message"
      ? findEmotes(signal.text, signal.marks, ctx.emotes, { own: true, marked: true, emoji: true }).map((e) => e.key)
      : [];

/** What an action is given for this signal; null when that is nothing: an amount of 0, or no emotes in the message. */
function inputOf(
  effect: Extract<RuleEffect, { do: "act" }>,
  signal: Signal,
  ctx: StepContext,
  fixed: boolean,
  values: Values,
): Record<string, unknown> | null {
  const input: Record<string, unknown> = {};
  for (const [name, field] of entriesOf(actionOf(ctx.gameKind(effect.game), effect.act)?.input ?? {})) {
    const given = Object.hasOwn(effect.input, name) ? effect.input[name] : field.start;
    input[name] = given;
    if (field.kind === "amount" && typeof given === "number" && Number.isSafeInteger(given) && given >= 0) {
      const { value } = earned({ give: given, per: effect.per }, fixed ? effect.per : (amountOf(signal) ?? 0));
      if (value === 0) return null;
      input[name] = Math.min(field.most, value);
    }
    if (field.kind === "text" && typeof given === "string") input[name] = filled(given, values);
    const source = field.kind === "emotes" ? emoteSourceSchema.safeParse(given) : null;
    if (source?.success === true && source.data.from === "message") {
      const keys = [...new Set(messageKeys(signal, ctx))].slice(0, 50);
      if (keys.length === 0) return null;
      input[name] = { from: "chosen", chosen: keys };
    }
  }
  return input;
}

/** One effect as an order; null when there is nothing to do (an amount of nothing, no emotes in the message). */
function orderOf(effect: RuleEffect, signal: Signal, ctx: StepContext, values: Values, id: string, fixed: boolean): Order | null {
  const viewer = "viewer" in signal ? signal.viewer : null;
  switch (effect.do) {
    case "act": {
      const input = inputOf(effect, signal, ctx, fixed, values);
      const sale = signal.kind === "redemption" ? { sale: signal.saleId } : {};
      return input === null ? null : { do: "command", gameId: effect.game, viewer, command: { ...input, do: effect.act }, ...sale };
    }
    case "show": {
      const picture = effect.picture === "" ? "" : `prop:${effect.picture}`;
      const plays = Math.max(effect.sound === "" ? 0 : ctx.soundMs(effect.sound), effect.picture === "" ? 0 : ctx.videoMs(effect.picture));
      const ms = lengthOf(effect.ms, plays);
      const shown = filled(effect.text, values);
      return {
        do: "show",
        queue: effect.queue,
        alert: { id, picture, sound: effect.sound, volume: effect.volume / 100, text: shown, ms, look: effect.look },
      };
    }
    case "sound": {
      const ms = lengthOf(0, ctx.soundMs(effect.sound));
      return {
        do: "show",
        queue: effect.queue,
        alert: { id, picture: "", sound: effect.sound, volume: effect.volume / 100, text: "", ms, look: alertLookDefaults },
      };
    }
    case "say":
      return { do: "say", text: filled(effect.text, values) };
    case "switch":
      return { do: "command", gameId: effect.game, viewer: null, command: { do: "switch", on: effect.on } };
    case "cue":
      return { do: "cue", cueId: effect.cue, by: nameOf(viewer), via: signal.kind === "redemption" ? "reward" : "rundown" };
    case "wait":
      return null;
    default:
      return exhaustive(effect);
  }
}

/** Carries effects out up to the first wait; what follows waits comes back with its times. */
export function perform(
  effects: readonly RuleEffect[],
  signal: Signal,
  ctx: StepContext,
  /** `fixed`: amounts are what they say, whatever the signal’s. */
  at: Readonly<{ id: string; hidden: readonly string[]; fixed?: boolean }>,
): Readonly<{ orders: readonly Order[]; later: readonly Pending[] }> {
  const values = valuesOf(signal, ctx, at.hidden);
  const groups: Pending[] = [{ dueMs: signal.atMs, id: at.id, orders: [] }];
  effects.forEach((effect, i) => {
    const last = groups[groups.length - 1];
    if (last === undefined) return;
    if (effect.do === "wait") return void groups.push({ dueMs: last.dueMs + effect.ms, id: at.id, orders: [] });
    const order = orderOf(effect, signal, ctx, values, `${at.id}.${i}`, at.fixed === true);
    if (order !== null) last.orders.push(order);
  });
  const [first, ...later] = groups;
  return { orders: first?.orders ?? [], later: later.filter((g) => g.orders.length > 0) };
}
