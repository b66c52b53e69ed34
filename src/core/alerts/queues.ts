import { refusal, type Refusal } from "../kernel/refusal";
import type { Alert } from "./alert";

/**
 * Lanes keep apart what must not overlap. Moments of one lane play one after another with a gap between;
 * so many may wait, the next is refused. Kept in memory only: what waited when the server died is dropped,
 * never late. Every function returns the next board and what begins or ends now.
 */
export type QueueRules = Readonly<{ id: string; gapMs: number; mostWaiting: number }>;
export type Queue = Readonly<{ playing: Alert | null; untilMs: number; freeAtMs: number; paused: boolean; waiting: readonly Alert[] }>;
export type Board = Readonly<Record<string, Queue>>;
export type QueueOutcome = Readonly<{ board: Board; start: readonly Alert[]; stop: readonly string[]; refusal: Refusal | null }>;

const empty: Queue = { playing: null, untilMs: 0, freeAtMs: 0, paused: false, waiting: [] };
export const laneOf = (board: Board, id: string): Queue => (Object.hasOwn(board, id) ? (board[id] ?? empty) : empty);
const still = (board: Board): QueueOutcome => ({ board, start: [], stop: [], refusal: null });

/** Ends what is over and begins what may begin by now. */
export function laneTick(board: Board, rules: readonly QueueRules[], nowMs: number): QueueOutcome {
  const start: Alert[] = [];
  let next = board;
  for (const id of Object.keys(board)) {
    let lane = laneOf(next, id);
    if (lane.playing !== null && lane.untilMs <= nowMs) lane = { ...lane, playing: null };
    const [first, ...rest] = lane.waiting;
    if (lane.playing === null && !lane.paused && first !== undefined && lane.freeAtMs <= nowMs) {
      lane = begin({ ...lane, waiting: rest }, first, gapOf(rules, id), nowMs);
      start.push(first);
    }
    if (lane !== laneOf(next, id)) next = { ...next, [id]: lane };
  }
  return { board: next, start, stop: [], refusal: null };
}

const gapOf = (rules: readonly QueueRules[], id: string): number => rules.find((r) => r.id === id)?.gapMs ?? 0;
const begin = (lane: Queue, moment: Alert, gapMs: number, nowMs: number): Queue => ({
  ...lane,
  playing: moment,
  untilMs: nowMs + moment.ms,
  freeAtMs: nowMs + moment.ms + gapMs,
});

/** A moment comes: it begins at once, waits its turn, or is refused because too many wait. No lane: at once, beside all else. */
export function laneAdd(board: Board, rules: readonly QueueRules[], id: string, moment: Alert, nowMs: number): QueueOutcome {
  if (id === "") return { board, start: [moment], stop: [], refusal: null };
  const ticked = laneTick(board, rules, nowMs);
  const lane = laneOf(ticked.board, id);
  const mostWaiting = rules.find((r) => r.id === id)?.mostWaiting ?? 20;
  if (lane.playing === null && !lane.paused && lane.waiting.length === 0 && lane.freeAtMs <= nowMs)
    return { ...ticked, board: { ...ticked.board, [id]: begin(lane, moment, gapOf(rules, id), nowMs) }, start: [...ticked.start, moment] };
  if (lane.waiting.length >= mostWaiting) return { ...ticked, refusal: refusal("lane/full", { waiting: lane.waiting.length }) };
  return { ...ticked, board: { ...ticked.board, [id]: { ...lane, waiting: [...lane.waiting, moment] } } };
}

/** Ends what plays now; the next may begin at once. */
export function laneSkip(board: Board, rules: readonly QueueRules[], id: string, nowMs: number): QueueOutcome {
  const lane = laneOf(board, id);
  if (lane.playing === null) return { ...still(board), refusal: refusal("lane/nothing-plays") };
  const after = laneTick({ ...board, [id]: { ...lane, playing: null, untilMs: 0, freeAtMs: nowMs } }, rules, nowMs);
  return { ...after, stop: [lane.playing.id] };
}

/** Drops what waits; what plays goes on. */
export const laneClear = (board: Board, id: string): QueueOutcome => still({ ...board, [id]: { ...laneOf(board, id), waiting: [] } });

export function lanePause(board: Board, rules: readonly QueueRules[], id: string, paused: boolean, nowMs: number): QueueOutcome {
  return laneTick({ ...board, [id]: { ...laneOf(board, id), paused } }, rules, nowMs);
}

/** When something next ends or may begin; null when nothing is due. */
export function laneDueMs(board: Board): number | null {
  let due: number | null = null;
  for (const lane of Object.values(board)) {
    const at = lane.playing !== null ? lane.untilMs : lane.waiting.length > 0 && !lane.paused ? lane.freeAtMs : null;
    if (at !== null && (due === null || at < due)) due = at;
  }
  return due;
}
