import { unitAt } from "../../core/kernel/chance";
import { type At, type Body, type Corner, type Fixture, type Piece, type Space, stepS } from "./engine";

export type Ground = Readonly<{
  /** The inner wall from its left rim to its right one, its foot at y 0, its middle at x 0; null where there is none. */
  wall: readonly Corner[] | null;
  thickness: number;
  /** Things that stand there, each a box by its corner: other games' frames. */
  boxes: readonly Readonly<{ x: number; y: number; width: number; height: number }>[];
  /** Where pieces come from, and how far the floor goes. */
  top: number;
  floor: number;
  left: number;
  right: number;
  /** Whether pieces stay within left and right. */
  sides: boolean;
  gravity: number;
}>;
export type Dropping = Readonly<{
  ref: number;
  count: number;
  seed: number;
  piece: Piece;
  /** Unseen: what lay there before. */
  settled?: boolean;
  from?: number;
}>;
export type Live = {
  ref: number;
  index: number;
  piece: Piece;
  body: Body;
  bornStep: number;
  /** Where it is, and where it was one step before. */
  x: number;
  y: number;
  angle: number;
  beforeX: number;
  beforeY: number;
  beforeAngle: number;
  asleep: boolean;
  fast: boolean;
  speed: number;
  squash: number;
  outside: number;
  returns: number;
  fading: number;
  /** It was here when it brimmed: it goes, and is counted no more. */
  leaves: boolean;
};
export type Lying = { ref: number; index: number; piece: Piece; fixture: Fixture; local: At };
export type Coming = { atStep: number; ref: number; index: number; seed: number; piece: Piece; x: number };
/** What waits its turn: a piece, or something done to all that has come before it. */
export type Due = Coming | { atStep: number; act: () => void };
/** What is to lie there in the end: of each ref so many. */
export type Wanted = Readonly<{ ref: number; count: number; seed: number; piece: Piece }>;

/** What one piece is told in: ref, index, x, y, angle, squash, alpha. */
export const rowLength = 7;
export const fallSpeed = 16;
/** A piece outside is given back, or goes, after so many steps. */
export const strayAfter = 40;
export const outsideFor = 150;
export const fadeSteps = 36;
export const appearSteps = 7;
/** Whether a piece is outside is looked at every so many steps. */
export const looksEvery = 6;
export const mostReturns = 6;
/** A piece from above has come to the bottom after so many. */
export const landingSteps = 48;
export const burstSteps = 110;
export const spillSteps = 90;
export const mostBodies = 3_000;

/** When and where each piece of a handful comes in, from a step on: row by row, as many as the mouth lets through. */
export function poured(
  { ref, count, seed, piece, settled = false, from = 0 }: Dropping,
  { left, right }: Readonly<{ left: number; right: number }>,
  beginAt: (rowSteps: number) => number,
): readonly Coming[] {
  const half = Math.max(piece.width, piece.height) / 2;
  const span = Math.max(0, right - left - 2 * half);
  const perRow = Math.max(1, Math.floor(span / (half * 2.3)) + 1);
  const rowSteps = Math.max(1, Math.ceil((half * 3) / (fallSpeed * stepS)));
  const begin = beginAt(rowSteps);
  return Array.from({ length: count }, (_, i): Coming => {
    const index = from + i;
    const row = Math.floor(i / perRow);
    const inRow = Math.min(perRow, count - row * perRow);
    const share = inRow === 1 ? unitAt(seed, index * 3) : ((i % perRow) + 0.5 + (unitAt(seed, index * 3) - 0.5) * 0.6) / inRow;
    // Not in step, as no handful ever is.
    const late = settled ? 0 : Math.floor(unitAt(seed, index * 3 + 1) * rowSteps * 0.6);
    const atStep = begin + (settled ? Math.ceil(row * rowSteps * 0.6) : row * rowSteps + late);
    return { atStep, ref, index, seed, piece, x: left + half + span * Math.max(0, Math.min(1, share)) };
  }).sort((a, b) => a.atStep - b.atStep);
}

