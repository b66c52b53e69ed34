import type { ChannelId } from "../../core/kernel/ids";
import type { Result } from "../../core/kernel/refusal";
import type { OutsideLine, OutsideShow } from "../../core/review/outside";

/** Shows of other installations that were brought in to be looked at; nothing of the channel's own is in them, or of them in it. */
export type OutsideShowRow = Readonly<{ id: string; name: string; by: string; createdMs: number; removedMs: number | null }>;
export type OutsideShowStore = Readonly<{
  list: (channel: ChannelId) => Promise<readonly OutsideShowRow[]>;
  /** Refused: there are too many, or it is too large. */
  add: (
    row: Readonly<{ id: string; channel: ChannelId; name: string; by: string }>,
    show: OutsideShow,
    lines: readonly OutsideLine[],
    nowMs: number,
  ) => Promise<Result<null>>;
  rename: (channel: ChannelId, id: string, name: string) => Promise<boolean>;
  remove: (channel: ChannelId, id: string, nowMs: number) => Promise<boolean>;
  /** Refused: there is none, or there are too many. */
  restore: (channel: ChannelId, id: string) => Promise<Result<null>>;
  show: (channel: ChannelId, id: string) => Promise<Readonly<{ name: string; show: OutsideShow }> | null>;
  /** Its lines, oldest first; null when there is no such show. */
  lines: (channel: ChannelId, id: string) => Promise<readonly OutsideLine[] | null>;
}>;
