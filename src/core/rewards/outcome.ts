import type { Order } from "../module/order";
import type { Refusal } from "../kernel/refusal";
import type { Note, StepContext, StepOutcome } from "../module/module";
import { pendingSchema } from "../rules/effects";
import type { Viewer } from "../signals/names";
import { z } from "zod";
import type { Booking, Sale } from "./ledger-view";
import type { Reward, RewardBook } from "./settings";

/** Somebody who paid on the platform and got nothing here: kept until a person has given it or their points back. */
const unmetSchema = z.object({
  id: z.string(),
  atMs: z.number(),
  viewer: z.object({ id: z.string(), name: z.string() }),
  rewardId: z.string(),
  title: z.string(),
  price: z.number(),
  text: z.string(),
  why: z.object({ code: z.string(), facts: z.record(z.string(), z.union([z.string(), z.number(), z.boolean(), z.null()])) }),
});
export type Unmet = z.infer<typeof unmetSchema>;
/** Beyond so many the oldest are forgotten: they stay in the log. */
export const mostUnmet = 60;

export const rewardsDurableSchema = z.object({
  pending: z.array(pendingSchema),
  /** What the platform was seen to sell, newest first: partners are picked from these, never typed. */
  seen: z.array(z.object({ item: z.string(), title: z.string(), lastMs: z.number() })).default([]),
  /** What was bought on the platform and refused here, oldest first. */
  unmet: z.array(unmetSchema).default([]),
});

export type RewardsDurable = z.infer<typeof rewardsDurableSchema>;

export type At = Readonly<{ settings: RewardBook; durable: RewardsDurable; transient: null }>;

export type Outcome = StepOutcome<RewardsDurable, null, never>;

/** At most so many are given back at once, so that one press is one commit of bearable size. */
export const mostAtOnce = 500;

export const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, transient: null, effects: [], notes });

export const no = (at: At, why: Refusal, subject?: string): Outcome =>
  still(at, [{ refusal: why, count: 1, ...(subject === undefined ? {} : { subject }) }]);

export const nothing: Booking = { entries: [], sales: [], names: [], prices: [] };

export const redeemed = (sale: Sale, viewer: Viewer): Order => ({
  do: "redeemed",
  viewer,
  saleId: sale.id,
  rewardId: sale.rewardId,
  reward: sale.rewardName,
  price: sale.price,
  text: sale.text,
});

/** The next code that nobody has yet; none where there are none. */
export const nextCode = (reward: Reward | undefined, ctx: StepContext): string =>
  reward === undefined || reward.codes.length === 0 ? "" : (reward.codes[ctx.ledgerView.handed(reward.id)] ?? "");
