import { type At, type Carrier, type Engine, Space } from "./engine";
import { Bed } from "./bed";
import { jolt, putBack, throwOut } from "./blows";
import {
  burstSteps,
  type Coming,
  type Dropping,
  enter,
  fadeSteps,
  fallSpeed,
  felt,
  type Ground,
  landingSteps,
  type Live,
  looksEvery,
  mostBodies,
  mostReturns,
  outsideFor,
  poured,
  spillSteps,
  strayAfter,
  surplusOf,
  type Wanted,
  writeRows,
} from "./pile-parts";
import { Turns } from "./turns";
import { restsUpright, tipSteps, VesselMotion } from "./vessel-motion";
import { Walls } from "./walls";

/**
 * A pile and what it lies in. Lengths are tenths of the vessel's height where there is a vessel; y down, the foot of the
 * vessel at 0. A function of what it is told and in which step: no clock, no chance of its own, so the same seeds and the
 * same orders give the same run, on any machine.
 */
export class PileWorld {
  private readonly space: Space;
  private readonly vessel: Carrier | null;
  private readonly motion: VesselMotion;
  private readonly walls: Walls;
  private live: Live[] = [];
  private readonly bed: Bed;
  private readonly turns = new Turns();
  private stepNo = 0;
  private bursting = 0;
  private wanted = new Map<number, Wanted>();
  /** When what is wanted is next held against what is there; nothing is amiss while it is null. */
  private lookStep: number | null = null;
  cap: number;

  constructor(
    engine: Engine,
    private readonly ground: Ground,
    cap: number,
  ) {
    this.cap = cap;
    this.space = new Space(engine, ground.gravity);
    this.motion = new VesselMotion(ground.wall);
    this.vessel = ground.wall === null ? null : this.space.carrier({ x: 0, y: 0, angle: 0 });
    this.walls = new Walls(this.space, ground, this.vessel);
    this.bed = new Bed(this.space, this.vessel);
  }

