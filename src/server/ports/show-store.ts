import type { ChannelId } from "../../core/kernel/ids";
import type { Fight } from "../../core/rehearsal/fights";
import type { TimelineRow } from "../../core/show/timeline";

/** What the booth reads of the past: the tape, a viewer's card, how a fight goes. */
export type Told = Readonly<{ seq: number; atMs: number; kind: string; text: string; notes: readonly unknown[] }>;
export type ViewerCard = Readonly<{
  id: string;
  name: string;
  roles: readonly string[];
  /** Newest first. */
  last: readonly Told[];
  messages: number;
  firstMs: number | null;
  hits: Readonly<{ count: number; damage: number }>;
  reigns: number;
  /** Null for who has no account yet. */
  points: number | null;
}>;
export type PastShow = Readonly<{ id: number; name: string; fromMs: number; toMs: number; rehearsal: boolean; by: string }>;
/** Who came to a show that is over: as many names as are shown, and how many they were. */
export type WhoCame = Readonly<{
  came: number;
  fresh: Readonly<{ count: number; names: readonly string[] }>;
  /** After how many days, the longest away first. */
  back: Readonly<{ count: number; people: readonly Readonly<{ name: string; days: number }>[] }>;
  presented: readonly Readonly<{ name: string; page: string }>[];
}>;
export type ShowStore = Readonly<{
  /** Who came between two times. Who was away for so many days counts as back. */
  whoCame: (channel: ChannelId, fromMs: number, toMs: number, awayDays: number) => Promise<WhoCame>;
  /** Rows that can become marks, of some kinds or of all, oldest first; at most `limit`, the newest of them. */
  tape: (channel: ChannelId, fromMs: number, toMs: number, limit: number, kinds?: readonly string[]) => Promise<readonly TimelineRow[]>;
  viewer: (channel: ChannelId, id: string) => Promise<ViewerCard | null>;
  fight: (channel: ChannelId, game: string, sinceMs: number, nowMs: number) => Promise<Fight>;
  past: (channel: ChannelId, limit: number) => Promise<readonly PastShow[]>;
}>;
