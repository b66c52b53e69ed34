import { ok, refused, type Result } from "../../core/kernel/refusal";
import {
  type Board,
  laneAdd,
  laneClear,
  laneDueMs,
  laneOf,
  type QueueOutcome,
  lanePause,
  type QueueRules,
  laneSkip,
  laneTick,
} from "../../core/alerts/queues";
import type { Alert } from "../../core/alerts/alert";

type Tell = Readonly<{ start: (moment: Alert) => void; stop: (ids: readonly string[]) => void }>;
const mostHeld = 100;

/** Plays a channel's moments in their lanes, by the clock. Under hush nothing begins; what comes is held. */
export class AlertBoard {
  private board: Board = {};
  private timer: NodeJS.Timeout | null = null;
  private hushed = false;
  private paused = new Set<string>();
  /** What came under hush and now waits for a person: played, or dropped. Kept in memory only, like all moments. */
  private waiting: { lane: string; moment: Alert; sinceMs: number }[] = [];
  rules: readonly QueueRules[] = [];

  constructor(
    private readonly now: () => number,
    private readonly tell: Tell,
  ) {}

  show(lane: string, moment: Alert): void {
    if (this.hushed) {
      this.waiting.push({ lane, moment, sinceMs: this.now() });
      if (this.waiting.length > mostHeld) this.waiting.shift();
      return;
    }
    this.take(laneAdd(this.board, this.rules, lane, moment, this.now()));
  }

  /** Whether what a sale bought plays, waits its turn, or is held. */
  has(sale: string): boolean {
    return (
      this.waiting.some((w) => w.moment.sale === sale) ||
      Object.values(this.board).some((lane) => lane.playing?.sale === sale || lane.waiting.some((m) => m.sale === sale))
    );
  }

  /** What was held, once the hush is over; oldest first. */
  held(): { id: string; text: string; picture: string; sound: string; sinceMs: number }[] {
    if (this.hushed) return [];
    return this.waiting.map(({ moment: { id, text, picture, sound }, sinceMs }) => ({ id, text, picture, sound, sinceMs }));
  }

  decide(what: "play" | "drop", id: string): Result<null> {
    const chosen = this.waiting.filter((w) => id === "" || w.moment.id === id);
    if (chosen.length === 0) return refused("moment/decided-already");
    this.waiting = this.waiting.filter((w) => !chosen.includes(w));
    if (what === "play") for (const { lane, moment } of chosen) this.show(lane, moment);
    return ok(null);
  }

  act(what: "skip" | "clear" | "pause" | "go-on", lane: string): Result<null> {
    const nowMs = this.now();
    if (what === "pause") this.paused.add(lane);
    if (what === "go-on") this.paused.delete(lane);
    const outcome =
      what === "skip"
        ? laneSkip(this.board, this.rules, lane, nowMs)
        : what === "clear"
          ? laneClear(this.board, lane)
          : lanePause(this.board, this.rules, lane, this.paused.has(lane), nowMs);
    this.take(outcome);
    return outcome.refusal === null ? ok(null) : { ok: false, refusal: outcome.refusal };
  }

  /** What plays ends; what waited in a lane is held with what comes. On release it waits for a person. */
  hush(on: boolean): void {
    if (on === this.hushed) return;
    this.hushed = on;
    if (!on) return;
    const nowMs = this.now();
    for (const lane of Object.keys(this.board)) {
      for (const moment of laneOf(this.board, lane).waiting) this.waiting.push({ lane, moment, sinceMs: nowMs });
      this.take(laneClear(this.board, lane));
      if (laneOf(this.board, lane).playing !== null) this.take(laneSkip(this.board, this.rules, lane, nowMs));
    }
  }

  private take({ board, start, stop }: QueueOutcome): void {
    this.board = board;
    if (stop.length > 0) this.tell.stop(stop);
    for (const moment of start) this.tell.start(moment);
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    const dueMs = laneDueMs(board);
    if (dueMs === null) return;
    this.timer = setTimeout(() => this.take(laneTick(this.board, this.rules, this.now())), Math.max(5, dueMs - this.now()));
    this.timer.unref();
  }

  standing(): { id: string; playing: string | null; waiting: number; paused: boolean }[] {
    return Object.entries(this.board)
      .filter(([, lane]) => lane.playing !== null || lane.waiting.length > 0 || lane.paused)
      .map(([id, lane]) => ({ id, playing: lane.playing?.text ?? null, waiting: lane.waiting.length, paused: lane.paused }));
  }

  stop(): void {
    if (this.timer !== null) clearTimeout(this.timer);
  }
}
