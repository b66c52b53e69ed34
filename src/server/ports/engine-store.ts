import type { MediaStore } from "./media-store";
import type { Dress } from "../../core/dress/dress";
import type { ChannelId, GameId } from "../../core/kernel/ids";
import type { Kept, Note, RecalledRow } from "../../core/module/module";
import type { PriceAt } from "../../core/points/price";
import type { Attendance, Booking, Sale } from "../../core/rewards/ledger-view";
import type { Viewer } from "../../core/signals/names";
import type { FaceStore } from "./profiles";
import type { Place, Sound, Sprite } from "../../core/wire/messages";

/** What the engine needs of the truth. One contract test runs against every implementation. */
export type LogRow = Readonly<{
  seq: number;
  atMs: number;
  kind: string;
  source: string;
  /** What nobody may send twice, unique within its source; null for what only the engine itself can have made. */
  id: string | null;
  viewer: Viewer | null;
  body: unknown;
}>;
export type GameRow = Readonly<{
  id: GameId;
  kind: string;
  name: string;
  version: number;
  settings: unknown;
  durable: unknown;
  stateVersion?: number;
  /** Rows that make its state whole, where it is kept row by row. */
  recalled?: readonly RecalledRow[];
}>;
export type OverlayRow = Readonly<{
  id: string;
  name: string;
  tokenHash: string | null;
  /** What it is for: an overlay may be for the picture only, or for sound only. */
  shows: boolean;
  sounds: boolean;
  css: string;
  width?: number;
  height?: number;
  backdrop?: string;
  dress?: Dress;
  places: readonly Readonly<{ gameId: GameId; place: Place; order: number }>[];
}>;
/** Secrets are sealed; the engine unseals them with the installation's key. */
export type EventsRow = Readonly<{ secret: string; oldSecret: string | null; oldUntilMs: number }>;
export type TriggerRow = Readonly<{ cueId: string; tokenHash: string }>;
export type ChatRow = Readonly<{ enabled: boolean; settings: unknown; secret: string | null }>;
export type StudioRow = ChatRow;
export type ChannelRow = Readonly<{
  id: ChannelId;
  name: string;
  salt: number;
  revision: number;
  hushed: boolean;
  games: readonly GameRow[];
  overlays: readonly OverlayRow[];
  sprites: readonly Sprite[];
  sounds: readonly Sound[];
  events: EventsRow | null;
  triggers: readonly TriggerRow[];
  words: readonly Readonly<{ id: string; word: string }>[];
  chat: ChatRow | null;
  studio: StudioRow | null;
}>;

export type Commit = Readonly<{
  rows: readonly LogRow[];
  /** The newest durable state of every game that changed. */
  states: readonly Readonly<{ gameId: GameId; seq: number; durable: unknown; version?: number }>[];
  /** What is kept for good: hits, reigns. */
  kept: readonly KeptRow[];
  /** Entries of the ledger and sales, each under the signal that brought it. */
  booked?: readonly Booked[];
}>;
/** Who may write for a channel: an owner that is random for each process, and how often it changed hands before. */
export type Fence = Readonly<{
  owner: string;
  epoch: number;
  /** Where the channel was taken up: since when nobody had run it; null where nobody ever had. */
  idleFromMs?: number | null;
}>;
/**
 * Twice: nothing was written, since these rows (by their number) brought an id that is in the log already.
 * Lost: nothing was written, since somebody else owns the channel now.
 */
/** `undone`: others were in its way, as in a deadlock. Nothing of it stays, so the very same may be tried again. */
export type Outcome = Readonly<{ is: "committed" } | { is: "twice"; seqs: readonly number[] } | { is: "lost" } | { is: "undone" }>;
/** What came of a signal the first time. */
export type Came = Readonly<{ seq: number; notes: readonly Readonly<{ game: string; note: Note }>[] }>;
export type Booked = Readonly<{
  seq: number;
  /** The show that ran on air; empty off air. Points made and spent are summed by it. */
  showId: string;
  booking: Booking;
  /** What viewers have earned on a day of the channel's after it, where it brought them something. */
  earned: readonly Readonly<{ viewer: string; day: number; earned: number }>[];
  /** Who was met, and how often they were in a show after it. */
  met?: readonly (Attendance & Readonly<{ viewer: string }>)[];
  /** Accounts that were not there before, or go by another name now. */
  fresh: readonly string[];
  /** What it adds to what was sold of each reward, to the codes handed out, and to the points paid for it. */
  counted: readonly Readonly<{ rewardId: string; name: string; sold: number; handed: number; points: number }>[];
}>;
/** All that the single writer keeps in memory of points and sales. */
export type LedgerRows = Readonly<{
  accounts: readonly Readonly<{ account: string; name: string; balance: number; day: number; earned: number }>[];
  /** Sales that count, by reward: not refunded ones; and codes that were handed out, refunded or not. */
  sold: readonly Readonly<{ rewardId: string; count: number; handed: number }>[];
  soldInShow: readonly Readonly<{ rewardId: string; viewer: string; count: number }>[];
  /** The last sale that starts a cooldown, by reward and viewer, of the last week. */
  last: readonly Readonly<{ rewardId: string; viewer: string; atMs: number }>[];
  prices: readonly Readonly<{ rewardId: string; at: PriceAt }>[];
  /** Those that wait, those that are yet to be shown, and the newest others. */
  sales: readonly Sale[];
  /** Those who were heard of and have no account, the longest known first. */
  others?: readonly Readonly<{ id: string; name: string }>[];
  /** What was sold to be seen or heard, and no page has said that it was. */
  due?: readonly Readonly<{ sale: string; untilMs: number }>[];
  /** In which shows viewers were, of those who were in any. */
  attended?: readonly (Attendance & Readonly<{ viewer: string }>)[];
}>;
export type ViewerSession = Readonly<{ channelId: ChannelId; viewer: Viewer }>;
export type KeptRow = Kept & Readonly<{ gameId: GameId; seq: number }>;

