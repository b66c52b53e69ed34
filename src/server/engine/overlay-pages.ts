import { randomUUID } from "node:crypto";
import type { WebSocket } from "ws";
import type { ChannelId } from "../../core/kernel/ids";
import type { FromPage, OpenPage } from "../../core/wire/messages";
import { leaseMs } from "../../core/wire/one-voice";

export type Hello = Extract<FromPage, { type: "hello" }>;
export type Report = Extract<FromPage, { type: "report" }>;
/** One open overlay page. */
export type Page = {
  id: string;
  socket: WebSocket;
  channel: ChannelId;
  /** Whom it shows: its channel, or a rehearsal of it. */
  shows: ChannelId;
  overlay: string;
  tokenHash: string;
  sinceMs: number;
  width: number;
  height: number;
  hidden: boolean;
  framesPerSecond: number;
  late: number;
  live: number;
  lowered: number;
  dimmed: boolean;
  sound: "ready" | "blocked";
  /** When it said last that it makes the sound; null once it said that it does not. */
  spokeMs: number | null;
};

const slowBytes = 512 * 1024;
const stuckBytes = 8 * 1024 * 1024;

export const freshPage = (
  socket: WebSocket,
  channel: ChannelId,
  of: Pick<Page, "overlay" | "tokenHash" | "sinceMs" | "width" | "height">,
): Page => ({
  id: randomUUID(),
  socket,
  channel,
  shows: channel,
  overlay: of.overlay,
  tokenHash: of.tokenHash,
  sinceMs: of.sinceMs,
  width: of.width,
  height: of.height,
  hidden: false,
  framesPerSecond: 0,
  late: 0,
  live: 0,
  lowered: 0,
  dimmed: false,
  sound: "blocked",
  spokeMs: null,
});

/** Takes what a page tells of itself. Whether it is of another size now, or hidden. */
export function takeReport(page: Page, report: Report): boolean {
  const { width, height, hidden, framesPerSecond, late, live, lowered, dimmed, sound } = report;
  const resized = page.width !== width || page.height !== height || page.hidden !== hidden;
  Object.assign(page, { width, height, hidden, framesPerSecond, late, live, lowered, dimmed, sound });
  if (!report.speaks) page.spokeMs = null;
  return resized;
}

/** What operators see of a page: nothing of its secret. */
export const seenOf = ({
  socket: _socket,
  channel: _channel,
  shows: _shows,
  tokenHash: _tokenHash,
  spokeMs: _spokeMs,
  ...seen
}: Page): Omit<OpenPage, "voice" | "asked"> => seen;
/** Whether it makes the sound, by its own word of just now. */
export const speaks = ({ spokeMs }: Page, nowMs: number): boolean => spokeMs !== null && nowMs - spokeMs < leaseMs;

/** Slow readers miss what is transient, never state; one that does not read at all is let go and may come back. */
export function sendTo(socket: WebSocket, text: string, transient: boolean): void {
  if (socket.readyState !== socket.OPEN) return;
  if (socket.bufferedAmount > stuckBytes) socket.terminate();
  else if (!transient || socket.bufferedAmount < slowBytes) socket.send(text);
}
