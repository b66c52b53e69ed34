import type { LogRow } from "../ports/engine-store";

const flushEveryMs = 100;
const flushAt = 1_000;
const mostHeld = 100_000;

/**
 * Logs in batches what may be lost in a crash. While the database is away it holds the newest rows and
 * counts what it had to drop; it never slows down what feeds it.
 */
export class TransientLog {
  private rows: LogRow[] = [];
  private timer: NodeJS.Timeout | null = null;
  private flushing: Promise<void> | null = null;
  private failures = 0;
  private stopped = false;
  lost = 0;
  /** Rows that could not be stored at all, and were left out. */
  unfit = 0;

  constructor(
    private readonly append: (rows: readonly LogRow[]) => Promise<number>,
    private readonly onError?: (what: string, error: unknown) => void,
  ) {}

  get size(): number {
    return this.rows.length;
  }

  add(row: LogRow): void {
    this.rows.push(row);
    if (this.rows.length > mostHeld) {
      this.rows.splice(0, flushAt);
      this.lost += flushAt;
    }
    if (this.rows.length >= flushAt && this.failures === 0) this.flushSoon(0);
    else this.flushSoon(Math.min(flushEveryMs * 2 ** this.failures, 5_000));
  }

  private flushSoon(waitMs: number): void {
    if (this.flushing !== null || this.stopped) return;
    if (this.timer !== null) {
      if (waitMs > 0) return;
      clearTimeout(this.timer);
    }
    this.timer = setTimeout(() => {
      this.timer = null;
      this.flushing = this.flush().finally(() => {
        this.flushing = null;
        if (this.rows.length > 0) this.flushSoon(Math.min(flushEveryMs * 2 ** this.failures, 5_000));
      });
    }, waitMs);
  }

  private async flush(): Promise<void> {
    const batch = this.rows.slice(0, 5_000);
    if (batch.length === 0) return;
    try {
      this.unfit += await this.append(batch);
      // Rows may have been dropped from the front meanwhile, so remove by identity of the last one kept.
      const last = batch[batch.length - 1];
      const at = last === undefined ? -1 : this.rows.indexOf(last);
      this.rows.splice(0, at + 1);
      this.failures = 0;
    } catch (error) {
      if (this.failures === 0) this.onError?.("the log could not be written; it is kept and tried again", error);
      this.failures = Math.min(this.failures + 1, 6);
    }
  }

  /** Rows of one viewer that wait are dropped; what is on its way to the database has arrived there when this returns. */
  async forget(viewer: string): Promise<void> {
    await this.flushing;
    this.rows = this.rows.filter((row) => row.viewer?.id !== viewer);
  }

  /** Writes what is left, once. */
  async stop(): Promise<void> {
    this.stopped = true;
    if (this.timer !== null) clearTimeout(this.timer);
    await this.flushing;
    while (this.rows.length > 0 && this.failures === 0) await this.flush();
  }
}