  get bodies(): number {
    return this.live.length + this.bed.size;
  }
  get liveCount(): number {
    return this.live.length;
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
      this.turns.empty &&
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

  drop(dropping: Dropping): void {
    this.stir();
    this.turns.add(poured(dropping, this.walls.mouth, (rowSteps) => this.turns.next(this.stepNo, rowSteps)));
  }
  private then(steps: number, act: () => void): void {
    this.stir();
    this.turns.then(this.stepNo, steps, act);
  }

  private spawn(due: Coming): void {
    if (this.bodies >= mostBodies) this.bed.dropOldest();
    this.live.push(enter(this.space, due, this.motion.at.x, this.ground.top, this.stepNo));
  }
  /** Oldest first, what moves beyond the cap becomes part of the pile it lies in, once it rests. */
  private fadeIntoPile(): void {
    let over = this.live.length - this.cap;
    if (over <= 0 || this.vessel === null || !this.motion.still) return;
    this.live = this.live.filter((p) => {
      const slow = p.asleep || (p.speed < 0.35 && this.stepNo - p.bornStep > 90);
      if (over <= 0 || !slow || p.outside > 0 || p.fading > 0 || p.leaves) return true;
      this.bed.add(p, this.motion.at);
      over -= 1;
      return false;
    });
  }

  /** A sixtieth of a second; nothing at all where everything rests. */
  step(): void {
    this.stepNo += 1;
    if (this.rested) return;
    this.turns.take(
      this.stepNo,
      () => this.motion.lies || this.motion.tipping,
      (due) => this.spawn(due),
    );
    if (this.lookStep !== null && this.stepNo >= this.lookStep) this.reconcile();
    if (this.motion.step(this.stepNo)) {
      this.vessel?.move(this.motion.at);
      this.wakeAll();
    }
    this.space.step();
    if (this.bursting > 0) {
      this.bursting -= 1;
      if (this.bursting === 0) this.walls.fence();
    }
    this.after();
    this.fadeIntoPile();
    this.rested = this.rests();
  }

  /** What each piece felt in this step; who is outside, and who is gone. */
  private after(): void {
    for (const p of this.live) {
      const blow = felt(p);
      if (blow > 0) this.motion.struck(p.x, blow, p.piece.mass);
      if (p.fading > 0) p.fading += 1;
      else if (p.leaves && this.stepNo >= this.leavingStep) p.fading = 1;
      else if (this.walls.isLost(p)) p.fading = this.bring(p) ? 0 : fadeSteps + 1;
      else if ((p.index + this.stepNo) % looksEvery === 0) this.watch(p);
    }
    if (!this.live.some((p) => p.fading > fadeSteps)) return;
    for (const p of this.live) if (p.fading > fadeSteps) this.space.remove(p.body);
    this.live = this.live.filter((p) => p.fading <= fadeSteps);
  }
  private watch(p: Live): void {
    p.outside = this.walls.isOutside(this.motion.at, p.x, p.y) ? p.outside + looksEvery : 0;
    if (p.outside > outsideFor && !this.stays(p)) p.fading = 1;
    else if (p.outside > strayAfter && !this.bring(p) && p.outside > outsideFor) p.fading = 1;
  }
  /** Whether it belongs into the vessel as things are. */
  private stays(p: Live): boolean {
    return !(p.leaves || this.bursting > 0 || this.motion.lies || this.motion.tipping || p.returns >= mostReturns);
  }
  /** A stray is dropped in again from above. */
  private bring(p: Live): boolean {
    if (this.ground.wall === null || !this.stays(p)) return false;
    putBack(p, this.walls.mouth, { x: this.motion.at.x, y: this.ground.top }, fallSpeed * 0.4);
    return true;
  }
  /** Once what was told before has come, the rim gives way: what lies high bursts out and over; `empties`: all of it goes. */
  burst(seed: number, empties: boolean): void {
    this.then(landingSteps, () => this.burstNow(seed, empties));
    // What comes next waits until all of it has gone.
    if (empties) this.then(burstSteps, () => this.bed.clear());
  }
  private leavingStep = 0;
  private burstNow(seed: number, empties: boolean): void {
    this.walls.unfence();
    this.bursting = burstSteps;
    this.wakeAll();
    throwOut(this.live, this.motion.at.x, seed);
    if (empties) for (const p of this.live) p.leaves = true;
    this.motion.shake(this.stepNo, seed, 0.5);
    if (empties) this.leavingStep = this.stepNo + burstSteps - fadeSteps - 10;
  }
  /** All that lies there, or waits to fall, goes softly. */
  empty(): void {
    this.stir();
    this.turns.clear();
    for (const p of this.live) if (p.fading === 0) p.fading = 1;
    this.bed.clear();
  }
  /** What is to lie there in the end. What is missing is dropped, what is too much goes, once nothing else is under way. */
  want(all: readonly Wanted[]): void {
    this.stir();
    this.wanted = new Map(all.map((w) => [w.ref, w]));
    this.lookStep ??= this.stepNo + 10;
  }
  private reconcile(): void {
    if (this.bursting > 0 || this.motion.tipping || this.turns.doing) {
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
    const waiting = this.turns.leaveOut(ref, over);
    const moving = surplusOf(this.live, ref, over - waiting);
    for (const p of moving) p.fading = 1;
    this.bed.takeOf(ref, over - waiting - moving.length);
  }
  shake(seed: number, strength: number): void {
    this.motion.shake(this.stepNo, seed, strength);
    this.wakeAll();
    jolt(this.live, seed, strength);
  }
  /** Falls over, once what tips it has landed. */
  tip(way: -1 | 1): void {
    this.then(landingSteps, () => {
      this.walls.unfence();
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
    this.walls.unfence();
    this.motion.lay(way);
    this.vessel?.move(this.motion.at);
  }
  set slides(free: boolean) {
    this.motion.free = free;
  }
  private wakeAll(): void {
    this.stir();
    for (const p of this.live) p.body.wake();
  }

  rows(into: Float32Array, share: number): number {
    return writeRows(this.live, this.stepNo, into, share);
  }
  /** What has become part of the pile, where it lies in the vessel; null where that is as it was. */
  changedBed(): Float32Array<ArrayBuffer> | null {
    return this.bed.changed ? this.bed.rows() : null;
  }
  /** How many of each ref are there, coming ones too. */
  counts(): ReadonlyMap<number, number> {
    const counts = new Map<number, number>();
    const put = (ref: number): void => void counts.set(ref, (counts.get(ref) ?? 0) + 1);
    this.turns.each(put);
    for (const p of this.live) if (p.fading === 0 && !p.leaves) put(p.ref);
    this.bed.each(put);
    return counts;
  }
  /** How many are outside their vessel now. */
  get escaped(): number {
    return this.live.filter((p) => this.walls.isOutside(this.motion.at, p.x, p.y)).length;
  }
  /** Unseen, until it rests or so many steps have passed: how what lay there before came to lie. */
  settle(mostSteps: number): void {
    for (let i = 0; i < mostSteps && !this.rested; i += 1) this.step();
    for (const p of this.live) p.squash = 0;
  }
  free(): void {
    this.space.free();
  }
}
