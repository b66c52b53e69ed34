import { lookNow } from "./dress";

/** Slow, fast, slow: 0 → 1 over `u` from 0 to 1. */
export const smooth = (u: number): number => u * u * (3 - 2 * u);
/** The same, still before and after. */
export const ease = (u: number): number => smooth(Math.max(0, Math.min(1, u)));
/** 0 → 1 with an overshoot as the look has it, over about `span`, in whatever unit of time. */
export function settle(since: number, span: number): number {
  const { overshoot: c, pace } = lookNow();
  const u = Math.max(0, Math.min(1, since / (span * pace)));
  return 1 + (c + 1) * (u - 1) ** 3 + c * (u - 1) ** 2;
}
