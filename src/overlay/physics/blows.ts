import { mix32, unitAt } from "../../core/kernel/chance";
import type { Live } from "./pile-parts";

/** What lies high is thrown up and outwards from the middle, the highest most. */
export function throwOut(live: readonly Live[], middle: number, seed: number): void {
  const rows = [...live].sort((a, b) => a.y - b.y || a.ref - b.ref || a.index - b.index);
  rows.forEach((p, i) => {
    const high = 1 - i / Math.max(1, rows.length);
    const way = (p.x - middle >= 0 ? 1 : -1) * (0.2 + unitAt(seed, i * 2));
    const up = 0.6 + 0.4 * unitAt(seed, i * 2 + 1);
    p.body.raw.setLinvel({ x: way * 11 * high ** 2, y: -(5 + 22 * high * high) * up }, true);
    p.body.raw.setAngvel(way * 14, true);
  });
}

/** All of them jump a little. */
export function jolt(live: readonly Live[], seed: number, strength: number): void {
  for (const p of live) {
    const kick = unitAt(mix32(seed, p.ref), p.index);
    p.body.raw.applyImpulse({ x: (kick - 0.5) * 5 * strength * p.piece.mass, y: -(1.5 + 3 * kick) * strength * p.piece.mass }, true);
  }
}

/** Back above the mouth, falling. */
export function putBack(
  p: Live,
  mouth: Readonly<{ left: number; right: number }>,
  at: Readonly<{ x: number; y: number }>,
  speed: number,
): void {
  p.returns += 1;
  p.outside = 0;
  p.x = p.beforeX = (mouth.left + mouth.right) / 2 + at.x + (unitAt(p.ref, p.index + p.returns) - 0.5) * (mouth.right - mouth.left) * 0.5;
  p.y = p.beforeY = at.y;
  p.body.raw.setTranslation({ x: p.x, y: p.y }, true);
  p.body.raw.setLinvel({ x: 0, y: speed }, true);
}
