import { z } from "zod";
import { exhaustive } from "../kernel/refusal";
import type { Signal } from "./signal";

/** A tier: from this amount on, or at exactly this amount. Units by the signal's kind, see `amountOf`. */
export const tierAtSchema = z.object({ at: z.enum(["least", "exact"]), amount: z.int().min(0).max(Number.MAX_SAFE_INTEGER) });
export type TierAt = z.infer<typeof tierAtSchema>;

/** The exact one wins; otherwise the highest least amount that is reached; one tier answers a signal, or none. */
export function tierFor<T extends TierAt>(tiers: readonly T[], amount: number): T | null {
  const exact = tiers.find((t) => t.at === "exact" && t.amount === amount);
  if (exact !== undefined) return exact;
  let best: T | null = null;
  for (const tier of tiers) {
    if (tier.at !== "least" || tier.amount > amount) continue;
    if (best === null || tier.amount > best.amount) best = tier;
  }
  return best;
}

/** The first amount that two tiers of the same way share; they can't both answer. */
export function twiceTheSame(tiers: readonly TierAt[]): TierAt | null {
  const seen = new Set<string>();
  for (const tier of tiers) {
    const key = `${tier.at} ${tier.amount}`;
    if (seen.has(key)) return tier;
    seen.add(key);
  }
  return null;
}

/**
 * What a signal amounts to: months of a membership, memberships given, minor units of the home currency,
 * what paid reactions are worth, viewers of a raid or hosting; 1 where there is nothing to count. Null for
 * a tip in a currency the channel does not count.
 */
export function amountOf(signal: Signal): number | null {
  switch (signal.kind) {
    case "membership":
      return signal.months;
    case "gift":
      return signal.count;
    case "tip":
      return signal.homeMinor;
    case "reaction":
      return signal.value;
    case "raid":
    case "host":
      return signal.viewers;
    case "arrival":
      return signal.shows;
    case "happened":
      return signal.amount;
    case "redemption":
    case "purchase":
      return signal.price;
    case "message":
    case "purchase-request":
    case "here":
    case "follow":
    case "live":
    case "ended":
    case "forecast":
    case "timer":
    case "cue":
    case "command":
      return 1;
    default:
      return exhaustive(signal);
  }
}
