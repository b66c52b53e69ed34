import { isReadable, smallFrame } from "../core/pictures/small-frame";

const [width, height] = [64, 36];
const mostFailed = 5;

/**
 * A film's frame, made small without a canvas: of frames that are drawn onto one the browser keeps up to half a gigabyte
 * (Chromium drawing in software), of frames that are copied none.
 */
class Glimpse {
  private readonly canvas = document.createElement("canvas");
  private readonly context = this.canvas.getContext("2d");
  private readonly cells = new ImageData(width, height);
  private bytes = new Uint8Array(0);
  private copying = false;
  private there = false;
  /** Where frames can't be copied (a page that isn't in a secure context, pixels of another form) they are drawn. */
  private drawn = typeof VideoFrame === "undefined";
  private failed = 0;

  paint(context: CanvasRenderingContext2D, video: HTMLVideoElement, x: number, y: number, w: number, h: number): void {
    if (this.drawn) return context.drawImage(video, x, y, w, h);
    if (!this.copying) void this.copy(video);
    if (this.there) context.drawImage(this.canvas, x, y, w, h);
  }
  private async copy(video: HTMLVideoElement): Promise<void> {
    this.copying = true;
    let frame: VideoFrame | null = null;
    try {
      frame = new VideoFrame(video);
      const { format: form, visibleRect, codedWidth, codedHeight } = frame;
      if (!isReadable(form)) throw new TypeError(`frames of the form ${String(form)} can’t be read`);
      if (this.bytes.length < frame.allocationSize()) this.bytes = new Uint8Array(frame.allocationSize());
      const planes = await frame.copyTo(this.bytes);
      const size = { width: visibleRect?.width ?? codedWidth, height: visibleRect?.height ?? codedHeight };
      smallFrame({ form, data: this.bytes, planes, ...size }, { data: this.cells.data, width, height });
      this.context?.putImageData(this.cells, 0, 0);
      this.there = true;
      this.failed = 0;
    } catch {
      // One that ended in between can't be copied either: only who fails again and again is drawn from then on.
      this.failed += 1;
      this.drawn = this.failed >= mostFailed;
    } finally {
      frame?.close();
      this.copying = false;
    }
  }
  constructor() {
    [this.canvas.width, this.canvas.height] = [width, height];
  }
}

const glimpses = new WeakMap<HTMLVideoElement, Glimpse>();
/** What a film shows, as it was at the last look at it, painted coarsely: for who looks for flashes, not for eyes. */
export function paintGlimpse(
  context: CanvasRenderingContext2D,
  video: HTMLVideoElement,
  [x, y, w, h]: readonly [number, number, number, number],
): void {
  if (video.readyState < 2) return;
  let glimpse = glimpses.get(video);
  if (glimpse === undefined) glimpses.set(video, (glimpse = new Glimpse()));
  glimpse.paint(context, video, x, y, w, h);
}
