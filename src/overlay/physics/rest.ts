import { unitAt } from "../../core/kernel/chance";
import type { Corner } from "./engine";

export type Resting = Readonly<{ ref: number; index: number; size: number }>;
const columns = 96;
const tries = 14;

/**
 * Where pieces would lie, without any motion: each takes the deepest of some places, as a round thing that touches what
 * is under it. For who asked for less motion, and where no worker can be had. Writes ref, index, x, y, angle for each.
 */
export function restingPlaces(wall: readonly Corner[], pieces: readonly Resting[], rowLength: number): Float32Array<ArrayBuffer> {
  const out = new Float32Array(pieces.length * rowLength);
  const left = Math.min(...wall.map((c) => c[0]));
  const right = Math.max(...wall.map((c) => c[0]));
  const wide = (right - left) / columns;
  // The ground under each column: the wall, and then what lies on it.
  const under = Array.from({ length: columns }, (_, i) => lowestAt(wall, left + (i + 0.5) * wide));
  pieces.forEach(({ ref, index, size }, n) => {
    const r = size / 2;
    let best = { x: (left + right) / 2, y: Infinity };
    for (let k = 0; k < tries; k += 1) {
      const x = left + r + unitAt(ref, index * tries + k) * Math.max(0, right - left - size);
      const y = restsAt(under, left, wide, x, r);
      if (best.y === Infinity || y > best.y) best = { x, y };
    }
    const from = Math.max(0, Math.floor((best.x - r - left) / wide));
    const to = Math.min(columns - 1, Math.floor((best.x + r - left) / wide));
    for (let c = from; c <= to; c += 1) {
      const dx = left + (c + 0.5) * wide - best.x;
      if (Math.abs(dx) < r) under[c] = Math.min(under[c] ?? 0, best.y - Math.sqrt(r * r - dx * dx) * 0.86);
    }
    out.set([ref, index, best.x, best.y, (unitAt(ref, index + 7) - 0.5) * 1.2, 0, 1], n * rowLength);
  });
  return out;
}
function restsAt(under: readonly number[], left: number, wide: number, x: number, r: number): number {
  let y = Infinity;
  for (let c = Math.max(0, Math.floor((x - r - left) / wide)); c < under.length; c += 1) {
    const dx = left + (c + 0.5) * wide - x;
    if (dx > r) break;
    if (Math.abs(dx) < r) y = Math.min(y, (under[c] ?? 0) - Math.sqrt(r * r - dx * dx));
  }
  return y === Infinity ? 0 : y;
}
/** The lowest point of the wall at x. */
function lowestAt(wall: readonly Corner[], x: number): number {
  let low = -Infinity;
  for (let i = 0; i + 1 < wall.length; i += 1) {
    const [ax, ay] = wall[i] ?? [0, 0];
    const [bx, by] = wall[i + 1] ?? [0, 0];
    if (ax > x === bx > x) continue;
    low = Math.max(low, ay + ((by - ay) * (x - ax)) / (bx - ax));
  }
  return low === -Infinity ? 0 : low;
}
