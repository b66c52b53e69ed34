import { compiled } from "../kernel/compiled";
import { fold } from "../kernel/fold";
import type { Order } from "../kernel/order";
import { refusal, type Refusal } from "../kernel/refusal";
import { cut } from "../kernel/text";
import type { GameRules, Note, StepContext, StepOutcome } from "../kernel/step";
import * as ledger from "../points/ledger";
import { nextDue, pendingSchema, perform, whatIsDue } from "../rules/deeds";
import {
  type HandSignal,
  type MessageSignal,
  type PurchaseSignal,
  type RedemptionSignal,
  type Signal,
  type Viewer,
} from "../signals/signal";
import { count } from "../words/sentence";
import { z } from "zod";
import type { Booking, Sale } from "./desk";
import { nearest } from "./near";
import { costOf, offerTo } from "./redeem";
import { type Reward, type RewardBook, rewardBookDefaults, rewardBookSchema } from "./settings";

export const rewardsDurableSchema = z.object({
  pending: z.array(pendingSchema),
  /** What the platform was seen to sell, newest first: partners are picked from these, never typed. */
  seen: z.array(z.object({ item: z.string(), title: z.string(), lastMs: z.number() })).default([]),
});
export type RewardsDurable = z.infer<typeof rewardsDurableSchema>;
type At = Readonly<{ settings: RewardBook; durable: RewardsDurable; dust: null }>;
type Outcome = StepOutcome<RewardsDurable, null, never>;
/** At most so many are given back at once, so that one press is one commit of bearable size. */
export const mostAtOnce = 500;
const mostSeen = 100;
const mostNamed = 6;
/** So long after it should have begun, what no page has shown is told as not shown. */
const graceMs = 30_000;

const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, dust: null, effects: [], notes });
const no = (at: At, why: Refusal, subject?: string): Outcome =>
  still(at, [{ refusal: why, count: 1, ...(subject === undefined ? {} : { subject }) }]);
const nothing: Booking = { entries: [], sales: [], names: [], prices: [] };

const redeemed = (sale: Sale, viewer: Viewer): Order => ({
  do: "redeemed",
  viewer,
  saleId: sale.id,
  rewardId: sale.rewardId,
  reward: sale.rewardName,
  price: sale.price,
  text: sale.text,
});

/** The next code that nobody has yet; none where there are none. */
const nextCode = (reward: Reward | undefined, ctx: StepContext): string =>
  reward === undefined || reward.codes.length === 0 ? "" : (reward.codes[ctx.desk.handed(reward.id)] ?? "");

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
  const offer = offerTo(reward, viewer, ctx, { atMs: signal.atMs, text, shownPrice });
  if (!offer.ok) return no(at, offer.refusal, reward.name);
  const { price, priceAfter, held } = offer.value;
  const sale: Sale = {
    id: `s${signal.seq}`,
    atMs: signal.atMs,
    rewardId: reward.id,
    rewardName: reward.name,
    viewer: { id: viewer.id, name: viewer.name },
    price,
    // Words that are not wanted are not kept, whichever way they came.
    text: reward.text.how === "none" ? "" : cut(text.trim(), 300),
    state: held ? "waiting" : "done",
    showId: ctx.showId ?? "",
    decidedBy: "",
    times: 0,
    code: held ? "" : nextCode(reward, ctx),
    shown: !held && (reward.deeds.length > 0 || reward.codes.length > 0),
  };
  const head = { key: `buy:${sale.id}`, atMs: signal.atMs, about: reward.name, by: "" };
  return {
    ...still(at, [
      {
        did: held ? "reward/asked" : "reward/bought",
        count: price,
        subject: reward.name,
        facts: {
          sale: sale.id,
          ...(sale.code === "" ? {} : { code: true }),
          left: ctx.desk.balance(viewer.id) - price,
          name: ctx.pointsName,
        },
      },
    ]),
    orders: held ? [] : [redeemed(sale, viewer)],
    booking: {
      // What costs nothing moves no points; it is a sale all the same.
      entries: price === 0 ? [] : [held ? ledger.asked(head, viewer.id, price) : ledger.bought(head, viewer.id, price)],
      sales: [sale],
      names: [{ id: viewer.id, name: viewer.name }],
      prices: priceAfter === null ? [] : [{ rewardId: reward.id, at: priceAfter }],
    },
  };
}

