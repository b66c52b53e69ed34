import type { ChannelId } from "../../core/kernel/ids";

/** Secrets of events and trigger addresses, and what games keep for good. */
export type RecordRow = Readonly<{
  id: number;
  viewer: Readonly<{ id: string; name: string }> | null;
  fromMs: number;
  toMs: number;
  body: unknown;
}>;
export type KeptRound = Readonly<{
  channel: ChannelId;
  channelName: string;
  gameName: string;
  kind: string;
  atMs: number;
  viewer: string | null;
  body: unknown;
  /** Of a large round: what was done to its list, in rows of their own. */
  entries: readonly unknown[];
}>;
/** A record as lists of all games have it. */
export type GameRecord = RecordRow & Readonly<{ game: string; gameName: string; gameKind: string; kind: string; seq: number }>;
export type EventStore = Readonly<{
  /** `oldUntilMs`: until when the secret before this one is taken too; 0 when there is none. */
  secret: (channel: ChannelId) => Promise<Readonly<{ sealed: string; sinceMs: number; oldUntilMs: number }> | null>;
  setSecret: (channel: ChannelId, at: Readonly<{ sealed: string; oldUntilMs: number; nowMs: number }>) => Promise<void>;
  endOld: (channel: ChannelId) => Promise<void>;
  /** Cues that have a trigger address. */
  triggers: (channel: ChannelId) => Promise<readonly string[]>;
  trigger: (channel: ChannelId, cue: string) => Promise<string | null>;
  setTrigger: (channel: ChannelId, cue: string, token: Readonly<{ hash: string; sealed: string }> | null, nowMs: number) => Promise<void>;
  /** A round that is over, of whatever game and channel: its name is no secret. Null when there is none of this name. */
  round: (game: string, round: string) => Promise<KeptRound | null>;
  /** Of these kinds, of all games of a channel or of one, newest first; what is kept of proofs is left out. */
  rounds: (
    channel: ChannelId,
    asked: Readonly<{ kinds: readonly string[]; game: string; limit: number; between?: readonly [fromMs: number, toMs: number] }>,
  ) => Promise<readonly GameRecord[]>;
  /** One of them; null when there is none. */
  record: (channel: ChannelId, id: number) => Promise<GameRecord | null>;
  /** Rows of a kind that a game wrote while something ran, oldest first. */
  rowsBetween: (
    game: string,
    kind: string,
    asked: Readonly<{ fromMs: number; toMs: number; beforeId: number }>,
  ) => Promise<readonly unknown[]>;
  /** Newest first. */
  records: (channel: ChannelId, game: string, kind: string, limit: number) => Promise<readonly RecordRow[]>;
}>;
