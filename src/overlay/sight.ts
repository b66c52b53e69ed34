/** A place on the stage, in pixels of its canvas. */
export type Point = Readonly<{ x: number; y: number }>;
const keptMs = 900;
const leastPx = 1.5;

/**
 * What moves on the stage, for what has eyes: of each source the sprite that it drew last, which is the youngest. What lies
 * still is no sight.
 */
export class Sight {
  private readonly last = new Map<object, Point>();
  private seen: (Point & { atMs: number }) | null = null;

  /** `from` is whoever drew it. */
  see(from: object, x: number, y: number, nowMs: number): void {
    const before = this.last.get(from);
    this.last.set(from, { x, y });
    if (before !== undefined && Math.hypot(x - before.x, y - before.y) > leastPx) this.seen = { x, y, atMs: nowMs };
  }
  now(nowMs: number): Point | null {
    return this.seen !== null && nowMs - this.seen.atMs < keptMs ? this.seen : null;
  }
  forget(from: object): void {
    this.last.delete(from);
  }
}