export type EngineStore = FaceStore &
  Readonly<{
    channels: () => Promise<readonly ChannelId[]>;
    channel: (id: ChannelId) => Promise<ChannelRow | null>;
    revisions: () => Promise<ReadonlyMap<ChannelId, number>>;
    lastSeq: (id: ChannelId) => Promise<number>;
    /** What came of these ids of one source, for those that are in the log. */
    came: (id: ChannelId, source: string, ids: readonly string[]) => Promise<ReadonlyMap<string, Came>>;
    /**
     * All of it or nothing. With a fence, only while that owner still holds the channel. An error that is not
     * "the database is away" (isAway) means that something in it can't be stored, and that nothing was.
     */
    commit: (id: ChannelId, commit: Commit, fence?: Fence) => Promise<Outcome>;
    /** `showId` is the show that runs, empty off air; last times are looked for since `sinceMs`. */
    ledgerView: (id: ChannelId, at: Readonly<{ showId: string; sinceMs: number }>) => Promise<LedgerRows>;
    /** What a game kept under these names from there on, in its order. */
    kept: (
      id: ChannelId,
      game: GameId,
      kinds: readonly string[],
      since: Readonly<{ seq: number; atMs: number }>,
    ) => Promise<readonly RecalledRow[]>;
    /** What is logged between two times, oldest first, behind a place in it: to be played again. */
    logged: (
      id: ChannelId,
      at: Readonly<{ fromMs: number; toMs: number; after: Readonly<{ atMs: number; seq: number }> | null; limit: number }>,
    ) => Promise<readonly LogRow[]>;
    /** A page has shown these. */
    delivered: (id: ChannelId, sales: readonly string[]) => Promise<void>;
    sale: (id: ChannelId, sale: string) => Promise<Sale | null>;
    /** How many things differ when balances are rebuilt from their postings; each in a few words. */
    ledgerFaults: (id: ChannelId) => Promise<readonly string[]>;
    /** Deletes private details of sales that were decided some time ago. */
    sweepDetails: () => Promise<void>;
    addViewerSession: (
      id: ChannelId,
      session: Readonly<{ tokenHash: string; viewer: Viewer; nowMs: number; untilMs: number }>,
    ) => Promise<void>;
    viewerSession: (tokenHash: string, nowMs: number) => Promise<ViewerSession | null>;
    endViewerSession: (tokenHash: string) => Promise<void>;
    /** The session goes on under another token, and the one before is nobody's. False where there was none. */
    renewViewerSession: (channel: ChannelId, before: string, after: string) => Promise<boolean>;
    audit: (id: ChannelId, operator: string, action: string, detail: Readonly<Record<string, unknown>>, nowMs: number) => Promise<void>;
    /** Best effort, many rows at once; a row that can't be stored is left out, and how many were is told. */
    append: (id: ChannelId, rows: readonly LogRow[]) => Promise<number>;
    /** Whether an error says "cannot be reached now" rather than "this is wrong". */
    isAway: (error: unknown) => boolean;
    setHushed: (id: ChannelId, on: boolean) => Promise<void>;
    /**
     * One owner at a time: the fence when `owner` holds the channel for `forMs` from now, null when somebody
     * else does. By the store's own clock; an owner whose process is gone gives way at once.
     */
    lease: (id: ChannelId, owner: string, forMs: number) => Promise<Fence | null>;
    release: (id: ChannelId, owner: string) => Promise<void>;
    /** Files that pages ask for, and moving pictures that are to be made. */
    media: Pick<MediaStore, "file" | "add" | "drop" | "stalled" | "untold" | "told">;
    /** Who holds a session, by the hash of its token. */
    session: (
      tokenHash: string,
      nowMs: number,
    ) => Promise<Readonly<{ channelId: ChannelId; operator: string; operatorId: string; role: "owner" | "moderator" }> | null>;
    /** Once a day: what is old enough goes. Null when another process is at it. */
    upkeep: (nowMs: number) => Promise<Readonly<Record<string, unknown>> | null>;
    ping: () => Promise<void>;
  }>;
