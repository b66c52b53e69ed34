import { FlashWatch } from "../core/pictures/flash-watch";
import { filmFlashes } from "./film";
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

type Drawing = CanvasRenderingContext2D;
function canvasOf(wide: number, high: number, how?: CanvasRenderingContext2DSettings): Drawing | null {
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [wide, high];
  return canvas.getContext("2d", how);
}

/** Something that paints what no canvas holds: pictures of alerts, into a picture of this size. */
export type Also = (context: CanvasRenderingContext2D, width: number, height: number) => void;

/** A game that drew nothing for so long does not move: nothing is looked at by itself any more. */
const idleMs = 600;

/**
 * Looks at what is drawn, some twenty times a second while it moves, and dims all of it while it flashes more often than
 * WCAG 2.3.1 allows: whatever a picture, a game or many of them together do. It looks by the clock and not by frames: a film
 * or an alert goes on flashing while the games are drawn seldom. Of a film it also knows what was found when it was made.
 */
export class FlashGuard {
  private readonly watch = new FlashWatch(width, height);
  private readonly fine = canvasOf(width * finer, height * finer);
  private readonly small = canvasOf(width, height, { willReadFrequently: true });
  /** What each canvas held when a frame was drawn: later it may be empty for whoever reads it. */
  private readonly held = new WeakMap<HTMLCanvasElement, Drawing>();
  private lookedMs = -Infinity;
  private askedMs = -Infinity;
  private looks = 0;
  private untilMs = -Infinity;
  private timer = 0;
  /** How often it began to dim, and whether it does now. */
  times = 0;
  on = false;
  /** What looking costs, milliseconds: the last time. */
  costMs = 0;

  constructor(
    private readonly host: HTMLElement,
    private readonly also: Also = () => undefined,
  ) {}

  /** Once a frame, when it was drawn; only now and then it looks. Whether it wants to be asked again though nothing moves. */
  look(): boolean {
    const nowMs = performance.now();
    this.askedMs = nowMs;
    if (this.isDue(nowMs)) this.sample(nowMs, true);
    this.rest(nowMs);
    if (this.timer === 0) this.timer = window.setTimeout(this.tick, everyMs[0]);
    return this.on;
  }
  free(): void {
    clearTimeout(this.timer);
  }

  /** By its own clock, while frames come seldom. */
  private readonly tick = (): void => {
    const nowMs = performance.now();
    if (this.isDue(nowMs)) this.sample(nowMs, false);
    this.rest(nowMs);
    const goesOn = this.on || nowMs - this.askedMs < idleMs;
    this.timer = goesOn ? window.setTimeout(this.tick, everyMs[this.looks % everyMs.length]) : 0;
  };
  private isDue(nowMs: number): boolean {
    return nowMs - this.lookedMs >= (everyMs[this.looks % everyMs.length] ?? 50) - 2;
  }
  private rest(nowMs: number): void {
    if (filmFlashes()) this.flashed(nowMs);
    else if (this.on && nowMs > this.untilMs) this.dim(false);
  }
  private flashed(nowMs: number): void {
    this.untilMs = nowMs + calmMs;
    if (!this.on) this.dim(true);
  }

  private sample(nowMs: number, drawn: boolean): void {
    this.lookedMs = nowMs;
    this.looks += 1;
    const { host, fine, small } = this;
    const [w, h] = [host.clientWidth, host.clientHeight];
    if (fine === null || small === null || w === 0 || h === 0) return;
    const began = performance.now();
    const [wide, high] = [width * finer, height * finer];
    const [sx, sy] = [wide / w, high / h];
    fine.clearRect(0, 0, wide, high);
    for (const element of inOrder(host)) {
      if (element.clientWidth === 0 || element.clientHeight === 0 || element.width === 0) continue;
      fine.globalAlpha = Number(element.style.opacity === "" ? 1 : element.style.opacity);
      const at = [element.offsetLeft * sx, element.offsetTop * sy, element.clientWidth * sx, element.clientHeight * sy] as const;
      if (element instanceof HTMLVideoElement) paintGlimpse(fine, element, at);
      else this.paint(fine, element, drawn, at);
    }
    fine.globalAlpha = 1;
    this.also(fine, wide, high);
    small.clearRect(0, 0, width, height);
    small.drawImage(fine.canvas, 0, 0, width, height);
    const flashes = this.watch.take(small.getImageData(0, 0, width, height).data, nowMs);
    this.costMs = performance.now() - began;
    if (flashes !== null) this.flashed(nowMs);
  }
  private paint(onto: Drawing, canvas: HTMLCanvasElement, drawn: boolean, at: readonly [number, number, number, number]): void {
    let held = this.held.get(canvas) ?? null;
    if (held === null) {
      held = canvasOf(width * finer, height * finer);
      if (held === null) return;
      this.held.set(canvas, held);
    }
    if (drawn) {
      held.clearRect(0, 0, width * finer, height * finer);
      held.drawImage(canvas, 0, 0, width * finer, height * finer);
    }
    onto.drawImage(held.canvas, ...at);
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
