import type { House } from "../../core/signals/names";
import type { Fight } from "../../core/rehearsal/fights";
import type { ChannelId } from "../../core/kernel/ids";
import type { Result } from "../../core/kernel/refusal";
import type { Voice } from "../../core/speech/voice";
import type { Note } from "../../core/module/module";
import type { GivenAsk, Source, Steer } from "../../core/rehearsal/plan";
import type { ReportPart } from "../../core/rehearsal/report";
import type { TimelineEvent } from "../../core/show/timeline";
import type { RehearsalStanding, ToneCame } from "../../core/wire/messages";
import type { Tag } from "../../core/rewards/tags";
import type { OwnInGame, ShopHead } from "../../core/wire/to-viewer";
import type { Command } from "../../core/signals/signal";

/** The engine, seen from the web process. An engine that does not answer is a refusal, `engine/away`. */
export type EngineLink = Readonly<{
  /** The channel changed in the database: take it up now rather than at the next look. */
  reload: (channel: ChannelId) => Promise<void>;
  /** A clip has been made, or can't be: its game is told. */
  media: (channel: ChannelId) => Promise<void>;
  /** What the engine keeps of points was changed beside it: it reads all of that again. */
  refresh: (channel: ChannelId) => Promise<void>;
  /** What one viewer wrote and is not written down yet, or is kept to be shown to operators, is let go. */
  forget: (channel: ChannelId, viewer: string) => Promise<Result<null>>;
  command: (channel: ChannelId, game: string, by: string, id: string, command: Command, house?: House) => Promise<Result<readonly Note[]>>;
  cue: (channel: ChannelId, cue: string, by: string, id: string, via: "key" | "click", house?: House) => Promise<Result<readonly Note[]>>;
  queue: (channel: ChannelId, what: "skip" | "clear" | "pause" | "go-on", queue: string) => Promise<Result<null>>;
  held: (channel: ChannelId, what: "play" | "drop", alert: string) => Promise<Result<null>>;
  say: (channel: ChannelId, text: string, by: string) => Promise<Result<null>>;
  /** A voice to be heard by who sets it up: where, and how long it is. */
  hear: (channel: ChannelId, voice: Voice) => Promise<Result<Readonly<{ url: string; ms: number }>>>;
  /** Which open page makes the sound; empty for whichever. */
  voice: (channel: ChannelId, page: string) => Promise<Result<null>>;
  /** One open page plays a soft tone: whether it was heard at its own outlet. Takes up to four seconds. */
  tone: (channel: ChannelId, page: string) => Promise<Result<ToneCame>>;
  /** Tokens are hashes here: the page's own never travels further than its request. */
  shop: (channel: ChannelId, tokenHash: string) => Promise<Result<ShopView>>;
  code: (channel: ChannelId, tokenHash: string) => Promise<Result<Readonly<{ code: string; untilMs: number }>>>;
  purchase: (
    channel: ChannelId,
    tokenHash: string,
    purchase: Readonly<{ id: string; reward: string; text: string; price: number }>,
  ) => Promise<Result<Note>>;
  /** Something done in a game by who a viewer page is tied to. */
  act: (channel: ChannelId, tokenHash: string, request: Readonly<{ id: string; game: string; command: Command }>) => Promise<Result<Note>>;
  /** Events that were refused, newest first. */
  refusedEvents: (channel: ChannelId) => Promise<Result<readonly RefusedEvent[]>>;
  /** Begins a rehearsal: by its id it is watched, steered and played in like a channel. */
  rehearse: (
    channel: ChannelId,
    asked: Readonly<{ by: string; source: Source; pace: number; chat: boolean; overlays: boolean }>,
  ) => Promise<Result<Readonly<{ id: string }>>>;
  rehearsal: Readonly<{
    /** Whether it is there, and this channel's. */
    known: (channel: ChannelId, id: string) => Promise<Result<null>>;
    report: (
      channel: ChannelId,
      id: string,
    ) => Promise<Result<Readonly<{ standing: RehearsalStanding; parts: readonly ReportPart[] | null }>>>;
    marks: (channel: ChannelId, id: string) => Promise<Result<Readonly<{ marks: readonly TimelineEvent[] }>>>;
    fight: (channel: ChannelId, id: string, at: Readonly<{ game: string; sinceMs: number }>) => Promise<Result<Fight>>;
    steer: (channel: ChannelId, id: string, steer: Steer) => Promise<Result<null>>;
    give: (channel: ChannelId, id: string, given: GivenAsk) => Promise<Result<null>>;
  }>;
  /** Sessions ended, of operators or of viewers: pages that no longer have one are closed now. */
  recheck: () => Promise<void>;
  /** A viewer page is nobody's any more: its session ends, and its socket with it. */
  leave: (channel: ChannelId, tokenHash: string) => Promise<Result<null>>;
  /** A page that was proven goes on under another token; pages with the one before are nobody's. */
  renew: (channel: ChannelId, tokenHash: string, after: string) => Promise<Result<null>>;
  changed: (channel: ChannelId, what: Readonly<{ what: string; id: string; revision: number; by: string }>) => Promise<void>;
}>;
/** The viewer page as it is when it opens. */
export type ShopView = Readonly<{
  nowMs: number;
  head: ShopHead;
  tags: readonly Tag[];
  viewer: Readonly<{ id: string; name: string; balance: number }> | null;
  /** Where their picture is, for them alone; empty for nowhere. */
  face: string;
  /** What is that viewer's own in games. */
  mine: readonly OwnInGame[];
  games: readonly Readonly<{ id: string; lines: readonly string[] }>[];
  commands: readonly Readonly<{ word: string; what: string }>[];
}>;
export type RefusedEvent = Readonly<{ atMs: number; code: string; why: string; type: string; id: string; count: number }>;
