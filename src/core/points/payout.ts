import { apportion } from "../kernel/apportion";

/** One who backed an outcome: how much, and in which order they came. */
export type Stake = Readonly<{ id: string; stake: number; order: number }>;
export type Payout = Readonly<{ id: string; amount: number }>;
export type Settled = Readonly<{
  /** What the channel keeps. */
  fee: number;
  pot: number;
  /** In the order of the stakes that were given. */
  payouts: readonly Payout[];
  /** Nobody backed what came, so everybody has their own back. */
  returned: boolean;
}>;

/**
 * Who gets what of a pool (RULES section 8): the fee is taken first, none where all backed what came; each winner gets
 * `floor(stake × pot / winning stakes)`; points left by rounding go one each to the largest remainders, the earlier stake
 * first. What comes in goes out, to the point. Stakes are whole numbers from 1; their sum stays below 2^53. `feeBp` in basis points.
 */
export function settle(winners: readonly Stake[], losers: readonly Stake[], feeBp: number): Settled {
  const sum = (stakes: readonly Stake[]): number => stakes.reduce((all, s) => all + s.stake, 0);
  const [won, lost] = [sum(winners), sum(losers)];
  const all = won + lost;
  if (won === 0) return { fee: 0, pot: all, payouts: losers.map((s) => ({ id: s.id, amount: s.stake })), returned: true };
  const fee = lost === 0 ? 0 : Number((BigInt(all) * BigInt(feeBp)) / 10_000n);
  const pot = all - fee;
  const amounts = apportion(
    pot,
    winners.map((s) => s.stake),
    winners.map((s) => s.order),
  );
  return { fee, pot, payouts: winners.map(({ id }, i) => ({ id, amount: amounts[i] ?? 0 })), returned: false };
}

/** What an outcome pays now for each point, in hundredths, rounded down: pot ÷ its stakes; null where nobody backs it. */
export const oddsHundredths = (stakes: number, all: number, feeBp: number): number | null => {
  if (stakes === 0) return null;
  const fee = stakes === all ? 0n : (BigInt(all) * BigInt(feeBp)) / 10_000n;
  return Number(((BigInt(all) - fee) * 100n) / BigInt(stakes));
};
