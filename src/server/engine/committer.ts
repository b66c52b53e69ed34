import type { ChannelId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { ChannelRow, LedgerRows, EngineStore, Fence } from "../ports/engine-store";
import { readChannel } from "./recall";
import type { Turn } from "./turn-kit";

export type Waiting = Readonly<{
  turn: Turn;
  /** How far memory had come when it was stepped. */
  changes: number;
  publish: () => void;
  done: (result: Result<null>) => void;
  /** Steps its signal anew, upon what stands now; it comes back through `add`, or turns out to need no commit. */
  again: () => void;
}>;
export type CommitterDeps = Readonly<{
  store: EngineStore;
  channel: ChannelId;
  fence: () => Fence | undefined;
  onError?: (what: string, error: unknown) => void;
  /** What is committed is never taken back: memory up to there, and these states. */
  settle: (changes: number, states: ReadonlyMap<string, unknown>) => void;
  /** Memory goes back to what is committed. */
  takeBack: () => void;
  /** Somebody else owns the channel. */
  lost: () => void;
  /** Memory may be ahead of, or behind, the truth: this is the truth. */
  recovered: (row: ChannelRow, lastSeq: number, ledgerView: LedgerRows) => void;
  ledgerView: (row: ChannelRow) => Promise<LedgerRows>;
}>;

/** After a commit that others were in the way of, it is tried again after so long, as often as this; then as if the database were away. */
const againMs = [10, 40, 150, 400] as const;
/** Of so much that waits, chat brings no more until there is less. */
const muchWaits = 300;
/** So many in one commit at most: one statement of theirs stays well below a tenth of a second. */
const mostAtOnce = 1_000;

type Tried = "committed" | "away" | "lost" | "unfit" | ReadonlySet<number>;

/**
 * Commits what waits, together: one transaction for many signals, then all of them are told.
 *
 * A commit that was refused wrote nothing: memory goes back to what is committed, whoever was at fault (an
 * id that came before, a row that can't be stored) is told so, and all others are stepped again in their
 * order. One that others were in the way of (a deadlock) is tried again as it is. Only when the database is away is the outcome unknown: then everything that waited is refused, and
 * the truth is read again before more is accepted. Senders try again; ids make that harmless.
 */
export class Committer {
  private waiting: Waiting[] = [];
  private committing = false;
  private repair: Promise<void> | null = null;
  private stopped = false;
  /** When what is being committed, or waits, began to wait. */
  private sinceMs: number | null = null;
  /** Signals that could not be stored since the start. */
  unfit = 0;

  constructor(private readonly deps: CommitterDeps) {}

  /** How long the oldest has waited for its commit; 0 when nothing waits. */
  waitingMs(nowMs: number): number {
    return this.sinceMs === null ? 0 : Math.max(0, nowMs - this.sinceMs);
  }

  /** Whether anything waits, is being committed, or is being read again. */
  get busy(): boolean {
    return this.committing || this.waiting.length > 0 || this.repair !== null;
  }

  /** Whether so much waits that more chat would only make others wait longer. */
  get behind(): boolean {
    return this.waiting.length > muchWaits;
  }

  get recovering(): boolean {
    return this.repair !== null;
  }

  add(waiting: Waiting): void {
    // It was stepped upon what is about to be read anew.
    if (this.repair !== null) return waiting.done(refused("store/away"));
    this.waiting.push(waiting);
    this.sinceMs ??= waiting.turn.rows[0]?.atMs ?? null;
    if (!this.committing) void this.run();
  }

  /**
   * One commit after another. Whoever was told asks for more at once, and what came meanwhile is read first:
   * so the next commit holds as much as there is, since each costs the same few statements however many it holds.
   */
  private async run(): Promise<void> {
    this.committing = true;
    try {
      while (this.waiting.length > 0) {
        await new Promise((resolve) => setImmediate(resolve));
        const batch = this.waiting.splice(0, mostAtOnce);
        const tried = await this.commit(batch);
        if (tried === "committed") {
          for (const w of batch) {
            w.publish();
            w.done(ok(null));
          }
          continue;
        }
        if (tried === "away" || tried === "lost") return this.giveUp(batch, tried);
        if (tried === "unfit") {
          if (!(await this.oneByOne(batch))) return;
          continue;
        }
        this.stepAgain(batch, (w) => w.turn.rows.some((r) => tried.has(r.seq)));
      }
    } finally {
      this.sinceMs = null;
      this.committing = false;
    }
  }

  private async commit(batch: readonly Waiting[]): Promise<Tried> {
    const { store, channel, onError, settle, fence } = this.deps;
    this.sinceMs = batch[0]?.turn.rows[0]?.atMs ?? null;
    const rows = batch.flatMap((w) => w.turn.rows);
    const seq = rows[rows.length - 1]?.seq ?? 0;
    const after = new Map(batch.flatMap((w) => [...w.turn.after]));
    const states = [...after].map(([gameId, { stored, version }]) => ({ gameId, seq, durable: stored, version }));
    const upTo = batch[batch.length - 1]?.changes ?? 0;
    const all = { rows, states, kept: batch.flatMap((w) => w.turn.kept), booked: batch.flatMap((w) => w.turn.booked) };
    try {
      let outcome = await store.commit(channel, all, fence());
      for (const waitMs of againMs) {
        if (outcome.is !== "undone" || this.stopped) break;
        await new Promise((resolve) => setTimeout(resolve, waitMs));
        outcome = await store.commit(channel, all, fence());
      }
      if (outcome.is === "undone") return "away";
      if (outcome.is === "lost") return "lost";
      if (outcome.is === "twice") return new Set(outcome.seqs);
      settle(upTo, new Map([...after].map(([gameId, { durable }]) => [gameId, durable])));
      return "committed";
    } catch (error) {
      onError?.("a commit failed", error);
      return store.isAway(error) ? "away" : "unfit";
    }
  }

  /** Those at fault are told that they came before; the others, and whoever came meanwhile, are stepped anew in their order. */
  private stepAgain(batch: readonly Waiting[], cameBefore: (w: Waiting) => boolean): void {
    const rest = [...batch.filter((w) => !cameBefore(w)), ...this.waiting.splice(0)];
    this.deps.takeBack();
    for (const w of batch) if (cameBefore(w)) w.done(refused("signal/duplicate"));
    for (const w of rest) w.again();
  }

  /** Something in a batch can't be stored: each has a commit of its own, so that only the one at fault is refused. */
  private async oneByOne(batch: readonly Waiting[]): Promise<boolean> {
    const left = [...batch];
    for (;;) {
      left.push(...this.waiting.splice(0));
      this.deps.takeBack();
      const next = left.shift();
      if (next === undefined) return true;
      next.again();
      const [one, ...more] = this.waiting.splice(0);
      left.unshift(...more);
      // Stepped anew it changed nothing that must be kept.
      if (one === undefined) continue;
      const tried = await this.commit([one]);
      if (tried === "committed") {
        one.publish();
        one.done(ok(null));
        continue;
      }
      if (tried === "away" || tried === "lost") {
        this.giveUp([one, ...left], tried);
        return false;
      }
      if (tried === "unfit") {
        this.unfit += 1;
        one.done(refused("store/unfit"));
      } else one.done(refused("signal/duplicate"));
    }
  }

  private giveUp(batch: readonly Waiting[], why: "away" | "lost"): void {
    if (why === "lost") {
      this.deps.takeBack();
      this.deps.lost();
    } else this.repair = this.recover().finally(() => (this.repair = null));
    for (const w of [...batch, ...this.waiting.splice(0)]) w.done(refused("store/away"));
  }

  /** As after a commit whose outcome is unknown: what waits is refused, and all is read again. */
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
        const row = await readChannel(store, channel);
        const last = await store.lastSeq(channel);
        if (row !== null) recovered(row, last, await this.deps.ledgerView(row));
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