const wordsOf = (reward: Reward): readonly string[] => reward.words.filter((w) => w !== "");
/** Every chat message looks here, so the words of hundreds of rewards are folded once. */
const rewardsByWord = compiled((book: RewardBook) => new Map(book.rewards.flatMap((r) => wordsOf(r).map((w) => [fold(w), r] as const))));

function onMessage(at: At, signal: MessageSignal, ctx: StepContext): Outcome {
  const [first = ""] = signal.text.trim().split(/\s+/, 1);
  if (first === "" || first.length > 40) return still(at);
  const word = fold(first);
  const { rewards, words } = at.settings;
  const text = signal.text.trim().slice(first.length).trim();
  const answered = (outcome: Outcome): Outcome => {
    const [note] = outcome.notes;
    return note === undefined
      ? outcome
      : { ...outcome, orders: [...(outcome.orders ?? []), { do: "answer", to: signal.viewer.name, note }] };
  };
  const reward = rewardsByWord(at.settings).get(word);
  // What is private is no matter for chat.
  if (reward !== undefined && reward.detail !== "")
    return answered(no(at, refusal("reward/page-only", { reward: reward.name }), reward.name));
  if (reward !== undefined) return answered(wants(at, reward, signal.viewer, text, null, signal, ctx));
  if (words.shop !== "" && fold(words.shop) === word) return answered(still(at, [whatThereIs(at, signal, ctx)]));
  if (words.price !== "" && fold(words.price) === word) return answered(still(at, [whatItCosts(at, text, signal, ctx)]));
  // Only what looks like a command, and is none of anything else here, was probably a slip.
  if (!/^[!?.]/.test(first) || ctx.isWord(first)) return still(at);
  const meant = nearest(first, rewards.filter((r) => r.on && r.keptFor === "").flatMap(wordsOf));
  return meant === null ? still(at) : answered(no(at, refusal("reward/near", { word: meant })));
}

/** What this viewer could have now, cheapest first. */
function whatThereIs({ settings }: At, { viewer, atMs }: MessageSignal, ctx: StepContext): Note {
  const now = settings.rewards
    .filter((r) => offerTo(r, viewer, ctx, { atMs }).ok)
    .map((r) => ({ name: wordsOf(r)[0] ?? r.name, cost: costOf(r, ctx.desk, atMs) }))
    .sort((a, b) => a.cost - b.cost || (a.name < b.name ? -1 : 1));
  return {
    did: "reward/listed",
    count: now.length,
    facts: {
      list: now
        .slice(0, mostNamed)
        .map((r) => `${r.name} ${count(r.cost)}`)
        .join(" · "),
      more: Math.max(0, now.length - mostNamed),
      has: ctx.desk.balance(viewer.id),
      name: ctx.pointsName,
    },
  };
}

function whatItCosts({ settings }: At, asked: string, { viewer, atMs }: MessageSignal, ctx: StepContext): Note {
  const sold = settings.rewards.filter((r) => r.on && (r.keptFor === "" || r.keptFor === viewer.id));
  const names = sold.flatMap((r) => [r.name, ...wordsOf(r)]);
  const meant = fold(asked);
  const is = (r: Reward): boolean => [r.name, ...wordsOf(r), ...wordsOf(r).map((w) => w.slice(1))].some((w) => fold(w) === meant);
  const near = nearest(asked, names);
  const reward = sold.find(is) ?? (near === null ? undefined : sold.find((r) => r.name === near || wordsOf(r).includes(near)));
  if (asked === "" || reward === undefined) return { refusal: refusal("reward/which", { word: settings.words.price }), count: 1 };
  const offer = offerTo(reward, viewer, ctx, { atMs });
  const facts = { name: ctx.pointsName, word: wordsOf(reward)[0] ?? "" };
  return offer.ok || offer.refusal.code === "reward/too-poor"
    ? { did: "reward/costs", count: costOf(reward, ctx.desk, atMs), subject: reward.name, facts }
    : { refusal: offer.refusal, count: 1, subject: reward.name };
}

