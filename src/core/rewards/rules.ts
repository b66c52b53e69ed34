import { fold } from "../kernel/fold";
import type { Order } from "../kernel/order";
import { refusal, type Refusal } from "../kernel/refusal";
import type { GameRules, Note, StepContext, StepOutcome } from "../kernel/step";
import * as ledger from "../points/ledger";
import { pendingSchema, perform } from "../rules/deeds";
import type { HandSignal, MessageSignal, RedemptionSignal, Signal, Viewer } from "../signals/signal";
import { z } from "zod";
import type { Booking, Sale } from "./desk";
import { redeem } from "./redeem";
import { type Reward, type RewardBook, rewardBookDefaults, rewardBookSchema } from "./settings";

export const rewardsDurableSchema = z.object({ pending: z.array(pendingSchema) });
export type RewardsDurable = z.infer<typeof rewardsDurableSchema>;
type At = Readonly<{ settings: RewardBook; durable: RewardsDurable; dust: null }>;
type Outcome = StepOutcome<RewardsDurable, null, never>;
/** At most so many are given back at once, so that one press is one commit of bearable size. */
export const mostAtOnce = 500;

const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, dust: null, effects: [], notes });
const no = (at: At, why: Refusal, subject?: string): Outcome =>
  still(at, [{ refusal: why, count: 1, ...(subject === undefined ? {} : { subject }) }]);
const nothing: Booking = { entries: [], sales: [], names: {}, prices: [] };

const redeemed = (sale: Sale, viewer: Viewer): Order => ({
  do: "redeemed",
  viewer,
  saleId: sale.id,
  rewardId: sale.rewardId,
  reward: sale.rewardName,
  price: sale.price,
  text: sale.text,
});

/** A viewer wants a reward: by chat word, or from the viewer page. */
export function wants(
  at: At,
  reward: Reward,
  viewer: Viewer,
  text: string,
  shownPrice: number | null,
  signal: Signal,
  ctx: StepContext,
): Outcome {
  // Buying pauses under hush: nobody pays for what nobody sees.
  if (ctx.hushed) return no(at, refusal("reward/hushed", { reward: reward.name }), reward.name);
  const offer = redeem(reward, ctx.desk, { viewer, text, atMs: signal.atMs, onAir: ctx.showId !== null, shownPrice });
  if (!offer.ok) return no(at, offer.refusal, reward.name);
  const { price, priceAfter, held } = offer.value;
  const sale: Sale = {
    id: `s${signal.seq}`,
    atMs: signal.atMs,
    rewardId: reward.id,
    rewardName: reward.name,
    viewer: { id: viewer.id, name: viewer.name },
    price,
    text: text.trim().slice(0, 300),
    state: held ? "waiting" : "done",
    showId: ctx.showId ?? "",
    decidedBy: "",
    shown: !held && reward.deeds.length > 0,
  };
  const head = { key: `buy:${sale.id}`, atMs: signal.atMs, about: reward.name, by: "" };
  return {
    ...still(at, [{ did: held ? "reward/asked" : "reward/bought", count: price, subject: reward.name, facts: { sale: sale.id } }]),
    orders: held ? [] : [redeemed(sale, viewer)],
    booking: {
      // What costs nothing moves no points; it is a sale all the same.
      entries: price === 0 ? [] : [held ? ledger.asked(head, viewer.id, price) : ledger.bought(head, viewer.id, price)],
      sales: [sale],
      names: { [viewer.id]: viewer.name },
      prices: priceAfter === null ? [] : [{ rewardId: reward.id, at: priceAfter }],
    },
  };
}

function onMessage(at: At, signal: MessageSignal, ctx: StepContext): Outcome {
  const [first = ""] = signal.text.trim().split(/\s+/, 1);
  if (first === "" || first.length > 40) return still(at);
  const word = fold(first);
  const reward = at.settings.rewards.find((r) => r.words.some((w) => w !== "" && fold(w) === word));
  if (reward === undefined) return still(at);
  const text = signal.text.trim().slice(first.length).trim();
  const outcome = wants(at, reward, signal.viewer, reward.text.how === "none" ? "" : text, null, signal, ctx);
  const [note] = outcome.notes;
  return note === undefined ? outcome : { ...outcome, orders: [...(outcome.orders ?? []), { do: "answer", to: signal.viewer.name, note }] };
}

