import { compiled } from "../kernel/compiled";
import { fold } from "../kernel/fold";
import type { Order } from "../module/order";
import { refusal } from "../kernel/refusal";
import { cut } from "../kernel/text";
import type { Module, Note, StepContext } from "../module/module";
import * as ledger from "../points/ledger";
import { nextDue, perform, whatIsDue } from "../rules/effects";
import { pendingTo2, pendingTo3, rewardBookTo2, rewardBookTo3 } from "../rules/migrations";
import type { MessageSignal, PurchaseSignal, RedemptionSignal, Signal } from "../signals/signal";
import type { Viewer } from "../signals/names";
import { count } from "../words/sentence";
import { rewardCommands } from "./commands";
import type { Sale } from "./ledger-view";
import { nearest } from "./near";
import { rewardsLab } from "./lab";
import { costOf, offerTo } from "./redeem";
import { rewardRefusalInWords, rewardsFront } from "./words";
import { type Reward, type RewardBook, rewardBookDefaults, rewardBookSchema } from "./settings";
import { onCommand } from "./on-command";
import {
  rewardsDurableSchema,
  type RewardsDurable,
  type Unmet,
  mostUnmet,
  type At,
  type Outcome,
  still,
  no,
  nothing,
  redeemed,
  nextCode,
} from "./outcome";
const mostSeen = 100;
const mostNamed = 6;
/** So long after it should have begun, what no page has shown is told as not shown. */
const graceMs = 30_000;

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
    shown: !held && (reward.effects.length > 0 || reward.codes.length > 0),
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
          left: ctx.ledgerView.balance(viewer.id) - price,
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
    .map((r) => ({ name: wordsOf(r)[0] ?? r.name, cost: costOf(r, ctx.ledgerView, atMs) }))
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
      has: ctx.ledgerView.balance(viewer.id),
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
  // What it costs is told during a wait too, with the wait.
  const waitS = offer.ok ? undefined : offer.refusal.facts["freeInS"];
  if (!offer.ok && typeof waitS === "number")
    return {
      did: "reward/costs",
      count: costOf(reward, ctx.ledgerView, atMs),
      subject: reward.name,
      facts: { ...facts, waitS, own: offer.refusal.code === "reward/own-rest" },
    };
  return offer.ok || offer.refusal.code === "reward/too-poor"
    ? { did: "reward/costs", count: costOf(reward, ctx.ledgerView, atMs), subject: reward.name, facts }
    : { refusal: offer.refusal, count: 1, subject: reward.name };
}

/** Bought on the platform with its own points: ours stay as they are, all other limits hold. */
function onPurchase(given: At, signal: PurchaseSignal, ctx: StepContext): Outcome {
  const { item, title, atMs } = signal;
  const seen = [{ item, title, lastMs: atMs }, ...given.durable.seen.filter((s) => s.item !== item)].slice(0, mostSeen);
  const at: At = { ...given, durable: { ...given.durable, seen } };
  const reward = at.settings.rewards.find((r) => r.partner === item);
  if (reward === undefined) return no(at, refusal("reward/no-partner", { title }), title);
  const outcome = wants(at, { ...reward, price: 0, moving: null }, signal.viewer, signal.text, null, signal, ctx);
  const [note] = outcome.notes;
  if (note?.refusal === undefined) return outcome;
  // Their points on the platform are gone: they hear why nothing came, as somebody who pays with ours does, and a person
  // at the desk gives it to them or their points back.
  const { viewer, price, text } = signal;
  const who = { id: viewer.id, name: viewer.name };
  const unmet: Unmet = { id: signal.id, atMs, viewer: who, rewardId: reward.id, title, price, text, why: note.refusal };
  return {
    ...outcome,
    durable: { ...outcome.durable, unmet: [...outcome.durable.unmet.filter((u) => u.id !== signal.id), unmet].slice(-mostUnmet) },
    orders: [...(outcome.orders ?? []), { do: "answer", to: viewer.name, note }],
  };
}

/** Given by hand after all: no cooldown and no limit stands in the way, but what it needs must be there. */
export function givenAfterAll(at: At, unmet: Unmet, signal: Signal, ctx: StepContext): Outcome {
  const reward = at.settings.rewards.find((r) => r.id === unmet.rewardId);
  if (reward === undefined) return no(at, refusal("reward/gone"), unmet.title);
  const free = {
    ...reward,
    on: true,
    price: 0,
    moving: null,
    ownRestMs: 0,
    sharedRestMs: 0,
    perShow: 0,
    perViewerShow: 0,
    onlyOnAir: false,
  };
  const open = { ...free, keptFor: "", roles: ["viewer" as const] };
  return wants(at, open, { ...unmet.viewer, roles: [] }, unmet.text, null, signal, ctx);
}

function onRedemption(at: At, signal: RedemptionSignal, ctx: StepContext): Outcome {
  const reward = at.settings.rewards.find((r) => r.id === signal.rewardId);
  if (reward === undefined) return still(at);
  const { orders, later } = perform(reward.effects, signal, ctx, {
    id: `${signal.seq}.${reward.id}`,
    hidden: ctx.hiddenWords,
    fixed: true,
  });
  // What is to be seen or heard carries its sale, so that the page which shows it can say so.
  const sold = (list: readonly Order[]): Order[] =>
    list.map((o) => (o.do === "show" ? { ...o, alert: { ...o.alert, sale: signal.saleId } } : o));
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

/** Rewards: a part without a picture. What was sold is no state of its own but rows, read through the ledgerView. */
export const rewardsRules: Module<RewardBook, RewardsDurable, null, never> = {
  ...rewardsFront,
  settings: rewardBookSchema,
  defaults: rewardBookDefaults,
  settingsSteps: [rewardBookTo2, rewardBookTo3],
  stateSteps: [pendingTo2, pendingTo3],
  freshDurable: () => ({ pending: [], seen: [], unmet: [] }),
  freshDust: () => null,
  durable: rewardsDurableSchema,
  single: true,
  hears: ["message", "purchase-request", "purchase", "redemption"],
  lab: rewardsLab,
  provides: (book) => ({ sells: book.rewards.filter((r) => r.on).map((r) => r.id) }),
  commands: rewardCommands,
  givesBack: (sale) => ({ do: "sale", sale, what: "refund" }),
  saleOf: (command) => (command.do === "sale" || command.do === "sale-again" ? String(command["sale"]) : null),
  chatWords: (book) => [...Object.values(book.words), ...book.rewards.flatMap((r) => r.words)],
  wordsForViewers: ({ words }, name) => [
    { word: words.shop, what: `what you can have for your ${name}` },
    { word: words.price, what: "what something costs: the word and its name" },
  ],
  dueMs: (_, durable) => nextDue(durable.pending),
  step: (at, signal, ctx) => {
    switch (signal.kind) {
      case "message":
        return onMessage(at, signal, ctx);
      case "command":
        return onCommand(at, signal, ctx, givenAfterAll);
      case "redemption":
        return onRedemption(at, signal, ctx);
      case "purchase":
        return onPurchase(at, signal, ctx);
      case "purchase-request": {
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
  // Price tags need the ledgerView and the viewer who looks; the engine makes them with `tagsFor` (tags.ts).
  view: (_settings, { seen, unmet }, audience) =>
    audience === "operator"
      ? {
          seen,
          unmet: unmet.map(({ id, atMs, viewer, title, price, why }) => ({
            id,
            atMs,
            viewer: viewer.name,
            title,
            price,
            why: rewardRefusalInWords(why),
          })),
        }
      : {},
};