/** Bought on the platform with its own points: ours stay as they are, all other limits hold. */
function onPurchase(given: At, signal: PurchaseSignal, ctx: StepContext): Outcome {
  const { item, title, atMs } = signal;
  const seen = [{ item, title, lastMs: atMs }, ...given.durable.seen.filter((s) => s.item !== item)].slice(0, mostSeen);
  const at: At = { ...given, durable: { ...given.durable, seen } };
  const reward = at.settings.rewards.find((r) => r.partner === item);
  if (reward === undefined) return no(at, refusal("reward/no-partner", { title }), title);
  return wants(at, { ...reward, price: 0, moving: null }, signal.viewer, signal.text, null, signal, ctx);
}

/** Gives back what a sale cost; the price comes from where it lies. */
const backOf = (sale: Sale, atMs: number, by: string): Booking => ({
  ...nothing,
  entries:
    sale.price === 0
      ? []
      : [
          ledger.refunded(
            { key: `back:${sale.id}:${sale.times}`, atMs, about: sale.rewardName, by },
            sale.viewer.id,
            sale.price,
            sale.state === "waiting" ? "held" : "spent",
          ),
        ],
  sales: [{ ...sale, state: "refunded", decidedBy: by }],
});

function onHand(at: At, signal: HandSignal, ctx: StepContext): Outcome {
  const { hand, by, atMs } = signal;
  // It would look decided, and be forgotten with the rehearsal.
  if (ctx.rehearsing) return no(at, refusal("sale/rehearsing"));
  switch (hand.do) {
    case "sale": {
      const sale = ctx.desk.sale(hand.sale);
      if (sale === null) return no(at, refusal("sale/unknown"));
      if (hand.seen !== undefined && hand.seen !== sale.state)
        return no(at, refusal("sale/decided-by", { by: sale.decidedBy, state: sale.state }), sale.rewardName);
      if (sale.state === "refunded") return no(at, refusal("sale/refunded-already"), sale.rewardName);
      if (hand.what === "refund")
        return {
          ...still(at, [{ did: "reward/refunded", count: sale.price, subject: sale.viewer.name, facts: { reward: sale.rewardName } }]),
          booking: backOf(sale, atMs, by),
        };
      if (hand.what === "undone") {
        if (sale.state !== "done") return no(at, refusal("sale/not-done"), sale.rewardName);
        const head = { key: `undone:${sale.id}:${sale.times}`, atMs, about: sale.rewardName, by };
        return {
          ...still(at, [{ did: "reward/undone", count: sale.price, subject: sale.viewer.name, facts: { reward: sale.rewardName } }]),
          booking: {
            ...nothing,
            entries: sale.price === 0 ? [] : [ledger.undone(head, sale.price)],
            sales: [{ ...sale, state: "waiting", decidedBy: "", times: sale.times + 1 }],
          },
        };
      }
      if (hand.what === "play") {
        if (sale.state !== "done") return no(at, refusal("sale/not-done"), sale.rewardName);
        if (!at.settings.rewards.some((r) => r.id === sale.rewardId)) return no(at, refusal("reward/gone"), sale.rewardName);
        return {
          ...still(at, [{ did: "reward/played", count: 1, subject: sale.viewer.name, facts: { reward: sale.rewardName } }]),
          orders: [redeemed(sale, { ...sale.viewer, roles: [] })],
        };
      }
      if (sale.state === "done") return no(at, refusal("sale/done-already"), sale.rewardName);
      const reward = at.settings.rewards.find((r) => r.id === sale.rewardId);
      const code = sale.code === "" ? nextCode(reward, ctx) : sale.code;
      const done: Sale = { ...sale, state: "done", decidedBy: by, shown: true, code };
      return {
        ...still(at, [{ did: "reward/done", count: sale.price, subject: sale.viewer.name, facts: { reward: sale.rewardName } }]),
        orders: [redeemed(done, { ...sale.viewer, roles: [] })],
        booking: {
          ...nothing,
          entries:
            sale.price === 0 ? [] : [ledger.done({ key: `done:${sale.id}:${sale.times}`, atMs, about: sale.rewardName, by }, sale.price)],
          sales: [done],
        },
      };
    }
    case "sale-again": {
      // A refund that was a slip: the points are taken again, if they are still there.
      const sale = ctx.desk.sale(hand.sale);
      if (sale === null) return no(at, refusal("sale/unknown"));
      if (sale.state !== "refunded") return no(at, refusal("sale/not-refunded"), sale.rewardName);
      const has = ctx.desk.balance(sale.viewer.id);
      if (has < sale.price)
        return no(at, refusal("sale/spent-since", { viewer: sale.viewer.name, has, price: sale.price }), sale.rewardName);
      const head = { key: `again:${sale.id}:${signal.id}`, atMs, about: sale.rewardName, by };
      const entry = sale.shown ? ledger.bought(head, sale.viewer.id, sale.price) : ledger.asked(head, sale.viewer.id, sale.price);
      return {
        ...still(at, [{ did: "reward/again", count: sale.price, subject: sale.viewer.name, facts: { reward: sale.rewardName } }]),
        booking: {
          ...nothing,
          entries: sale.price === 0 ? [] : [entry],
          sales: [{ ...sale, state: sale.shown ? "done" : "waiting", decidedBy: by, times: sale.times + 1 }],
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
  const { orders, later } = perform(reward.deeds, signal, ctx, { id: `${signal.seq}.${reward.id}`, hidden: ctx.hiddenWords });
  // What is to be seen or heard carries its sale, so that the page which shows it can say so.
  const sold = (list: readonly Order[]): Order[] =>
    list.map((o) => (o.do === "show" ? { ...o, moment: { ...o.moment, sale: signal.saleId } } : o));
  const pending = later.map((p) => ({ ...p, orders: sold(p.orders) }));
  const shown = [...orders, ...pending.flatMap((p) => p.orders)].some((o) => o.do === "show");
  const untilMs = (pending[pending.length - 1]?.dueMs ?? signal.atMs) + graceMs;
  const durable = later.length === 0 ? at.durable : { ...at.durable, pending: [...at.durable.pending, ...pending] };
  return {
    ...still(at),
    durable,
    orders: sold(orders),
    ...(shown ? { booking: { ...nothing, due: [{ sale: signal.saleId, untilMs }] } } : {}),
  };
}

/** Rewards: a part without a picture. What was sold is no state of its own but rows, read through the desk. */
export const rewardsRules: GameRules<RewardBook, RewardsDurable, null, never> = {
  kind: "rewards",
  settings: rewardBookSchema,
  defaults: rewardBookDefaults,
  freshDurable: () => ({ pending: [], seen: [] }),
  freshDust: () => null,
  durable: rewardsDurableSchema,
  dueMs: (_, durable) => nextDue(durable.pending),
  step: (at, signal, ctx) => {
    switch (signal.kind) {
      case "message":
        return onMessage(at, signal, ctx);
      case "hand":
        return onHand(at, signal, ctx);
      case "redemption":
        return onRedemption(at, signal, ctx);
      case "purchase":
        return onPurchase(at, signal, ctx);
      case "wish": {
        const reward = at.settings.rewards.find((r) => r.id === signal.rewardId);
        if (reward === undefined) return no(at, refusal("reward/gone"));
        return wants(at, reward, signal.viewer, signal.text, signal.shownPrice, signal, ctx);
      }
      case "timer": {
        const { orders, rest } = whatIsDue(at.durable.pending, signal.atMs);
        return orders.length === 0 ? still(at) : { ...still(at), durable: { ...at.durable, pending: rest }, orders };
      }
      default:
        return still(at);
    }
  },
  // Price tags need the desk and the viewer who looks; the engine makes them with `tagsFor` (tags.ts).
  view: (_settings, durable, audience) => (audience === "operator" ? { seen: durable.seen } : {}),
};