/** Gives back what a sale cost; the price comes from where it lies. */
const backOf = (sale: Sale, atMs: number, by: string): Booking => ({
  ...nothing,
  entries:
    sale.price === 0
      ? []
      : [
          ledger.refunded(
            { key: `back:${sale.id}`, atMs, about: sale.rewardName, by },
            sale.viewer.id,
            sale.price,
            sale.state === "waiting" ? "held" : "spent",
          ),
        ],
  sales: [{ ...sale, state: "refunded", decidedBy: by }],
});

function onHand(at: At, signal: HandSignal, ctx: StepContext): Outcome {
  const { hand, by, atMs } = signal;
  switch (hand.do) {
    case "sale": {
      const sale = ctx.desk.sale(hand.sale);
      if (sale === null) return no(at, refusal("sale/unknown"));
      if (sale.state === "refunded") return no(at, refusal("sale/refunded-already"), sale.rewardName);
      if (hand.what === "refund")
        return {
          ...still(at, [{ did: "reward/refunded", count: sale.price, subject: sale.viewer.name, facts: { reward: sale.rewardName } }]),
          booking: backOf(sale, atMs, by),
        };
      if (sale.state === "done") return no(at, refusal("sale/done-already"), sale.rewardName);
      const done: Sale = { ...sale, state: "done", decidedBy: by, shown: true };
      return {
        ...still(at, [{ did: "reward/done", count: sale.price, subject: sale.viewer.name, facts: { reward: sale.rewardName } }]),
        orders: [redeemed(done, { ...sale.viewer, roles: [] })],
        booking: {
          ...nothing,
          entries: sale.price === 0 ? [] : [ledger.done({ key: `done:${sale.id}`, atMs, about: sale.rewardName, by }, sale.price)],
          sales: [done],
        },
      };
    }
    case "refund-all": {
      const all = ctx.desk.waiting().filter((s) => s.rewardId === hand.reward);
      if (all.length === 0) return no(at, refusal("sale/none-waits"));
      const bookings = all.slice(0, mostAtOnce).map((sale) => backOf(sale, atMs, by));
      return {
        ...still(at, [{ did: "reward/refunded-all", count: bookings.length, subject: all[0]?.rewardName ?? "" }]),
        booking: { ...nothing, entries: bookings.flatMap((b) => b.entries), sales: bookings.flatMap((b) => b.sales) },
      };
    }
    default:
      return no(at, refusal("game/cannot"));
  }
}

function onRedemption(at: At, signal: RedemptionSignal, ctx: StepContext): Outcome {
  const reward = at.settings.rewards.find((r) => r.id === signal.rewardId);
  if (reward === undefined) return still(at);
  const { orders, later } = perform(reward.deeds, signal, ctx, { id: `${signal.seq}.${reward.id}`, hidden: [] });
  const durable = later.length === 0 ? at.durable : { pending: [...at.durable.pending, ...later] };
  return { ...still(at), durable, orders };
}

/** Rewards: a part without a picture. What was sold is no state of its own but rows, read through the desk. */
export const rewardsRules: GameRules<RewardBook, RewardsDurable, null, never> = {
  kind: "rewards",
  settings: rewardBookSchema,
  defaults: rewardBookDefaults,
  freshDurable: () => ({ pending: [] }),
  freshDust: () => null,
  durable: rewardsDurableSchema,
  dueMs: (_, durable) => durable.pending.reduce<number | null>((due, p) => (due === null || p.dueMs < due ? p.dueMs : due), null),
  step: (at, signal, ctx) => {
    switch (signal.kind) {
      case "message":
        return onMessage(at, signal, ctx);
      case "hand":
        return onHand(at, signal, ctx);
      case "redemption":
        return onRedemption(at, signal, ctx);
      case "timer": {
        const due = at.durable.pending.filter((p) => p.dueMs <= signal.atMs);
        if (due.length === 0) return still(at);
        return {
          ...still(at),
          durable: { pending: at.durable.pending.filter((p) => p.dueMs > signal.atMs) },
          orders: due.flatMap((p) => p.orders),
        };
      }
      default:
        return still(at);
    }
  },
  // What a viewer may know of a reward is its price tag; how it is limited is told when it is refused.
  view: (settings, _durable, audience) =>
    audience === "overlay"
      ? {}
      : {
          rewards: settings.rewards
            .filter((r) => r.on && r.keptFor === "")
            .map(({ id, name, about, price, words, category }) => ({ id, name, about, price, words, category })),
        },
};
