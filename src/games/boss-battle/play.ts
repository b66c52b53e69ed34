import { unitAt } from "../../core/kernel/chance";
import { springBack as spring } from "../../overlay/motion";

/**
 * How a boss moves: functions of time since a blow, never integrated, so that a page that was held back
 * catches up and two pages look alike. Lengths are shares of the figure's side.
 */
export type Blow = Readonly<{ atMs: number; force: number; seed: number }>;
export const recoilS = 1.1;
/** How far and how much it leans now, from all blows that still ring. It gives way from where it was hit. */
export function recoil(blows: readonly Blow[], nowMs: number): { x: number; y: number; lean: number; squash: number } {
  const out = { x: 0, y: 0, lean: 0, squash: 0 };
  for (const { atMs, force, seed } of blows) {
    const tS = (nowMs - atMs) / 1000;
    if (tS <= 0 || tS > recoilS) continue;
    const side = unitAt(seed, 1) < 0.5 ? 1 : -1;
    const ring = spring(tS) * force;
    out.x += side * ring * 0.16;
    out.y -= Math.abs(ring) * 0.03;
    out.lean += side * ring * 0.22;
    out.squash += spring(tS, 8, 26) * force * 0.16;
  }
  return out;
}

/** A blow's force from its share of full health: small ones are felt, large ones do not throw it off the picture. */
export const forceOf = (share: number, weight: number): number =>
  (weight / 100) * Math.min(1.15, 0.18 + Math.sqrt(Math.max(0, share)) * 1.15);

export type Shard = { x: number; y: number; angle: number; size: number; alpha: number; glazed: boolean };
export const shardS = 1.6;
/** Where the `i`-th shard of a burst is: thrown, falling, bouncing once off the floor, fading. */
export function shard(seed: number, i: number, tS: number, from: Readonly<{ x: number; y: number }>, power: number, out: Shard): boolean {
  if (tS < 0 || tS > shardS) return false;
  const r = (k: number): number => unitAt(seed, i * 8 + k);
  const heading = -Math.PI / 2 + (r(0) - 0.5) * 2.6;
  const speed = (0.35 + 0.75 * r(1)) * power;
  const gravity = 1.9;
  const vx = Math.cos(heading) * speed;
  const vy = Math.sin(heading) * speed;
  const floor = 0.97 - from.y;
  // When it lands, by the quadratic; from then on a lower, slower hop.
  const landS = (-vy + Math.sqrt(Math.max(0, vy * vy + 2 * gravity * floor))) / gravity;
  const flyS = Math.min(tS, landS);
  const hopS = Math.max(0, tS - landS);
  const hop = (vy + gravity * landS) * -0.32;
  const hopEndS = (-2 * hop) / gravity;
  const inHop = Math.min(hopS, hopEndS);
  out.x = from.x + vx * flyS + vx * 0.4 * inHop;
  out.y = from.y + vy * flyS + 0.5 * gravity * flyS * flyS + (hopS > 0 ? hop * inHop + 0.5 * gravity * inHop * inHop : 0);
  if (hopS > 0) out.y = Math.min(out.y, 0.97);
  out.angle = r(2) * 6.28 + (r(3) - 0.5) * 14 * Math.min(tS, landS + 0.3);
  out.size = 0.02 + 0.045 * r(4) * power;
  out.alpha = Math.min(1, (shardS - tS) / 0.5);
  out.glazed = r(5) < 0.45;
  return true;
}

/** The fall: it swells and shakes, bursts, the floor is swept, the next one drops in, lands, and its glaze rises. */
export const fallMs = { shake: 650, burst: 650, enter: 1_500, land: 1_950, full: 2_900 } as const;

export type Crack = readonly Readonly<{ x: number; y: number }>[];
const crackCache = new Map<string, readonly Crack[]>();
export const mostCracks = 9;
/** The cracks of one reign, in the order they open: lines that branch, within the unit square. */
export function cracksOf(seed: number): readonly Crack[] {
  const key = String(seed);
  let cracks = crackCache.get(key);
  if (cracks !== undefined) return cracks;
  const made: Crack[] = [];
  for (let i = 0; i < mostCracks; i += 1) {
    const r = (k: number): number => unitAt(seed, i * 40 + k);
    let x = 0.25 + 0.5 * r(0);
    let y = 0.28 + 0.5 * r(1);
    let heading = r(2) * Math.PI * 2;
    const main = [{ x, y }];
    for (let k = 0; k < 6; k += 1) {
      heading += (r(3 + k) - 0.5) * 1.5;
      const step = 0.035 + 0.05 * r(10 + k);
      x += Math.cos(heading) * step;
      y += Math.sin(heading) * step;
      main.push({ x, y });
      if (k === 2 || k === 4) {
        const side = heading + (r(20 + k) < 0.5 ? 1 : -1) * (0.7 + 0.5 * r(24 + k));
        const mid = { x: x + Math.cos(side) * 0.05, y: y + Math.sin(side) * 0.05 };
        made.push([{ x, y }, mid, { x: mid.x + Math.cos(side + 0.4) * 0.035, y: mid.y + Math.sin(side + 0.4) * 0.035 }]);
      }
    }
    made.push(main);
  }
  if (crackCache.size > 20) crackCache.clear();
  crackCache.set(key, (cracks = made));
  return cracks;
}
