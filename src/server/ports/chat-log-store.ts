import type { ChannelId } from "../../core/kernel/ids";
import type { Result } from "../../core/kernel/refusal";
import type { EveningRates } from "../../core/lab/rates";
import type { ChatLogLine } from "../../core/rehearsal/chat-log";

/** Past chat that was brought in from outside: somebody to rehearse with before there was a show. */
export type ChatLogRow = Readonly<{
  id: string;
  name: string;
  lines: number;
  people: number;
  ms: number;
  by: string;
  createdMs: number;
  removedMs: number | null;
}>;
export type ChatLogStore = Readonly<{
  /** Newest first; those that were removed lately among them. */
  list: (channel: ChannelId) => Promise<readonly ChatLogRow[]>;
  /** Refused: there are too many. */
  add: (
    row: Readonly<{ id: string; channel: ChannelId; name: string; by: string; people: number; ms: number; rates: EveningRates }>,
    lines: readonly ChatLogLine[],
    nowMs: number,
  ) => Promise<Result<null>>;
  rename: (channel: ChannelId, id: string, name: string) => Promise<boolean>;
  /** Removed, or brought back with null. */
  remove: (channel: ChannelId, id: string, nowMs: number) => Promise<boolean>;
  /** Refused: there is none, or there are too many. */
  restore: (channel: ChannelId, id: string) => Promise<Result<null>>;
  /** Null when there is none, or it was removed. */
  lines: (channel: ChannelId, id: string) => Promise<Readonly<{ name: string; lines: readonly ChatLogLine[] }> | null>;
  rates: (channel: ChannelId, id: string) => Promise<EveningRates | null>;
}>;
