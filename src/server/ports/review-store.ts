import type { ChannelId } from "../../core/kernel/ids";
import type { Sale } from "../../core/rewards/ledger-view";
import type { Series } from "../../core/review/moments";

/** A show that is over, as Review opens it. */
export type ReviewedShow = Readonly<{
  /** Of its record. */
  id: number;
  /** As the log and the sales know it; empty for very old ones. */
  showId: string;
  fromMs: number;
  toMs: number;
  by: string;
  /** As somebody called it; empty for its date. */
  name: string;
  /** How far into its recording it begins, as it was set last. */
  offsetMs: number;
  /** There is a page to share. */
  shared: boolean;
}>;
/** What somebody decided about a moment, found or their own. */
export type KeptMoment = Readonly<{
  id: string;
  atMs: number;
  toMs: number;
  name: string;
  why: string;
  state: "kept" | "dropped";
  by: string;
}>;
/** What matters of a show at a glance; money in minor units of the home currency. */
export type ShowNumbers = Readonly<{
  messages: number;
  people: number;
  follows: number;
  memberships: number;
  gifts: number;
  tips: number;
  tipped: number;
  reactions: number;
  raids: number;
  raiders: number;
  made: number;
  spent: number;
  sales: number;
  refunds: number;
  /** The most that were written in one minute. */
  busiest: number;
}>;
export type LogLine = Readonly<{
  seq: number;
  atMs: number;
  kind: string;
  source: string;
  name: string;
  text: string;
  body: unknown;
}>;
export type LinesAsked = Readonly<{
  fromMs: number;
  toMs: number;
  /** Goes on behind this one. */
  after: Readonly<{ atMs: number; seq: number }> | null;
  /** `chat`: what was said; `rest`: all else. */
  only: "all" | "chat" | "rest";
  /** Only lines of people whose name begins so, or with this in the text. */
  words: string;
  limit: number;
}>;
export type ShowFault = Readonly<{ id: number; name: string; says: string; means: string; fromMs: number; toMs: number }>;
export type SoldOf = Readonly<{ reward: string; count: number; refunded: number; shown: number; points: number }>;
export type ShowPerson = Readonly<{ id: string; name: string; messages: number; given: number; firstMs: number; lastMs: number }>;
export type Bins = Omit<Series, "emotes"> & Readonly<{ people: number }>;
export type ReviewStore = Readonly<{
  show: (channel: ChannelId, id: number) => Promise<ReviewedShow | null>;
  name: (channel: ChannelId, id: number, name: string) => Promise<boolean>;
  offset: (channel: ChannelId, id: number, offsetMs: number) => Promise<boolean>;
  /** Its page to share is known by this hash from now on, and by none before; null for no page. */
  share: (channel: ChannelId, id: number, hash: string | null) => Promise<boolean>;
  /** Whose page to share a hash is; null for nobody's. */
  sharedBy: (hash: string) => Promise<Readonly<{ channel: ChannelId; channelName: string; id: number }> | null>;
  moments: (channel: ChannelId, id: number) => Promise<readonly KeptMoment[]>;
  /** Kept, named or dropped; what was decided of it before is written over. */
  decide: (channel: ChannelId, id: number, moment: KeptMoment) => Promise<boolean>;
  /** Back to what it was before anybody decided. */
  undecide: (channel: ChannelId, id: number, moment: string) => Promise<void>;
  /** The shows before and after it, rehearsals left out. */
  beside: (
    channel: ChannelId,
    show: Pick<ReviewedShow, "id" | "fromMs">,
  ) => Promise<Readonly<{ before: number | null; after: number | null }>>;
  /** All of them but what the bins tell. */
  numbers: (
    channel: ChannelId,
    show: Pick<ReviewedShow, "fromMs" | "toMs" | "showId">,
  ) => Promise<Omit<ShowNumbers, "messages" | "busiest" | "people">>;
  /** Counts of chat and of what was given, bin by bin, and how many different people wrote. */
  bins: (channel: ChannelId, at: Readonly<{ fromMs: number; toMs: number; binMs: number }>) => Promise<Bins>;
  /** How many emotes were written, bin by bin: every message of the show is read for it. */
  emotes: (channel: ChannelId, at: Readonly<{ fromMs: number; toMs: number; binMs: number }>) => Promise<readonly number[]>;
  /** What went wrong within a time, oldest first. */
  faults: (channel: ChannelId, at: Readonly<{ fromMs: number; toMs: number }>) => Promise<readonly ShowFault[]>;
  /** What was bought within a time, oldest first; `after` goes on behind one. */
  sales: (
    channel: ChannelId,
    at: Readonly<{ fromMs: number; toMs: number; after: number; limit: number }>,
  ) => Promise<readonly Readonly<{ seq: number; sale: Sale }>[]>;
  /** What was sold within a time, by reward, most first. */
  sold: (channel: ChannelId, at: Readonly<{ fromMs: number; toMs: number }>) => Promise<readonly SoldOf[]>;
  /** Who wrote or gave within a time, most first. */
  people: (channel: ChannelId, at: Readonly<{ fromMs: number; toMs: number; limit: number }>) => Promise<readonly ShowPerson[]>;
  /** The log between two times, in pieces as it is read: as exports hold it. */
  log: (channel: ChannelId, at: Readonly<{ fromMs: number; toMs: number }>) => AsyncGenerator<readonly Readonly<Record<string, unknown>>[]>;
  /** What was said and what happened, oldest first. */
  lines: (channel: ChannelId, asked: LinesAsked) => Promise<readonly LogLine[]>;
}>;