/** A piece comes in from above, with a little throw of its own. */
export function enter(space: Space, due: Coming, atX: number, top: number, bornStep: number): Live {
  const { ref, seed, index, piece } = due;
  const x = due.x + atX;
  const y = top - Math.max(piece.width, piece.height) * 0.5;
  const angle = unitAt(seed, index * 3 + 1) * Math.PI * 2;
  const throwing = unitAt(seed, index * 3 + 2) - 0.5;
  const body = space.piece(piece, { x, y, angle }, { x: throwing * 1.5, y: fallSpeed * 0.55, turn: throwing * 5 });
  const now = { x, y, angle, beforeX: x, beforeY: y, beforeAngle: angle, asleep: false, fast: true, leaves: false, speed: 0, squash: 0 };
  return { ref, index, piece, body, bornStep, ...now, outside: 0, returns: 0, fading: 0 };
}

/** Where it is after a step, and how hard it was stopped in it. */
export function felt(p: Live): number {
  p.beforeX = p.x;
  p.beforeY = p.y;
  p.beforeAngle = p.angle;
  p.squash = p.squash < 0.004 ? 0 : p.squash * 0.86;
  p.asleep = p.body.asleep;
  if (p.asleep) {
    p.speed = 0;
    return 0;
  }
  const { x, y } = p.body.raw.translation();
  const v = p.body.raw.linvel();
  const speed = Math.hypot(v.x, v.y);
  const blow = p.speed - speed;
  p.x = x;
  p.y = y;
  p.angle = p.body.raw.rotation();
  p.speed = speed;
  if (blow <= 3) return 0;
  p.squash = Math.min(0.24, Math.max(p.squash, (blow - 3) * 0.016));
  // Only what falls from high above is fast enough to pass through anything.
  if (p.fast) p.body.slow();
  p.fast = false;
  return blow;
}

/** Writes each moving piece, `share` of a step past the step before the last; how many there are. */
export function writeRows(live: readonly Live[], stepNo: number, into: Float32Array, share: number): number {
  const most = Math.floor(into.length / rowLength);
  let n = 0;
  for (const p of live) {
    if (n >= most) break;
    const at = n * rowLength;
    const turned = p.angle - p.beforeAngle;
    into[at] = p.ref;
    into[at + 1] = p.index;
    into[at + 2] = p.beforeX + (p.x - p.beforeX) * share;
    into[at + 3] = p.beforeY + (p.y - p.beforeY) * share;
    // From one side of half a turn to the other is no turn.
    into[at + 4] = Math.abs(turned) > 3 ? p.angle : p.beforeAngle + turned * share;
    into[at + 5] = p.squash;
    const gone = p.fading === 0 ? 1 : Math.max(0, 1 - p.fading / fadeSteps);
    into[at + 6] = gone * Math.min(1, (stepNo - p.bornStep + share) / appearSteps);
    n += 1;
  }
  return n;
}

/** Of so many that are too many of one ref: those that lie beside it first, and then the newest. */
export const surplusOf = (live: readonly Live[], ref: number, over: number): readonly Live[] => {
  const mine = live.filter((p) => p.ref === ref && p.fading === 0 && !p.leaves);
  return [...mine.filter((p) => p.outside > 0), ...mine.filter((p) => p.outside === 0).reverse()].slice(0, over);
};
/** Without so many of a ref that have not come yet, the last first. */
export function withoutComing(due: readonly Due[], ref: number, drop: number): Due[] {
  let left = drop;
  return [...due]
    .reverse()
    .filter((d) => !("ref" in d) || d.ref !== ref || left-- <= 0)
    .reverse();
}

export function toLocal(at: At, pose: At): At {
  const [dx, dy] = [pose.x - at.x, pose.y - at.y];
  const [c, s] = [Math.cos(-at.angle), Math.sin(-at.angle)];
  return { x: dx * c - dy * s, y: dx * s + dy * c, angle: pose.angle - at.angle };
}

/** Each corner of a wall moved outwards; the wall runs from its left rim down and up to its right one. */
export function outwards(wall: readonly Corner[], by: number): readonly Corner[] {
  return wall.map(([x, y], i): Corner => {
    const a = wall[Math.max(0, i - 1)] ?? [x, y];
    const b = wall[Math.min(wall.length - 1, i + 1)] ?? [x, y];
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const length = Math.hypot(dx, dy) || 1;
    return [x - (dy / length) * by, y + (dx / length) * by];
  });
}

export function inside(wall: readonly Corner[], x: number, y: number): boolean {
  let within = false;
  for (let i = 0, k = wall.length - 1; i < wall.length; k = i, i += 1) {
    const [ax, ay] = wall[i] ?? [0, 0];
    const [bx, by] = wall[k] ?? [0, 0];
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) within = !within;
  }
  return within;
}
