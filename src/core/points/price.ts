/**
 * A price that moves (RULES section 9): each sale raises it by a share, and what it was raised by falls back
 * with a half-life. Kept in thousandths of a point; this file is the one place where it is rounded.
 */
export type MovingPrice = Readonly<{
  /** In points: where it begins, and below which it does not fall. */
  floor: number;
  /** Above which it does not rise. */
  ceiling: number;
  /** Basis points of the price that one sale adds. */
  raiseBp: number;
  halfLifeMs: number;
}>;
/** What it stood at in thousandths, and when. */
export type PriceAt = Readonly<{ thousandths: number; atMs: number }>;

const within = (moving: MovingPrice, thousandths: number): number =>
  Math.max(moving.floor * 1000, Math.min(moving.ceiling * 1000, Math.round(thousandths)));

/** In thousandths, now. A clock that was set back changes nothing: time that did not pass lowers no price. */
export function priceNow(moving: MovingPrice, at: PriceAt | null, nowMs: number): number {
  if (at === null) return within(moving, moving.floor * 1000);
  const passedMs = Math.max(0, nowMs - at.atMs);
  const above = Math.max(0, at.thousandths - moving.floor * 1000);
  return within(moving, moving.floor * 1000 + above * 2 ** (-passedMs / moving.halfLifeMs));
}
export function afterSale(moving: MovingPrice, at: PriceAt | null, nowMs: number): PriceAt {
  const now = priceNow(moving, at, nowMs);
  return { thousandths: within(moving, now + (now * moving.raiseBp) / 10_000), atMs: Math.max(nowMs, at?.atMs ?? nowMs) };
}
/** As it is shown and paid: whole points, rounded up, so that nobody pays less than it costs. */
export const inPoints = (thousandths: number): number => Math.ceil(thousandths / 1000);
