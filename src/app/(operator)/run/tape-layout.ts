import { type TimelineEvent } from "../../../core/show/timeline";
import { type PlanItem } from "../../../core/show/plan";

/** Where marks and stubs stand on the tape. Pure, so that it can be tested without a page. */
export type Placed = Readonly<{ mark: TimelineEvent; x: number; row: number; label: boolean; flip: boolean; more: number }>;

const letterPx = 7.4;
const gapPx = 14;
const widthOf = (label: string): number => Math.min(210, label.length * letterPx + 18);

/**
 * Labels on so many rows where there is room, the weightier first; the rest are ticks. Marks that stand on
 * one spot become one, with how many they are.
 */
export function placeMarks(
  marks: readonly TimelineEvent[],
  xOf: (ms: number) => number,
  fromPx: number,
  toPx: number,
  rows: number,
): readonly Placed[] {
  const seen: { mark: TimelineEvent; x: number; more: number }[] = [];
  for (const mark of marks) {
    const x = xOf(mark.atMs);
    if (x < fromPx - 220 || x > toPx || mark.turned !== "") continue;
    const last = seen[seen.length - 1];
    // What must be told is told, however close it stands to something else.
    if (mark.weight < 3 && last !== undefined && Math.abs(last.x - x) < 4) {
      // One of a heap stands for all of them: the weightiest.
      if (mark.weight > last.mark.weight) last.mark = mark;
      last.more += 1;
    } else seen.push({ mark, x, more: 0 });
  }
  const taken: { from: number; to: number }[][] = Array.from({ length: rows }, () => []);
  const place = (item: (typeof seen)[number]): Placed => {
    const { mark, x, more } = item;
    const tick: Placed = { mark, x, row: rows, label: false, flip: false, more };
    if (mark.weight === 1) return tick;
    const wide = widthOf(mark.label) + gapPx;
    // What has just happened stands at the line: its words go to its left.
    const flip = x + wide > toPx;
    const [from, to] = flip ? [x - wide, x + 6] : [x - 6, x + wide];
    for (const [row, spans] of taken.entries()) {
      if (spans.some((s) => from < s.to && to > s.from)) continue;
      spans.push({ from, to });
      return { ...tick, row, label: true, flip };
    }
    return tick;
  };
  const byWeight = [...seen].sort((a, b) => b.mark.weight - a.mark.weight || b.mark.seq - a.mark.seq);
  return byWeight.map(place).sort((a, b) => a.mark.seq - b.mark.seq);
}

export type PlacedStub = Readonly<{ item: PlanItem; dueMs: number; x: number; width: number; late: boolean }>;
/** What is planned, right of the now-line, in its order; none covers another, and what is overdue waits at the line. */
export function placeStubs(
  items: readonly Readonly<{ item: PlanItem; dueMs: number }>[],
  xOf: (ms: number) => number,
  nowPx: number,
  nowMs: number,
): readonly PlacedStub[] {
  let free = nowPx + 10;
  return [...items]
    .sort((a, b) => a.dueMs - b.dueMs)
    .map(({ item, dueMs }) => {
      const width = 184;
      const x = Math.max(free, xOf(dueMs));
      free = x + width + 8;
      return { item, dueMs, x, width, late: dueMs < nowMs };
    });
}

export const minute = 60_000;
