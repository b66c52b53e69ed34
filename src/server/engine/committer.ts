import type { ChannelId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { ChannelRow, DeskRows, EngineStore } from "../ports/engine-store";
import type { Turn } from "./turn";

export type Waiting = Readonly<{ turn: Turn; publish: () => void; done: (result: Result<null>) => void }>;
export type CommitterDeps = Readonly<{
  store: EngineStore;
  channel: ChannelId;
  onError?: (what: string, error: unknown) => void;
  /** Memory may be ahead of, or behind, the truth: this is the truth. */
  recovered: (row: ChannelRow, lastSeq: number, desk: DeskRows) => void;
  desk: (row: ChannelRow) => Promise<DeskRows>;
}>;

/**
 * Commits what waits, together: one transaction for many signals, then all of them are told.
 *
 * When a commit fails, its outcome is unknown: everything that waited is refused, and the durable states
 * are read again before more is accepted. Senders try again; ids make that harmless.
 */
export class Committer {
  private waiting: Waiting[] = [];
  private committing = false;
  private repair: Promise<void> | null = null;
  private stopped = false;
  /** When what is being committed, or waits, began to wait. */
  private sinceMs: number | null = null;

  constructor(private readonly deps: CommitterDeps) {}

  /** How long the oldest has waited for its commit; 0 when nothing waits. */
  waitingMs(nowMs: number): number {
    return this.sinceMs === null ? 0 : Math.max(0, nowMs - this.sinceMs);
  }

  /** Whether anything waits, is being committed, or is being read again. */
  get busy(): boolean {
    return this.committing || this.waiting.length > 0 || this.repair !== null;
  }

  get recovering(): boolean {
    return this.repair !== null;
  }

  add(waiting: Waiting): void {
    this.waiting.push(waiting);
    this.sinceMs ??= waiting.turn.rows[0]?.atMs ?? null;
    if (!this.committing && this.repair === null) void this.run();
  }

  private async run(): Promise<void> {
    const { store, channel, onError } = this.deps;
    this.committing = true;
    try {
      while (this.waiting.length > 0) {
        // Lets everything that arrives in this turn join the same commit.
        await Promise.resolve();
        // All of it: the states are those after the last signal, so a part of the log would be behind them.
        const batch = this.waiting.splice(0);
        this.sinceMs = batch[0]?.turn.rows[0]?.atMs ?? null;
        const rows = batch.flatMap((w) => w.turn.rows);
        const seq = rows[rows.length - 1]?.seq ?? 0;
        const parts = new Set(batch.flatMap((w) => [...w.turn.changed]));
        const states = [...parts].map((p) => ({ gameId: p.id, seq, durable: p.durable }));
        let outcome: "committed" | "duplicate" | "failed";
        try {
          outcome = await store.commit(channel, {
            rows,
            states,
            kept: batch.flatMap((w) => w.turn.kept),
            booked: batch.flatMap((w) => w.turn.booked),
          });
        } catch (error) {
          onError?.("a commit failed", error);
          outcome = "failed";
        }
        if (outcome === "committed") {
          for (const w of batch) {
            w.publish();
            w.done(ok(null));
          }
          continue;
        }
        if (outcome === "duplicate") onError?.("a commit held what is in the log already", new Error("duplicate"));
        this.repair = this.recover().finally(() => (this.repair = null));
        for (const w of [...batch, ...this.waiting.splice(0)]) w.done(refused("store/away"));
        return;
      }
    } finally {
      this.sinceMs = null;
      this.committing = false;
    }
  }

  /** As after a commit that failed: what waits is refused, and all is read again. */
  async refresh(): Promise<void> {
    while (this.committing) await new Promise((resolve) => setTimeout(resolve, 5));
    this.repair ??= this.recover().finally(() => (this.repair = null));
    for (const w of this.waiting.splice(0)) w.done(refused("store/away"));
    await this.repair;
  }

  /** Reads the durable states again until it succeeds. */
  private async recover(): Promise<void> {
    const { store, channel, recovered } = this.deps;
    for (let waitMs = 100; !this.stopped; waitMs = Math.min(waitMs * 2, 2_000)) {
      try {
        const row = await store.channel(channel);
        const last = await store.lastSeq(channel);
        if (row !== null) recovered(row, last, await this.deps.desk(row));
        return;
      } catch {
        await new Promise((resolve) => setTimeout(resolve, waitMs).unref());
      }
    }
  }

  async stop(): Promise<void> {
    this.stopped = true;
    for (let i = 0; i < 100 && this.committing; i += 1) await new Promise((resolve) => setTimeout(resolve, 20));
  }
}
