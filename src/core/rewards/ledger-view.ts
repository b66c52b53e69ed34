import type { Entry } from "../points/ledger";
import type { PriceAt } from "../points/price";

/** One sale: bought at once, or waiting for somebody to say yes. Kept for good; only its state changes. */
export const saleStates = ["waiting", "done", "refunded"] as const;
export type SaleState = (typeof saleStates)[number];
export type Sale = Readonly<{
  id: string;
  atMs: number;
  rewardId: string;
  rewardName: string;
  viewer: Readonly<{ id: string; name: string }>;
  price: number;
  text: string;
  state: SaleState;
  /** The show in which it was sold; empty off air. */
  showId: string;
  decidedBy: string;
  /** How often it was asked for again after a refund that was a slip: keys of its entries stay unique. */
  times: number;
  /** The code that was handed out with it; empty for none. Never handed out again, whatever becomes of the sale. */
  code: string;
  /** Whether anything of it was shown: then a refund gives back no cooldown. */
  shown: boolean;
}>;

/** In which shows somebody was. */
export type Attendance = Readonly<{
  /** How many shows they wrote in. */
  shows: number;
  firstMs: number;
  lastMs: number;
  /** The show they were last in. */
  showId: string;
}>;
/**
 * What the single writer of a channel knows of points and sales, as a step may read it. Counts are of the
 * show that runs; nothing refunded is counted.
 */
export type LedgerView = Readonly<{
  balance: (viewerId: string) => number;
  /** What a viewer earned since the channel's day began. */
  earnedToday: (viewerId: string) => number;
  sold: (rewardId: string) => number;
  /** How many codes of it were handed out so far. */
  handed: (rewardId: string) => number;
  soldInShow: (rewardId: string) => number;
  soldInShowTo: (rewardId: string, viewerId: string) => number;
  lastMs: (rewardId: string) => number | null;
  lastToMs: (rewardId: string, viewerId: string) => number | null;
  priceAt: (rewardId: string) => PriceAt | null;
  sale: (id: string) => Sale | null;
  waiting: () => readonly Sale[];
  /** Who has most, most first; ties by name. */
  top: (count: number) => readonly Readonly<{ id: string; name: string; balance: number }>[];
  /** In which shows a viewer was, as far as it is known; null for who was in none. */
  attendance: (viewerId: string) => Attendance | null;
  /**
   * Whom a name means: whoever signs in by it, and only then who calls themselves so, when that is one person alone. Null for
   * nobody known, and where several are called so: anybody may take another's name for a display name.
   */
  named: (name: string) => Readonly<{ id: string; name: string }> | null;
  /** Whether several are called so, and none of them signs in by it: then one is asked which. */
  areSeveral: (name: string) => boolean;
}>;

/** What a step wants of the ledger and the sales; committed with the signal, or not at all. */
export type Booking = Readonly<{
  entries: readonly Entry[];
  sales: readonly Sale[];
  /** Names of the viewers whose accounts these are. */
  names: readonly Readonly<{ id: string; name: string }>[];
  prices: readonly Readonly<{ rewardId: string; at: PriceAt }>[];
  /** Sales of something to see or hear: it is to be shown by then, or is owed. */
  due?: readonly Readonly<{ sale: string; untilMs: number }>[];
  /** Who was met in the show that runs, and when. */
  met?: readonly Readonly<{ id: string; name: string; atMs: number }>[];
}>;

export const emptyLedgerView: LedgerView = {
  balance: () => 0,
  earnedToday: () => 0,
  sold: () => 0,
  handed: () => 0,
  soldInShow: () => 0,
  soldInShowTo: () => 0,
  lastMs: () => null,
  lastToMs: () => null,
  priceAt: () => null,
  sale: () => null,
  waiting: () => [],
  top: () => [],
  attendance: () => null,
  named: () => null,
  areSeveral: () => false,
};
