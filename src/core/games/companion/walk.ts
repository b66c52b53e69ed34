import { unitAt } from "../../kernel/chance";

/** Where a companion stands in its place (0 to 1 across), whether it walks just now, and to which side. */
export type Stand = Readonly<{ x: number; walking: boolean; towards: -1 | 1 }>;
const slotMs = 14_000;
/** Shares of its place that it walks in a second. */
const pace = 0.09;

/**
 * Where it is at a time: a function of its seed and the time alone, so that two pages agree however late each joined.
 * Time is cut into stretches; in each it may set out once for another spot, and has arrived before the next begins.
 */
export function standAt(seed: number, atMs: number): Stand {
  const slot = Math.floor(atMs / slotMs);
  const from = spot(seed, slot - 1);
  const to = spot(seed, slot);
  const towards = to < from ? -1 : 1;
  const leavesMs = unitAt(seed, slot * 4 + 1) * slotMs * 0.15;
  const takesMs = Math.min(slotMs * 0.8, (Math.abs(to - from) / pace) * 1_000);
  const done = takesMs === 0 ? 1 : (atMs - slot * slotMs - leavesMs) / takesMs;
  if (done <= 0) return { x: from, walking: false, towards };
  if (done >= 1) return { x: to, walking: false, towards };
  return { x: from + (to - from) * done, walking: true, towards };
}
/** Often it stays where it is: somebody who walks all the time is a nuisance. */
function spot(seed: number, slot: number): number {
  for (let k = slot; k > slot - 6; k -= 1) if (unitAt(seed, k * 4 + 2) < 0.55) return 0.08 + 0.84 * unitAt(seed, k * 4 + 3);
  return 0.5;
}

/**
 * A spot across its place, moved out of the way of what stands there: stretches from and to, 0 to 1. Where all is taken it
 * is the side that is farthest from the middle of them.
 */
export function aside(x: number, width: number, taken: readonly (readonly [number, number])[]): number {
  const half = width / 2;
  const blocked = taken
    .map(([from, to]) => [from - half, to + half] as const)
    .filter(([from, to]) => to > from)
    .sort((a, b) => a[0] - b[0]);
  const free: [number, number][] = [];
  let at = half;
  for (const [from, to] of blocked) {
    if (from > at) free.push([at, Math.min(from, 1 - half)]);
    at = Math.max(at, to);
  }
  if (at < 1 - half) free.push([at, 1 - half]);
  const rooms = free.filter(([from, to]) => to > from);
  if (rooms.length === 0) {
    const middle = blocked.reduce((sum, [from, to]) => sum + (from + to) / 2, 0) / Math.max(1, blocked.length);
    return blocked.length === 0 ? 0.5 : middle > 0.5 ? Math.min(0.5, half) : Math.max(0.5, 1 - half);
  }
  // As it walks across its place, so it walks across what is left of it.
  const all = rooms.reduce((sum, [from, to]) => sum + to - from, 0);
  let left = x * all;
  for (const [from, to] of rooms) {
    if (left <= to - from) return from + left;
    left -= to - from;
  }
  return rooms[rooms.length - 1]?.[1] ?? 0.5;
}
