import { FlashWatch } from "../core/pictures/flash-watch";
import { paintGlimpse } from "./glimpse";

const width = 64;
const height = 36;
/** Drawn in two steps, so that a cell is the mean of what is in it and not one of its pixels. */
const finer = 4;
/** Looks come at uneven times, so that nothing flashes in step with them, unseen. */
const everyMs = [34, 50, 67] as const;
/** Dimmed until nothing has flashed for so long. */
const calmMs = 2_500;
const dimmed = 0.12;

/** Something that paints what no canvas holds: pictures of alerts, into a picture of this size. */
export type Also = (context: CanvasRenderingContext2D, width: number, height: number) => void;

/**
 * Looks at what is drawn, some twenty times a second while it moves, and dims all of it while it flashes more often than
 * WCAG 2.3.1 allows: whatever a picture, a game or many of them together do.
 */
export class FlashGuard {
  private readonly watch = new FlashWatch(width, height);
  private readonly fine = document.createElement("canvas");
  private readonly small = document.createElement("canvas");
  private readonly fineContext: CanvasRenderingContext2D | null;
  private readonly smallContext: CanvasRenderingContext2D | null;
  private lookedMs = -Infinity;
  private looks = 0;
  private untilMs = -Infinity;
  /** How often it began to dim, and whether it does now. */
  times = 0;
  on = false;
  /** What looking costs, milliseconds: the last time. */
  costMs = 0;

  constructor(
    private readonly host: HTMLElement,
    private readonly also: Also = () => undefined,
  ) {
    this.fine.width = width * finer;
    this.fine.height = height * finer;
    this.small.width = width;
    this.small.height = height;
    this.fineContext = this.fine.getContext("2d");
    this.smallContext = this.small.getContext("2d", { willReadFrequently: true });
  }

  /** Once a frame; only now and then it looks. Whether it wants to be asked again though nothing moves. */
  look(nowMs: number): boolean {
    if (nowMs - this.lookedMs >= (everyMs[this.looks % everyMs.length] ?? 50)) {
      this.lookedMs = nowMs;
      this.looks += 1;
      this.sample(nowMs);
    }
    if (this.on && nowMs > this.untilMs) this.dim(false);
    return this.on;
  }
  private sample(nowMs: number): void {
    const { fineContext: fine, smallContext: small, host } = this;
    const [w, h] = [host.clientWidth, host.clientHeight];
    if (fine === null || small === null || w === 0 || h === 0) return;
    const began = performance.now();
    const [sx, sy] = [this.fine.width / w, this.fine.height / h];
    fine.clearRect(0, 0, this.fine.width, this.fine.height);
    for (const drawn of inOrder(host)) {
      if (drawn.clientWidth === 0 || drawn.clientHeight === 0 || drawn.width === 0) continue;
      fine.globalAlpha = Number(drawn.style.opacity === "" ? 1 : drawn.style.opacity);
      const at = [drawn.offsetLeft * sx, drawn.offsetTop * sy, drawn.clientWidth * sx, drawn.clientHeight * sy] as const;
      if (drawn instanceof HTMLVideoElement) paintGlimpse(fine, drawn, at);
      else fine.drawImage(drawn, ...at);
    }
    fine.globalAlpha = 1;
    this.also(fine, this.fine.width, this.fine.height);
    small.clearRect(0, 0, width, height);
    small.drawImage(this.fine, 0, 0, width, height);
    const flashes = this.watch.take(small.getImageData(0, 0, width, height).data, nowMs);
    this.costMs = performance.now() - began;
    if (flashes === null) return;
    this.untilMs = nowMs + calmMs;
    if (!this.on) this.dim(true);
  }
  private dim(on: boolean): void {
    this.on = on;
    if (on) this.times += 1;
    this.host.style.transition = "opacity 160ms linear";
    this.host.style.opacity = on ? String(dimmed) : "";
  }
}

/** As they lie over each other. */
const inOrder = (host: HTMLElement): readonly (HTMLCanvasElement | HTMLVideoElement)[] =>
  [...host.querySelectorAll<HTMLCanvasElement | HTMLVideoElement>(":scope > canvas, :scope > video")].sort(
    (a, b) => Number(a.style.zIndex) - Number(b.style.zIndex),
  );
