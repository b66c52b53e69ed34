import { z } from "zod";

/** `give` for every `per` of an amount: "5 for every 1.00" is give 5, per 100. */
export const rateSchema = z.object({ give: z.int().min(0).max(1_000_000_000), per: z.int().min(1).max(1_000_000_000) });
export type Rate = z.infer<typeof rateSchema>;

export type Earned = Readonly<{ value: number; kept: number }>;
/**
 * RULES section 0: `floor((amount + kept) × give ÷ per)`. The remainder is kept, so that four small gifts
 * count as much as one. `kept` is counted in parts of 1/per of what is given, so nothing is ever lost to
 * rounding; it is always less than `per`. Products are formed in BigInt; more than a number can hold exactly
 * is cut off there.
 */
export function earned(rate: Rate, amount: number, kept = 0): Earned {
  if (amount <= 0 || rate.give === 0) return { value: 0, kept };
  const total = BigInt(amount) * BigInt(rate.give) + BigInt(Math.min(kept, rate.per - 1));
  const per = BigInt(rate.per);
  const value = total / per;
  return { value: value > BigInt(Number.MAX_SAFE_INTEGER) ? Number.MAX_SAFE_INTEGER : Number(value), kept: Number(total % per) };
}

/** What rounding has left over, by whose and of what it is. */
export const remaindersSchema = z.array(z.tuple([z.string(), z.number()]));
export type Remainders = z.infer<typeof remaindersSchema>;
/**
 * The same for one of many: what was left over of `key` is added, what is left over now is kept under it. `null` for somebody
 * unknown, for whom nothing can be kept; of more than `most` the oldest are let go. The list given back is the one that was given where nothing of it changed.
 */
export function earnedBy(
  key: string | null,
  rate: Rate,
  amount: number,
  remainders: Remainders,
  most: number,
): Readonly<{ value: number; remainders: Remainders }> {
  const before = key === null ? 0 : (remainders.find(([k]) => k === key)?.[1] ?? 0);
  const { value, kept } = earned(rate, amount, before);
  if (key === null || kept === before) return { value, remainders };
  const others = remainders.filter(([k]) => k !== key);
  return { value, remainders: kept === 0 ? others : [...others, [key, kept] as [string, number]].slice(-most) };
}

/** Adds two whole numbers without leaving those a number can hold exactly. */
export const plus = (a: number, b: number): number => Math.min(Number.MAX_SAFE_INTEGER, a + b);
