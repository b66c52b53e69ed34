import type { ChatLine } from "../../core/chat/dialect";

/** A chat server, seen from the engine. Errors are told in plain words through `standing`. */
export type ChatStanding = Readonly<{
  state: "off" | "connecting" | "connected" | "waiting";
  /** When the present state began. */
  sinceMs: number;
  /** What stands in the way now; empty while connected. */
  lastError: string;
  /** What went wrong last, and when; stays after it is over. */
  lastTrouble: Readonly<{ words: string; atMs: number }> | null;
  /** When the next try is due, while waiting. */
  retryAtMs: number | null;
  dropped: number;
}>;
export type ChatEvents = Readonly<{
  onLine: (line: ChatLine) => void;
  onStanding: (standing: ChatStanding) => void;
  /** Whether more would only make others wait: then less is read. */
  behind?: () => boolean;
}>;
export type Chat = Readonly<{
  start: () => void;
  stop: () => Promise<void>;
  /** Queued within the flood limit; false when the queue is full or nobody is connected. */
  say: (text: string) => boolean;
  standing: () => ChatStanding;
}>;
