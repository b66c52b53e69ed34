/**
 * Lowers the load before frames are lost, and gives it back when there is room again. Level 0 draws all;
 * each level takes something away: turning first, then how many may be alive, and last every other frame.
 */
export const levels = [
  { coarse: false, room: 1, every: 1 },
  { coarse: true, room: 1, every: 1 },
  { coarse: true, room: 0.75, every: 1 },
  { coarse: true, room: 0.5, every: 1 },
  { coarse: true, room: 0.35, every: 1 },
  { coarse: true, room: 0.35, every: 2 },
] as const;

const tooSlow = 30;
const roomy = 52;
const downAfterMs = 1_000;
const upAfterMs = 8_000;

export class Governor {
  private level = 0;
  private slowForMs = 0;
  private fastForMs = 0;
  private averageMs = 16;
  late = 0;

  get framesPerSecond(): number {
    return 1000 / this.averageMs;
  }

  get now(): (typeof levels)[number] {
    return levels[this.level] ?? levels[0];
  }

  get lowered(): number {
    return this.level;
  }

  /** A page that was hidden or had nothing to draw is not slow. */
  rest(): void {
    this.slowForMs = 0;
    this.fastForMs = 0;
  }

  frame(sinceLastMs: number): void {
    if (sinceLastMs > 1_000) return this.rest();
    if (sinceLastMs > 50) this.late += 1;
    this.averageMs += (sinceLastMs - this.averageMs) * 0.08;
    const rate = this.framesPerSecond;
    this.slowForMs = rate < tooSlow ? this.slowForMs + sinceLastMs : 0;
    this.fastForMs = rate > roomy ? this.fastForMs + sinceLastMs : 0;
    if (this.slowForMs > downAfterMs && this.level < levels.length - 1) {
      this.level += 1;
      this.rest();
    } else if (this.fastForMs > upAfterMs && this.level > 0) {
      this.level -= 1;
      this.rest();
    }
  }
}
