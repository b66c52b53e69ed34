import type { At } from "./engine";
import type { FromDesk, ToDesk } from "./desk";
import { mostBodies, rowLength } from "./pile-parts";

/** Just what of a worker is needed, so that a test can be one. */
export type Desk = Pick<Worker, "postMessage" | "terminate"> & {
  onmessage: ((e: MessageEvent<FromDesk>) => void) | null;
  onerror: ((e: ErrorEvent) => void) | null;
};
export const physicsAddress = "/built/physics.js";
export const openDesk = (): Desk => new Worker(physicsAddress);

const answersWithinMs = 6_000;
/** The engine is large: a slow disk may take its time. */
const opensWithinMs = 30_000;
const mostCrashes = 3;

/**
 * A pile as a page has it: what is told to it, and where its pieces are now. A worker that dies or does not answer is
 * begun again, and told anew what lies there; after three times the page does without one.
 */
export class PileClient {
  rows = new Float32Array(0);
  count = 0;
  stands: At = { x: 0, y: 0, angle: 0 };
  bed = new Float32Array(0);
  /** Grows with every change of the bed. */
  bedChanges = 0;
  live = 0;
  bodies = 0;
  stepMs = 0;
  /** No worker can be had: the page draws the pile as it would lie. */
  given = false;
  crashes = 0;
  /** Nobody has said yet where anything lies: the page draws the pile as it would lie until then. */
  unheard = true;
  private desk: Desk | null = null;
  private ready = false;
  private resting = true;
  private spare: ArrayBuffer | null = new ArrayBuffer(mostBodies * rowLength * 4);
  private shown: ArrayBuffer | null = new ArrayBuffer(mostBodies * rowLength * 4);
  private askedMs: number | null = null;
  private lastMs = 0;
  private startedMs = 0;

  constructor(
    private readonly open: () => Desk,
    /** Says again all that lies there: to a fresh worker. */
    private readonly tellAll: () => void,
  ) {}

  /** Whether pieces may move: then it wants to be asked every frame. */
  get moves(): boolean {
    return !this.given && (!this.resting || !this.ready || this.askedMs !== null);
  }
  tell(said: ToDesk): void {
    if (this.given) return;
    this.begin();
    this.resting = false;
    this.desk?.postMessage(said);
  }
  private begin(): void {
    if (this.desk !== null || this.given) return;
    try {
      this.desk = this.open();
    } catch {
      this.given = true;
      return;
    }
    const { desk } = this;
    this.ready = false;
    this.startedMs = 0;
    desk.onerror = () => this.crashed(desk);
    desk.onmessage = (e) => {
      if (desk === this.desk) this.hear(e.data);
    };
  }
  private hear(said: FromDesk): void {
    this.ready = true;
    if (said.t === "ready") return;
    this.askedMs = null;
    this.unheard = false;
    this.spare = this.shown;
    this.shown = said.buffer;
    this.rows = new Float32Array(said.buffer);
    this.count = said.count;
    this.stands = said.stands;
    this.resting = said.resting;
    this.live = said.live;
    this.bodies = said.bodies;
    if (said.stepMs > 0) this.stepMs = said.stepMs;
    if (said.bed !== null) {
      this.bed = said.bed;
      this.bedChanges += 1;
    }
  }
  /** Begun again, and told what lies there; given up after the third time. */
  private crashed(desk: Desk): void {
    if (desk !== this.desk) return;
    desk.terminate();
    this.desk = null;
    this.ready = false;
    this.unheard = true;
    this.askedMs = null;
    this.crashes += 1;
    this.spare ??= new ArrayBuffer(mostBodies * rowLength * 4);
    this.shown ??= new ArrayBuffer(mostBodies * rowLength * 4);
    if (this.crashes >= mostCrashes) this.given = true;
    else this.tellAll();
  }
  /** Once a frame, while it moves. */
  frame(nowMs: number): void {
    const { desk } = this;
    if (desk === null || this.given) return;
    if (this.startedMs === 0) this.startedMs = nowMs;
    if (!this.ready) {
      if (nowMs - this.startedMs > opensWithinMs) this.crashed(desk);
      return;
    }
    if (this.askedMs !== null) {
      // A page that was hidden meanwhile asked long ago: it begins to wait now.
      if (nowMs - this.lastSeenMs > 1_000) this.askedMs = nowMs;
      this.lastSeenMs = nowMs;
      if (nowMs - this.askedMs > answersWithinMs) this.crashed(desk);
      return;
    }
    this.lastSeenMs = nowMs;
    if (this.resting || this.spare === null) {
      this.lastMs = nowMs;
      return;
    }
    const ms = this.lastMs === 0 ? 0 : nowMs - this.lastMs;
    this.lastMs = nowMs;
    this.askedMs = nowMs;
    const buffer = this.spare;
    this.spare = null;
    desk.postMessage({ t: "frame", ms, buffer } satisfies ToDesk, [buffer]);
  }
  private lastSeenMs = 0;
  /** All is to be reckoned anew: another vessel, a stage that was set again. */
  restart(): void {
    this.count = 0;
    this.bed = new Float32Array(0);
    this.bedChanges += 1;
    this.lastMs = 0;
  }
  free(): void {
    this.desk?.terminate();
    this.desk = null;
    this.given = true;
  }
}
