import type { At, Engine } from "./engine";
import { type Dropping, type Ground, type Wanted } from "./pile-parts";
import { PileWorld } from "./pile-world";

/** What a page tells the one who reckons its pile, and what it is told. */
export type ToDesk =
  | Readonly<{ t: "begin"; ground: Ground; cap: number; slides: boolean }>
  | Readonly<{ t: "drop"; drops: readonly Dropping[] }>
  /** What lay there before: reckoned unseen until it rests. */
  | Readonly<{ t: "settle"; drops: readonly Dropping[]; lies: -1 | 1 | null }>
  | Readonly<{ t: "want"; all: readonly Wanted[] }>
  | Readonly<{ t: "burst"; seed: number; empties: boolean }>
  | Readonly<{ t: "empty" }>
  | Readonly<{ t: "shake"; seed: number; strength: number }>
  | Readonly<{ t: "tip"; way: -1 | 1 }>
  | Readonly<{ t: "upright" }>
  | Readonly<{ t: "set"; cap: number; gravity: number; slides: boolean }>
  /** So much time has passed; rows are written into the buffer, which comes back. */
  | Readonly<{ t: "frame"; ms: number; buffer: ArrayBuffer }>;
export type FromDesk =
  | Readonly<{ t: "ready" }>
  | Readonly<{
      t: "rows";
      buffer: ArrayBuffer;
      count: number;
      stands: At;
      resting: boolean;
      live: number;
      bodies: number;
      stepMs: number;
      /** Sent when it changed: all that has become part of the pile. */
      bed: Float32Array<ArrayBuffer> | null;
    }>;

const stepMs = 1000 / 60;
/** A page that was held back catches up so far; the rest of the time is let go. */
const mostSteps = 5;
const hiddenMs = 1_000;
/** A page that was hidden sees what fell meanwhile lie there. */
const mostCatchUp = 600;
const mostSettling = 900;

/** Takes what a page tells; the same in a worker and in a test. */
export class PileDesk {
  private world: PileWorld | null = null;
  private leftMs = 0;
  constructor(
    private readonly engine: Engine,
    private readonly clock: () => number,
  ) {}

  take(said: ToDesk): FromDesk | null {
    if (said.t === "begin") {
      this.world?.free();
      this.world = new PileWorld(this.engine, said.ground, said.cap);
      this.world.slides = said.slides;
      this.leftMs = 0;
      return null;
    }
    const { world } = this;
    if (world === null) return said.t === "frame" ? nothing(said.buffer) : null;
    switch (said.t) {
      case "drop":
        for (const drop of said.drops) world.drop(drop);
        return null;
      case "settle":
        for (const drop of said.drops) world.drop({ ...drop, settled: true });
        world.settle(mostSettling);
        if (said.lies !== null) world.lay(said.lies);
        return null;
      case "want":
        world.want(said.all);
        return null;
      case "burst":
        world.burst(said.seed, said.empties);
        return null;
      case "empty":
        world.empty();
        return null;
      case "shake":
        world.shake(said.seed, said.strength);
        return null;
      case "tip":
        world.tip(said.way);
        return null;
      case "upright":
        world.upright();
        return null;
      case "set":
        world.cap = said.cap;
        world.slides = said.slides;
        world.gravity = said.gravity;
        return null;
      case "frame":
        return this.frame(world, said.ms, said.buffer);
    }
  }

  private frame(world: PileWorld, ms: number, buffer: ArrayBuffer): FromDesk {
    const began = this.clock();
    let steps: number;
    if (ms > hiddenMs) {
      steps = Math.min(mostCatchUp, Math.floor(ms / stepMs));
      this.leftMs = 0;
    } else {
      this.leftMs += Math.max(0, ms);
      steps = Math.floor(this.leftMs / stepMs);
      this.leftMs = steps > mostSteps ? 0 : this.leftMs - steps * stepMs;
    }
    const least = ms > hiddenMs ? steps : Math.min(steps, mostSteps);
    for (let i = 0; i < least && !world.resting; i += 1) world.step();
    const spent = this.clock() - began;
    const count = world.rows(new Float32Array(buffer), Math.min(1, this.leftMs / stepMs));
    return {
      t: "rows",
      buffer,
      count,
      stands: world.stands,
      resting: world.resting,
      live: world.liveCount,
      bodies: world.bodies,
      stepMs: least === 0 ? 0 : spent / least,
      bed: world.changedBed(),
    };
  }
}
const nothing = (buffer: ArrayBuffer): FromDesk => ({
  t: "rows",
  buffer,
  count: 0,
  stands: { x: 0, y: 0, angle: 0 },
  resting: true,
  live: 0,
  bodies: 0,
  stepMs: 0,
  bed: null,
});
