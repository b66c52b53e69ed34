import { refusal } from "../kernel/refusal";
import type { StepContext } from "../module/module";
import * as ledger from "../points/ledger";
import { type CommandSignal } from "../signals/signal";
import { type RewardCommand } from "./commands";
import type { Booking, Sale } from "./ledger-view";
import { type At, type Outcome, type Unmet, mostAtOnce, still, no, nothing, redeemed, nextCode } from "./outcome";

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

/** How something is given that was refused before: by the shop's own rules. */
type Give = (at: At, unmet: Unmet, signal: CommandSignal, ctx: StepContext) => Outcome;

export function onCommand(at: At, signal: CommandSignal, ctx: StepContext, give: Give): Outcome {
  const { by, atMs } = signal;
  // The engine has read it by the schemas in commands.ts.
  const command = signal.command as RewardCommand;
  // It would look decided, and be forgotten with the rehearsal.
  if (ctx.rehearsing) return no(at, refusal("sale/rehearsing"));
  switch (command.do) {
    case "sale": {
      const sale = ctx.ledgerView.sale(command.sale);
      if (sale === null) return no(at, refusal("sale/unknown"));
      if (command.seen !== undefined && command.seen !== sale.state)
        return no(at, refusal("sale/decided-by", { by: sale.decidedBy, state: sale.state }), sale.rewardName);
      if (sale.state === "refunded") return no(at, refusal("sale/refunded-already"), sale.rewardName);
      if (command.what === "refund")
        return {
          ...still(at, [{ did: "reward/refunded", count: sale.price, subject: sale.viewer.name, facts: { reward: sale.rewardName } }]),
          booking: backOf(sale, atMs, by),
        };
      if (command.what === "undone") {
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
      if (command.what === "play") {
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
      const sale = ctx.ledgerView.sale(command.sale);
      if (sale === null) return no(at, refusal("sale/unknown"));
      if (sale.state !== "refunded") return no(at, refusal("sale/not-refunded"), sale.rewardName);
      const has = ctx.ledgerView.balance(sale.viewer.id);
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
    case "unmet": {
      const unmet = at.durable.unmet.find((u) => u.id === command.id);
      if (unmet === undefined) return no(at, refusal("sale/settled-already"));
      const rest: At = { ...at, durable: { ...at.durable, unmet: at.durable.unmet.filter((u) => u !== unmet) } };
      if (command.what === "settled")
        return {
          ...still(rest, [{ did: "reward/settled", count: unmet.price, subject: unmet.viewer.name, facts: { reward: unmet.title } }]),
        };
      const given = give(rest, unmet, signal, ctx);
      // What still can't be given goes on waiting.
      return given.notes.some((n) => n.refusal !== undefined) ? { ...given, durable: at.durable } : given;
    }
    case "refund-all": {
      const all = ctx.ledgerView.waiting().filter((s) => s.rewardId === command.reward);
      if (all.length === 0) return no(at, refusal("sale/none-waits"));
      const bookings = all.slice(0, mostAtOnce).map((sale) => backOf(sale, atMs, by));
      return {
        ...still(at, [{ did: "reward/refunded-all", count: bookings.length, subject: all[0]?.rewardName ?? "" }]),
        booking: { ...nothing, entries: bookings.flatMap((b) => b.entries), sales: bookings.flatMap((b) => b.sales) },
      };
    }
  }
}
