import { refusal, type Refusal } from "../kernel/refusal";
import type { Alert } from "./alert";

/**
 * Queues keep apart what must not overlap. Alerts of one queue play one after another with a gap between;
 * so many may wait, the next is refused. Kept in memory only: what waited when the server died is dropped,
 * never late. Every function returns the next board and what begins or ends now.
 */
export type QueueRules = Readonly<{ id: string; gapMs: number; mostWaiting: number }>;
export type Queue = Readonly<{ playing: Alert | null; untilMs: number; freeAtMs: number; paused: boolean; waiting: readonly Alert[] }>;
export type Board = Readonly<Record<string, Queue>>;
export type QueueOutcome = Readonly<{ board: Board; start: readonly Alert[]; stop: readonly string[]; refusal: Refusal | null }>;

const empty: Queue = { playing: null, untilMs: 0, freeAtMs: 0, paused: false, waiting: [] };
export const queueOf = (board: Board, id: string): Queue => (Object.hasOwn(board, id) ? (board[id] ?? empty) : empty);
const still = (board: Board): QueueOutcome => ({ board, start: [], stop: [], refusal: null });

/** Ends what is over and begins what may begin by now. */
export function queueTick(board: Board, rules: readonly QueueRules[], nowMs: number): QueueOutcome {
  const start: Alert[] = [];
  let next = board;
  for (const id of Object.keys(board)) {
    let queue = queueOf(next, id);
    if (queue.playing !== null && queue.untilMs <= nowMs) queue = { ...queue, playing: null };
    const [first, ...rest] = queue.waiting;
    if (queue.playing === null && !queue.paused && first !== undefined && queue.freeAtMs <= nowMs) {
      queue = begin({ ...queue, waiting: rest }, first, gapOf(rules, id), nowMs);
      start.push(first);
    }
    if (queue !== queueOf(next, id)) next = { ...next, [id]: queue };
  }
  return { board: next, start, stop: [], refusal: null };
}

const gapOf = (rules: readonly QueueRules[], id: string): number => rules.find((r) => r.id === id)?.gapMs ?? 0;
const begin = (queue: Queue, alert: Alert, gapMs: number, nowMs: number): Queue => ({
  ...queue,
  playing: alert,
  untilMs: nowMs + alert.ms,
  freeAtMs: nowMs + alert.ms + gapMs,
});

/** An alert comes: it begins at once, waits its turn, or is refused because too many wait. No queue: at once, beside all else. */
export function queueAdd(board: Board, rules: readonly QueueRules[], id: string, alert: Alert, nowMs: number): QueueOutcome {
  if (id === "") return { board, start: [alert], stop: [], refusal: null };
  const ticked = queueTick(board, rules, nowMs);
  const queue = queueOf(ticked.board, id);
  const mostWaiting = rules.find((r) => r.id === id)?.mostWaiting ?? 20;
  if (queue.playing === null && !queue.paused && queue.waiting.length === 0 && queue.freeAtMs <= nowMs)
    return { ...ticked, board: { ...ticked.board, [id]: begin(queue, alert, gapOf(rules, id), nowMs) }, start: [...ticked.start, alert] };
  if (queue.waiting.length >= mostWaiting) return { ...ticked, refusal: refusal("queue/full", { waiting: queue.waiting.length }) };
  return { ...ticked, board: { ...ticked.board, [id]: { ...queue, waiting: [...queue.waiting, alert] } } };
}

/** Ends what plays now; the next may begin at once. */
export function queueSkip(board: Board, rules: readonly QueueRules[], id: string, nowMs: number): QueueOutcome {
  const queue = queueOf(board, id);
  if (queue.playing === null) return { ...still(board), refusal: refusal("queue/nothing-plays") };
  const after = queueTick({ ...board, [id]: { ...queue, playing: null, untilMs: 0, freeAtMs: nowMs } }, rules, nowMs);
  return { ...after, stop: [queue.playing.id] };
}

/** Drops what waits; what plays goes on. */
export const queueClear = (board: Board, id: string): QueueOutcome => still({ ...board, [id]: { ...queueOf(board, id), waiting: [] } });

export function queuePause(board: Board, rules: readonly QueueRules[], id: string, paused: boolean, nowMs: number): QueueOutcome {
  return queueTick({ ...board, [id]: { ...queueOf(board, id), paused } }, rules, nowMs);
}

/** When something next ends or may begin; null when nothing is due. */
export function queueDueMs(board: Board): number | null {
  let due: number | null = null;
  for (const queue of Object.values(board)) {
    const at = queue.playing !== null ? queue.untilMs : queue.waiting.length > 0 && !queue.paused ? queue.freeAtMs : null;
    if (at !== null && (due === null || at < due)) due = at;
  }
  return due;
}
