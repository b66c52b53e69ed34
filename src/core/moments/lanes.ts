import { refusal, type Refusal } from "../kernel/refusal";
import type { Moment } from "./moment";

/**
 * Lanes keep apart what must not overlap. Moments of one lane play one after another with a gap between;
 * so many may wait, the next is refused. Kept in memory only: what waited when the server died is dropped,
 * never late. Every function returns the next board and what begins or ends now.
 */
export type LaneRules = Readonly<{ id: string; gapMs: number; mostWaiting: number }>;
export type Lane = Readonly<{ playing: Moment | null; untilMs: number; freeAtMs: number; paused: boolean; waiting: readonly Moment[] }>;
export type Board = Readonly<Record<string, Lane>>;
export type LaneOutcome = Readonly<{ board: Board; start: readonly Moment[]; stop: readonly string[]; refusal: Refusal | null }>;

const empty: Lane = { playing: null, untilMs: 0, freeAtMs: 0, paused: false, waiting: [] };
export const laneOf = (board: Board, id: string): Lane => (Object.hasOwn(board, id) ? (board[id] ?? empty) : empty);
const still = (board: Board): LaneOutcome => ({ board, start: [], stop: [], refusal: null });

/** Ends what is over and begins what may begin by now. */
export function laneTick(board: Board, rules: readonly LaneRules[], nowMs: number): LaneOutcome {
  const start: Moment[] = [];
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

const gapOf = (rules: readonly LaneRules[], id: string): number => rules.find((r) => r.id === id)?.gapMs ?? 0;
const begin = (lane: Lane, moment: Moment, gapMs: number, nowMs: number): Lane => ({
  ...lane,
  playing: moment,
  untilMs: nowMs + moment.ms,
  freeAtMs: nowMs + moment.ms + gapMs,
});

/** A moment comes: it begins at once, waits its turn, or is refused because too many wait. No lane: at once, beside all else. */
export function laneAdd(board: Board, rules: readonly LaneRules[], id: string, moment: Moment, nowMs: number): LaneOutcome {
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
export function laneSkip(board: Board, rules: readonly LaneRules[], id: string, nowMs: number): LaneOutcome {
  const lane = laneOf(board, id);
  if (lane.playing === null) return { ...still(board), refusal: refusal("lane/nothing-plays") };
  const after = laneTick({ ...board, [id]: { ...lane, playing: null, untilMs: 0, freeAtMs: nowMs } }, rules, nowMs);
  return { ...after, stop: [lane.playing.id] };
}

/** Drops what waits; what plays goes on. */
export const laneClear = (board: Board, id: string): LaneOutcome => still({ ...board, [id]: { ...laneOf(board, id), waiting: [] } });

export function lanePause(board: Board, rules: readonly LaneRules[], id: string, paused: boolean, nowMs: number): LaneOutcome {
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
