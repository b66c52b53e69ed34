import { mix32, unitAt } from "../../core/kernel/chance";
import { type At, type Body, type Carrier, type Corner, type Engine, type Fixture, type Piece, Space, stepS } from "./engine";
import { restsUpright, tipSteps, VesselMotion } from "./vessel-motion";

/**
 * A pile and what it lies in. Lengths are tenths of the vessel's height where there is a vessel; y down, the foot of the
 * vessel at 0. A function of what it is told and in which step: no clock, no chance of its own, so the same seeds and the
 * same orders give the same run, on any machine.
 */
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
  /** All at once, unseen: what lay there before. */ settled?: boolean;
  from?: number;
}>;
type Live = {
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
type Lying = { ref: number; index: number; piece: Piece; fixture: Fixture; local: At };
type Coming = { atStep: number; ref: number; index: number; seed: number; piece: Piece; x: number };
/** What waits its turn: a piece, or something done to all that has come before it. */
type Due = Coming | { atStep: number; act: () => void };
/** What is to lie there in the end: of each ref so many. */
export type Wanted = Readonly<{ ref: number; count: number; seed: number; piece: Piece }>;

/** What one piece is told in: ref, index, x, y, angle, squash, alpha. */
export const rowLength = 7;
const fallSpeed = 16;
/** A piece outside is given back, or goes, after so many steps. */
const strayAfter = 40;
const outsideFor = 150;
const fadeSteps = 36;
const appearSteps = 7;
/** Whether a piece is outside is looked at every so many steps. */
const looksEvery = 6;
const mostReturns = 6;
/** A piece from above has come to the bottom after so many. */
const landingSteps = 48;
const burstSteps = 110;
const spillSteps = 90;
export const mostBodies = 3_000;

export class PileWorld {
  private readonly space: Space;
  private readonly vessel: Carrier | null;
  private readonly motion: VesselMotion;
  private guard: Fixture[] = [];
  private live: Live[] = [];
  private lying: Lying[] = [];
  private due: Due[] = [];
  private stepNo = 0;
  private bursting = 0;
  private spawnedStep = 0;
  private wanted = new Map<number, Wanted>();
  /** When what is wanted is next held against what is there; nothing is amiss while it is null. */
  private lookStep: number | null = null;
  cap: number;
  /** Pieces that became part of the pile, or left it, since somebody asked. */
  bedChanged = false;

  constructor(
    engine: Engine,
    private readonly ground: Ground,
    cap: number,
  ) {
    this.cap = cap;
    this.space = new Space(engine, ground.gravity);
    this.motion = new VesselMotion(ground.wall);
    this.vessel = ground.wall === null ? null : this.space.carrier({ x: 0, y: 0, angle: 0 });
    this.buildWall();
    this.fence();
    const { left, right, floor, boxes } = ground;
    const wide = (right - left) * 3;
    this.space.block((left + right) / 2, floor + 5, wide, 10);
    if (ground.sides) {
      const tall = Math.abs(floor - ground.top) * 4 + 40;
      this.space.block(left - 2.5, floor - tall / 2, 5, tall);
      this.space.block(right + 2.5, floor - tall / 2, 5, tall);
    }
    for (const box of boxes) this.space.block(box.x + box.width / 2, box.y + box.height / 2, box.width, box.height);
  }

  private buildWall(): void {
    const { wall, thickness } = this.ground;
    if (wall === null || this.vessel === null) return;
    const outer = outwards(wall, thickness);
    for (let i = 0; i + 1 < wall.length; i += 1) {
      const [a, b, c, d] = [wall[i], wall[i + 1], outer[i + 1], outer[i]];
      if (a !== undefined && b !== undefined && c !== undefined && d !== undefined) this.vessel.hull([a, b, c, d]);
    }
  }
  /** Unseen walls above the rim, so that nothing is lost that the core has counted. They are away while it brims or lies. */
  private fence(): void {
    const { wall, top, thickness } = this.ground;
    const from = wall?.[0];
    const to = wall?.[wall.length - 1];
    if (from === undefined || to === undefined || this.vessel === null || this.guard.length > 0) return;
    for (const [[x, y], way] of [
      [from, -1],
      [to, 1],
    ] as const) {
      const out = x + way * thickness;
      const high = top - 30;
      const made = this.vessel.hull([
        [x, y],
        [out, y],
        [out, high],
        [x, high],
      ]);
      if (made !== null) this.guard.push(made);
    }
  }
  private unfence(): void {
    for (const part of this.guard) this.space.take(part);
    this.guard = [];
  }

  get bodies(): number {
    return this.live.length + this.lying.length;
  }
  get liveCount(): number {
    return this.live.length;
  }
  get steps(): number {
    return this.stepNo;
  }
  /** Where the vessel stands now. */
  get stands(): At {
    return this.motion.at;
  }
  /** Nothing moves, nothing comes: it need not be stepped. */
  get resting(): boolean {
    return this.rested;
  }
  private rested = false;
  private rests(): boolean {
    return (
      this.due.length === 0 &&
      this.bursting === 0 &&
      this.lookStep === null &&
      this.motion.still &&
      this.live.every((p) => p.asleep && p.squash === 0 && p.outside === 0 && p.fading === 0)
    );
  }
  /** Whoever tells it something wakes it. */
  private stir(): void {
    this.rested = false;
  }

  set gravity(value: number) {
    this.space.gravity = value;
    this.wakeAll();
  }

  private mouth(): Readonly<{ left: number; right: number }> {
    const { wall, left, right } = this.ground;
    const from = wall?.[0];
    const to = wall?.[wall.length - 1];
    return from === undefined || to === undefined ? { left, right } : { left: from[0], right: to[0] };
  }

  drop({ ref, count, seed, piece, settled = false, from = 0 }: Dropping): void {
    this.stir();
    const { left, right } = this.mouth();
    const half = Math.max(piece.width, piece.height) / 2;
    const span = Math.max(0, right - left - 2 * half);
    const perRow = Math.max(1, Math.floor(span / (half * 2.3)) + 1);
    const rowSteps = Math.max(1, Math.ceil((half * 3) / (fallSpeed * stepS)));
    const begin = this.due.length === 0 ? this.stepNo + 1 : this.lastDue + rowSteps;
    const coming: Coming[] = [];
    for (let i = 0; i < count; i += 1) {
      const index = from + i;
      const row = Math.floor(i / perRow);
      const inRow = Math.min(perRow, count - row * perRow);
      const share = inRow === 1 ? unitAt(seed, index * 3) : ((i % perRow) + 0.5 + (unitAt(seed, index * 3) - 0.5) * 0.6) / inRow;
      // Not in step, as no handful ever is.
      const late = settled ? 0 : Math.floor(unitAt(seed, index * 3 + 1) * rowSteps * 0.6);
      coming.push({
        atStep: begin + (settled ? Math.ceil(row * rowSteps * 0.6) : row * rowSteps + late),
        ref,
        index,
        seed,
        piece,
        x: left + half + span * Math.max(0, Math.min(1, share)),
      });
    }
    this.due.push(...coming.sort((a, b) => a.atStep - b.atStep));
  }

  private get lastDue(): number {
    return this.due[this.due.length - 1]?.atStep ?? this.stepNo;
  }
  /** Once all that was told before has come, and had so many steps to fall. */
  private then(steps: number, act: () => void): void {
    this.stir();
    const from = this.due.length > 0 ? this.lastDue : Math.max(this.stepNo, this.spawnedStep);
    this.due.push({ atStep: Math.max(this.stepNo + 1, from + steps), act });
  }

  private spawn(due: Coming): void {
    this.spawnedStep = this.stepNo;
    if (this.bodies >= mostBodies) this.dropOldest();
    const { ref, seed, index, piece } = due;
    const x = due.x + this.motion.at.x;
    const y = this.ground.top - Math.max(piece.width, piece.height) * 0.5;
    const angle = unitAt(seed, index * 3 + 1) * Math.PI * 2;
    const throwing = unitAt(seed, index * 3 + 2) - 0.5;
    const body = this.space.piece(piece, { x, y, angle }, { x: throwing * 1.5, y: fallSpeed * 0.55, turn: throwing * 5 });
    const now = { x, y, angle, beforeX: x, beforeY: y, beforeAngle: angle, asleep: false, fast: true, leaves: false, speed: 0, squash: 0 };
    this.live.push({ ref, index, piece, body, bornStep: this.stepNo, ...now, outside: 0, returns: 0, fading: 0 });
  }
  private dropOldest(): void {
    const oldest = this.lying.shift();
    if (oldest === undefined) return;
    this.space.take(oldest.fixture);
    this.bedChanged = true;
  }

  /** Oldest first, what moves beyond the cap becomes part of the pile it lies in, once it rests. */
  private fadeIntoPile(): void {
    const over = this.live.length - this.cap;
    if (over <= 0 || this.vessel === null || !this.motion.still) return;
    let joined = 0;
    const kept: Live[] = [];
    for (const p of this.live) {
      const slow = p.asleep || (p.speed < 0.35 && this.stepNo - p.bornStep > 90);
      if (joined < over && slow && p.outside === 0 && p.fading === 0 && !p.leaves) {
        const local = toLocal(this.motion.at, p);
        this.lying.push({
          ref: p.ref,
          index: p.index,
          piece: p.piece,
          fixture: this.space.join(p.body, p.piece, this.vessel, local),
          local,
        });
        this.bedChanged = true;
        joined += 1;
      } else kept.push(p);
    }
    this.live = kept;
  }

  /** A sixtieth of a second; nothing at all where everything rests. */
  step(): void {
    this.stepNo += 1;
    if (this.rested) return;
    let ready = 0;
    // One thing that is done in its turn may put others into it.
    for (let due = this.due[0]; due !== undefined && due.atStep <= this.stepNo; due = this.due[ready]) {
      if ("act" in due) {
        this.due.splice(0, ready + 1);
        ready = 0;
        due.act();
        continue;
      }
      // Nothing falls beside a vessel that lies on its side.
      if (this.motion.lies || this.motion.tipping) break;
      this.spawn(due);
      ready += 1;
    }
    this.due.splice(0, ready);
    if (this.lookStep !== null && this.stepNo >= this.lookStep) this.reconcile();
    const moved = this.motion.step(this.stepNo);
    if (moved) {
      this.vessel?.move(this.motion.at);
      this.wakeAll();
    }
    this.space.step();
    if (this.bursting > 0) {
      this.bursting -= 1;
      if (this.bursting === 0) this.fence();
    }
    this.after();
    this.fadeIntoPile();
    this.rested = this.rests();
  }

  /** What each piece felt in this step; who is outside, and who is gone. */
  private after(): void {
    const { floor, left, right } = this.ground;
    for (const p of this.live) {
      p.beforeX = p.x;
      p.beforeY = p.y;
      p.beforeAngle = p.angle;
      p.asleep = p.body.asleep;
      if (!p.asleep) this.feel(p);
      else p.speed = 0;
      p.squash = p.squash < 0.004 ? 0 : p.squash * 0.86;
      const { x, y } = p;
      if (p.fading > 0) p.fading += 1;
      else if (p.leaves && this.stepNo >= this.leavingStep) p.fading = 1;
      const lost = !Number.isFinite(x) || !Number.isFinite(y) || y > floor + 8 || x < left - 30 || x > right + 30;
      if (lost && p.fading === 0) {
        if (!this.bring(p)) p.fading = fadeSteps + 1;
      } else if ((p.index + this.stepNo) % looksEvery !== 0) {
        continue;
      } else if (this.isOutside(x, y)) {
        p.outside += looksEvery;
        const goes = p.leaves || this.bursting > 0 || this.motion.lies || this.motion.tipping || p.returns >= mostReturns;
        if (!goes && p.outside > strayAfter && p.fading === 0) this.bring(p);
        else if (p.outside > outsideFor && p.fading === 0) p.fading = 1;
      } else if (p.fading === 0) p.outside = 0;
    }
    if (!this.live.some((p) => p.fading > fadeSteps)) return;
    for (const p of this.live) if (p.fading > fadeSteps) this.space.remove(p.body);
    this.live = this.live.filter((p) => p.fading <= fadeSteps);
  }
  private feel(p: Live): void {
    const { x, y } = p.body.raw.translation();
    const v = p.body.raw.linvel();
    const speed = Math.hypot(v.x, v.y);
    const blow = p.speed - speed;
    if (blow > 3) {
      p.squash = Math.min(0.24, Math.max(p.squash, (blow - 3) * 0.016));
      // Only what falls from high above is fast enough to pass through anything.
      if (p.fast) p.body.slow();
      p.fast = false;
      this.motion.struck(x, blow, p.piece.mass);
    }
    p.x = x;
    p.y = y;
    p.angle = p.body.raw.rotation();
    p.speed = speed;
  }
  /** A stray is dropped in again from above. */
  private bring(p: Live): boolean {
    const goes = p.leaves || this.bursting > 0 || this.motion.lies || this.motion.tipping;
    if (this.ground.wall === null || goes || p.returns >= mostReturns) return false;
    p.returns += 1;
    p.outside = 0;
    const { left, right } = this.mouth();
    const middle = (left + right) / 2 + this.motion.at.x;
    p.x = p.beforeX = middle + (unitAt(p.ref, p.index + p.returns) - 0.5) * (right - left) * 0.5;
    p.y = p.beforeY = this.ground.top;
    p.body.raw.setTranslation({ x: p.x, y: p.y }, true);
    p.body.raw.setLinvel({ x: 0, y: fallSpeed * 0.4 }, true);
    return true;
  }
  /** Beside the vessel, or under it. */
  private isOutside(x: number, y: number): boolean {
    const { wall } = this.ground;
    if (wall === null) return false;
    const local = toLocal(this.motion.at, { x, y, angle: 0 });
    const rim = Math.max(wall[0]?.[1] ?? 0, wall[wall.length - 1]?.[1] ?? 0);
    if (local.y < rim + 0.2) {
      const { left, right } = this.mouth();
      return (local.x < left - 0.6 || local.x > right + 0.6) && y > this.ground.top + 1;
    }
    return !inside(wall, local.x, local.y);
  }

  /** Once what was told before has come, the rim gives way: what lies high bursts out and over; `empties`: all of it goes. */
  burst(seed: number, empties: boolean): void {
    this.then(landingSteps, () => this.burstNow(seed, empties));
    // What comes next waits until all of it has gone.
    if (empties) this.then(burstSteps, () => this.clearBed());
  }
  private leavingStep = 0;
  private burstNow(seed: number, empties: boolean): void {
    this.unfence();
    this.bursting = burstSteps;
    this.wakeAll();
    const rows = [...this.live].sort((a, b) => a.y - b.y || a.ref - b.ref || a.index - b.index);
    rows.forEach((p, i) => {
      const high = 1 - i / Math.max(1, rows.length);
      const way = (p.x - this.motion.at.x >= 0 ? 1 : -1) * (0.2 + unitAt(seed, i * 2));
      const up = 0.6 + 0.4 * unitAt(seed, i * 2 + 1);
      p.body.raw.setLinvel({ x: way * 11 * high ** 2, y: -(5 + 22 * high * high) * up }, true);
      p.body.raw.setAngvel(way * 14, true);
      if (empties) p.leaves = true;
    });
    this.motion.shake(this.stepNo, seed, 0.5);
    if (!empties) return;
    this.leavingStep = this.stepNo + burstSteps - fadeSteps - 10;
  }
  /** All that lies there, or waits to fall, goes softly. */
  empty(): void {
    this.stir();
    this.due = [];
    for (const p of this.live) if (p.fading === 0) p.fading = 1;
    this.clearBed();
  }
  private clearBed(): void {
    for (const l of this.lying) this.space.take(l.fixture);
    if (this.lying.length > 0) this.bedChanged = true;
    this.lying = [];
  }

  /** What is to lie there in the end. What is missing is dropped, what is too much goes, once nothing else is under way. */
  want(all: readonly Wanted[]): void {
    this.stir();
    this.wanted = new Map(all.map((w) => [w.ref, w]));
    this.lookStep ??= this.stepNo + 10;
  }
  private reconcile(): void {
    const busy = this.bursting > 0 || this.motion.tipping || this.due.some((d) => "act" in d);
    if (busy) {
      this.lookStep = this.stepNo + 20;
      return;
    }
    // One that lies spills for a while before anybody counts what is left.
    if (this.motion.lies && this.stepNo - this.laidStep < spillSteps) {
      this.lookStep = this.laidStep + spillSteps;
      return;
    }
    this.lookStep = null;
    const there = this.counts();
    for (const [ref, count] of there) {
      const over = count - (this.wanted.get(ref)?.count ?? 0);
      if (over > 0) this.takeSome(ref, over);
    }
    if (this.motion.lies) return;
    for (const { ref, count, seed, piece } of this.wanted.values()) {
      const missing = count - (there.get(ref) ?? 0);
      if (missing > 0) this.drop({ ref, count: missing, seed, piece, from: count - missing });
    }
  }
  private takeSome(ref: number, over: number): void {
    let left = over;
    const waiting = this.due.filter((d) => "ref" in d && d.ref === ref).length;
    let drop = Math.min(left, waiting);
    left -= drop;
    if (drop > 0)
      this.due = [...this.due]
        .reverse()
        .filter((d) => !("ref" in d) || d.ref !== ref || drop-- <= 0)
        .reverse();
    // What lies beside it goes first, and then the newest.
    const mine = this.live.filter((p) => p.ref === ref && p.fading === 0 && !p.leaves);
    const order = [...mine.filter((p) => p.outside > 0), ...mine.filter((p) => p.outside === 0).reverse()];
    for (const p of order.slice(0, left)) p.fading = 1;
    left -= Math.min(left, order.length);
    for (const l of this.lying
      .filter((l) => l.ref === ref)
      .reverse()
      .slice(0, left)) {
      this.space.take(l.fixture);
      this.lying = this.lying.filter((o) => o !== l);
      this.bedChanged = true;
    }
  }
  shake(seed: number, strength: number): void {
    this.motion.shake(this.stepNo, seed, strength);
    this.wakeAll();
    for (const p of this.live) {
      const kick = unitAt(mix32(seed, p.ref), p.index);
      p.body.raw.applyImpulse({ x: (kick - 0.5) * 7 * strength * p.piece.mass, y: -(2 + 5 * kick) * strength * p.piece.mass }, true);
    }
  }
  /** Falls over, once what tips it has landed. */
  tip(way: -1 | 1): void {
    this.then(landingSteps, () => {
      this.unfence();
      this.motion.tip(this.stepNo, way);
      this.laidStep = this.stepNo + tipSteps;
      this.lookStep = this.laidStep + spillSteps;
      this.wakeAll();
    });
  }
  private laidStep = 0;
  upright(): void {
    this.then(1, () => {
      this.motion.upright(this.stepNo);
      this.wakeAll();
      this.bursting = Math.max(this.bursting, restsUpright);
      this.lookStep = this.stepNo + restsUpright + 20;
    });
  }
  /** As it stands from the beginning: fallen over already. */
  lay(way: -1 | 1): void {
    this.stir();
    this.unfence();
    this.motion.lay(way);
    this.vessel?.move(this.motion.at);
  }
  get slides(): boolean {
    return this.motion.free;
  }
  set slides(free: boolean) {
    this.motion.free = free;
  }
  private wakeAll(): void {
    this.stir();
    for (const p of this.live) p.body.wake();
  }

  /** Writes each moving piece, `share` of a step past the step before the last; how many there are. */
  rows(into: Float32Array, share: number): number {
    const most = Math.floor(into.length / rowLength);
    let n = 0;
    for (const p of this.live) {
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
      into[at + 6] = gone * Math.min(1, (this.stepNo - p.bornStep + share) / appearSteps);
      n += 1;
    }
    return n;
  }
  /** What has become part of the pile, where it lies in the vessel. */
  bed(): Float32Array<ArrayBuffer> {
    const out = new Float32Array(this.lying.length * rowLength);
    this.lying.forEach((l, i) => out.set([l.ref, l.index, l.local.x, l.local.y, l.local.angle, 0, 1], i * rowLength));
    this.bedChanged = false;
    return out;
  }
  /** How many of each ref are there, coming ones too. */
  counts(): ReadonlyMap<number, number> {
    const counts = new Map<number, number>();
    const put = (ref: number): void => void counts.set(ref, (counts.get(ref) ?? 0) + 1);
    for (const d of this.due) if ("ref" in d) put(d.ref);
    for (const p of this.live) if (p.fading === 0 && !p.leaves) put(p.ref);
    for (const l of this.lying) put(l.ref);
    return counts;
  }
  /** How many are outside their vessel now. */
  get escaped(): number {
    return this.live.filter((p) => this.isOutside(p.x, p.y)).length;
  }
  /** Unseen, until it rests or so many steps have passed: how what lay there before came to lie. */
  settle(mostSteps: number): void {
    for (let i = 0; i < mostSteps && !this.resting; i += 1) this.step();
    for (const p of this.live) p.squash = 0;
  }
  free(): void {
    this.space.free();
  }
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

function inside(wall: readonly Corner[], x: number, y: number): boolean {
  let within = false;
  for (let i = 0, k = wall.length - 1; i < wall.length; k = i, i += 1) {
    const [ax, ay] = wall[i] ?? [0, 0];
    const [bx, by] = wall[k] ?? [0, 0];
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) within = !within;
  }
  return within;
}
