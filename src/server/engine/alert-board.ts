import { ok, refused, type Result } from "../../core/kernel/refusal";
import {
  type Board,
  queueAdd,
  queueClear,
  queueDueMs,
  queueOf,
  type QueueOutcome,
  queuePause,
  type QueueRules,
  queueSkip,
  queueTick,
} from "../../core/alerts/queues";
import type { Alert } from "../../core/alerts/alert";
import { type Clock, later } from "../ports/clock";

type Tell = Readonly<{ start: (alert: Alert) => void; stop: (ids: readonly string[]) => void }>;
const mostHeld = 100;

/** Plays a channel's alerts in their queues, by the clock. Under hush nothing begins; what comes is held. */
export class AlertBoard {
  private board: Board = {};
  private callOff: (() => void) | null = null;
  private hushed = false;
  private paused = new Set<string>();
  /** What came under hush and now waits for a person: played, or dropped. Kept in memory only, like all alerts. */
  private waiting: { queue: string; alert: Alert; sinceMs: number }[] = [];
  rules: readonly QueueRules[] = [];
  /** How many found a queue full since the start, and were left out. */
  private readonly full = new Map<string, number>();

  constructor(
    private readonly clock: Pick<Clock, "now" | "after">,
    private readonly tell: Tell,
  ) {}
  private readonly now = (): number => this.clock.now();

  show(queue: string, alert: Alert): void {
    if (this.hushed) {
      this.waiting.push({ queue, alert, sinceMs: this.now() });
      if (this.waiting.length > mostHeld) this.waiting.shift();
      return;
    }
    const outcome = queueAdd(this.board, this.rules, queue, alert, this.now());
    if (outcome.refusal !== null) this.full.set(queue, this.leftOut(queue) + 1);
    this.take(outcome);
  }
  /** How many a queue had no room for. */
  leftOut(queue: string): number {
    return this.full.get(queue) ?? 0;
  }

  /** Whether what a sale bought plays, waits its turn, or is held. */
  has(sale: string): boolean {
    return (
      this.waiting.some((w) => w.alert.sale === sale) ||
      Object.values(this.board).some((queue) => queue.playing?.sale === sale || queue.waiting.some((m) => m.sale === sale))
    );
  }

  /** What was held, once the hush is over; oldest first. */
  held(): { id: string; text: string; picture: string; sound: string; sinceMs: number }[] {
    if (this.hushed) return [];
    return this.waiting.map(({ alert: { id, text, picture, sound }, sinceMs }) => ({ id, text, picture, sound, sinceMs }));
  }

  decide(what: "play" | "drop", id: string): Result<null> {
    const chosen = this.waiting.filter((w) => id === "" || w.alert.id === id);
    if (chosen.length === 0) return refused("alert/decided-already");
    this.waiting = this.waiting.filter((w) => !chosen.includes(w));
    if (what === "play") for (const { queue, alert } of chosen) this.show(queue, alert);
    return ok(null);
  }

  act(what: "skip" | "clear" | "pause" | "go-on", queue: string): Result<null> {
    const nowMs = this.now();
    if (what === "pause") this.paused.add(queue);
    if (what === "go-on") this.paused.delete(queue);
    const outcome =
      what === "skip"
        ? queueSkip(this.board, this.rules, queue, nowMs)
        : what === "clear"
          ? queueClear(this.board, queue)
          : queuePause(this.board, this.rules, queue, this.paused.has(queue), nowMs);
    this.take(outcome);
    return outcome.refusal === null ? ok(null) : { ok: false, refusal: outcome.refusal };
  }

  /** What plays ends; what waited in a queue is held with what comes. On release it waits for a person. */
  hush(on: boolean): void {
    if (on === this.hushed) return;
    this.hushed = on;
    if (!on) return;
    const nowMs = this.now();
    for (const queue of Object.keys(this.board)) {
      for (const alert of queueOf(this.board, queue).waiting) this.waiting.push({ queue, alert, sinceMs: nowMs });
      this.take(queueClear(this.board, queue));
      if (queueOf(this.board, queue).playing !== null) this.take(queueSkip(this.board, this.rules, queue, nowMs));
    }
  }

  private take({ board, start, stop }: QueueOutcome): void {
    this.board = board;
    if (stop.length > 0) this.tell.stop(stop);
    for (const alert of start) this.tell.start(alert);
    this.callOff?.();
    this.callOff = null;
    const dueMs = queueDueMs(board);
    if (dueMs === null) return;
    this.callOff = later(this.clock, Math.max(5, dueMs - this.now()), () => this.take(queueTick(this.board, this.rules, this.now())));
  }

  standing(): { id: string; playing: string | null; waiting: number; paused: boolean }[] {
    return Object.entries(this.board)
      .filter(([, queue]) => queue.playing !== null || queue.waiting.length > 0 || queue.paused)
      .map(([id, queue]) => ({ id, playing: queue.playing?.text ?? null, waiting: queue.waiting.length, paused: queue.paused }));
  }

  stop(): void {
    this.callOff?.();
  }
}
