import type { Clock } from "../ports/clock";

type Due = Readonly<{ atMs: number; n: number; work: () => void }>;

/** A rehearsal's time: it stands still until somebody moves it on, and whatever is due on the way is done at its own moment. */
export class RehearsalClock implements Clock {
  private readonly due: Due[] = [];
  private count = 0;

  constructor(private atMs: number) {}

  readonly now = (): number => this.atMs;
  readonly wall = (): number => Date.now();

  readonly after = (ms: number, work: () => void): (() => void) => {
    const one: Due = { atMs: this.atMs + Math.max(1, Math.ceil(ms)), n: (this.count += 1), work };
    let i = this.due.length;
    while (i > 0 && (this.due[i - 1]?.atMs ?? 0) > one.atMs) i -= 1;
    this.due.splice(i, 0, one);
    return () => {
      const at = this.due.indexOf(one);
      if (at >= 0) this.due.splice(at, 1);
    };
  };

  /** When something is due next; Infinity for never. */
  get dueMs(): number {
    return this.due[0]?.atMs ?? Infinity;
  }

  /** Moves on to a moment, in whole milliseconds as every clock here, never back. Nothing may be due before it: see `dueMs`. */
  moveTo(atMs: number): void {
    this.atMs = Math.max(this.atMs, Math.floor(atMs));
  }
  /** Does what is due next, at its moment. */
  ring(): void {
    const next = this.due.shift();
    if (next === undefined) return;
    this.moveTo(next.atMs);
    next.work();
  }
}
