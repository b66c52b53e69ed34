import { PileClient } from "../../overlay/physics/client";
import { type Dropping, type Ground, rowLength, type Wanted } from "../../overlay/physics/pile-parts";
import type { Box, SceneKit } from "../../overlay/scene";

/** Emotes of one message or flock that lie in a heap: which pictures, how large, until when. */
type Heap = { ref: number; ids: readonly number[]; count: number; side: number; seed: number; of: number; worn: number; endMs: number };
export type PileRow = (
  id: number,
  x: number,
  y: number,
  side: number,
  angle: number,
  squash: number,
  alpha: number,
  worn: number,
  index: number,
) => void;
/** The height of the area, in units of the physics. */
const high = 10;
const mass = 5;
/** Longer than fading takes, even where it waits for a burst to pass. */
const fadedMs = 5_000;

/** Emotes that fall and lie in heaps on the ground, and, if wanted, on the other games' frames. */
export class WallPile {
  private heaps = new Map<number, Heap>();
  /** Those that fade. */
  private readonly gone = new Map<number, Heap>();
  private last = 0;
  private nowMs = 0;
  private told = "";
  private ground: Ground | null = null;
  private readonly client: PileClient;

  constructor(
    desk: SceneKit["desk"],
    private readonly cap: () => number,
  ) {
    this.client = new PileClient(desk, () => this.tellAll());
  }
  get live(): number {
    return this.heaps.size === 0 ? 0 : this.client.count;
  }
  get crashes(): number {
    return this.client.crashes;
  }
  /** `side` in shares of the area's height. */
  spawn(ids: readonly number[], count: number, seed: number, side: number, of: number, worn: number, endMs: number): void {
    this.last += 1;
    const heap: Heap = { ref: this.last, ids, count, side: Math.max(0.02, side), seed, of, worn, endMs };
    this.heaps.set(heap.ref, heap);
    this.trim();
    if (this.ground === null) return;
    this.client.tell({ t: "drop", drops: [dropping(heap)] });
    this.want();
  }
  /** Over the cap the oldest go first. */
  private trim(): void {
    let over = [...this.heaps.values()].reduce((n, h) => n + h.count, 0) - this.cap();
    for (const heap of this.heaps.values()) {
      if (over <= 0) return;
      const gone = Math.min(over, heap.count);
      heap.count -= gone;
      over -= gone;
      if (heap.count === 0) this.leave(heap);
    }
  }
  /** It fades, and is drawn until it has. */
  private leave(heap: Heap): void {
    this.heaps.delete(heap.ref);
    heap.endMs = this.nowMs;
    this.gone.set(heap.ref, heap);
  }
  private want(): void {
    this.client.tell({ t: "want", all: [...this.heaps.values()].map(dropping) });
  }
  private tellAll(): void {
    if (this.ground === null) return;
    this.client.restart();
    this.client.tell({ t: "begin", ground: this.ground, cap: 10_000, slides: false });
    const drops = [...this.heaps.values()].map(dropping);
    if (drops.length > 0) this.client.tell({ t: "settle", drops, lies: null });
    this.want();
  }
  /** Those of one signal go; of all where it is null. */
  remove(of: number | null): void {
    for (const heap of [...this.heaps.values()]) if (of === null || heap.of === of) this.leave(heap);
    if (this.ground !== null) this.want();
  }
  clear(atOnce: boolean): void {
    for (const heap of [...this.heaps.values()]) this.leave(heap);
    if (atOnce) this.gone.clear();
    if (this.ground === null) return;
    this.client.tell({ t: "empty" });
    if (atOnce) this.tellAll();
  }
  /** Writes each of them; whether anything of it moves or will. Boxes are other games' frames, in pixels of the stage. */
  frame(nowMs: number, area: Box, frames: readonly Box[], put: PileRow): boolean {
    this.nowMs = nowMs;
    if (this.heaps.size === 0 && this.client.count === 0) return false;
    let ended = false;
    for (const heap of this.heaps.values())
      if (heap.endMs <= nowMs) {
        this.leave(heap);
        ended = true;
      }
    for (const heap of this.gone.values()) if (nowMs - heap.endMs > fadedMs) this.gone.delete(heap.ref);
    const unit = area.height / high;
    const ground = groundOf(area, frames, unit);
    const key = JSON.stringify(ground);
    if (key !== this.told) {
      this.told = key;
      this.ground = ground;
      this.tellAll();
    } else if (ended) this.want();
    this.client.frame(nowMs);
    const { rows, count } = this.client;
    for (let i = 0, at = 0; i < count; i += 1, at += rowLength) {
      const heap = this.heaps.get(rows[at] ?? 0) ?? this.gone.get(rows[at] ?? 0);
      if (heap === undefined) continue;
      const index = rows[at + 1] ?? 0;
      put(
        heap.ids[index % heap.ids.length] ?? 0,
        area.x + (rows[at + 2] ?? 0) * unit,
        area.y + (rows[at + 3] ?? 0) * unit,
        heap.side * area.height,
        rows[at + 4] ?? 0,
        rows[at + 5] ?? 0,
        rows[at + 6] ?? 1,
        heap.worn,
        index,
      );
    }
    return this.client.moves || this.heaps.size > 0;
  }
  free(): void {
    this.client.free();
  }
}

const dropping = ({ ref, count, seed, side }: Heap): Dropping & Wanted => {
  // Emotes have air around them: what is felt of one is a little less than its picture.
  const size = side * high * 0.86;
  return { ref, count, seed, piece: { width: size, height: size, form: "circle", mass, bounce: 0.32 } };
};
function groundOf(area: Box, frames: readonly Box[], unit: number): Ground {
  const inside = frames
    .map((f) => ({ x: (f.x - area.x) / unit, y: (f.y - area.y) / unit, width: f.width / unit, height: f.height / unit }))
    // One that covers all of it, or lies beside it, is nothing to land on.
    .filter((f) => f.x < area.width / unit && f.x + f.width > 0 && f.y > 1.5 && f.width < (area.width / unit) * 0.8)
    .map((f) => ({ x: round(f.x), y: round(f.y), width: round(f.width), height: round(f.height) }));
  return {
    wall: null,
    thickness: 0,
    boxes: inside,
    top: -0.6,
    floor: high,
    left: 0,
    right: round(area.width / unit),
    sides: true,
    gravity: 26,
  };
}
const round = (n: number): number => Math.round(n * 100) / 100;
