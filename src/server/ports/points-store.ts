import type { ChannelId } from "../../core/kernel/ids";
import type { Reason } from "../../core/points/ledger";
import type { Sale, SaleState } from "../../core/rewards/ledger-view";

/** What operators read of points and sales. Changed they are by the engine alone, through hands. */
export type Person = Readonly<{ id: string; name: string; balance: number; lastMs: number | null }>;
export type HistoryLine = Readonly<{ atMs: number; reason: Reason; about: string; by: string; amount: number }>;
export type PersonCard = Person & Readonly<{ history: readonly HistoryLine[]; sales: readonly Sale[]; earned: number; spent: number }>;
export type SaleLine = Sale & Readonly<{ hasDetail: boolean }>;
export type PointsOfShow = Readonly<{ fromMs: number; toMs: number; made: number; spent: number }>;
export type PointsCharts = Readonly<{
  /** By month of the channel's, oldest first: made, spent, and how many points there are at its end. */
  months: readonly Readonly<{ month: string; made: number; spent: number; there: number }>[];
  shows: readonly PointsOfShow[];
  rewards: readonly Readonly<{ id: string; name: string; count: number; points: number }>[];
  /** How many viewers hold how much: up to `most` points, the last without end. */
  holders: readonly Readonly<{ most: number | null; viewers: number; points: number }>[];
}>;

export type PointsStore = Readonly<{
  /** By a part of the name or the whole id; most points first where nothing is looked for. */
  people: (channel: ChannelId, like: string, limit: number) => Promise<readonly Person[]>;
  person: (channel: ChannelId, id: string) => Promise<PersonCard | null>;
  /** Everybody who was ever heard of, with points or without. */
  known: (channel: ChannelId) => Promise<readonly Readonly<{ id: string; name: string }>[]>;
  /** Everybody with an account. */
  everybody: (channel: ChannelId) => Promise<readonly Person[]>;
  sales: (channel: ChannelId, at: Readonly<{ state: SaleState | "all"; reward: string; limit: number }>) => Promise<readonly SaleLine[]>;
  keepDetail: (channel: ChannelId, sale: string, sealed: string) => Promise<void>;
  detail: (channel: ChannelId, sale: string) => Promise<string | null>;
  /** Prices of a reward as they were paid, oldest first. */
  prices: (channel: ChannelId, reward: string, limit: number) => Promise<readonly Readonly<{ atMs: number; price: number }>[]>;
  charts: (channel: ChannelId, nowMs: number) => Promise<PointsCharts>;
  /** Nothing that names them is left: names, texts, what they wrote. Sums and counts stay. */
  forget: (channel: ChannelId, id: string, as: string) => Promise<void>;
}>;
