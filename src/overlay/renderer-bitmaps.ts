import { type SpriteBuffer, stride } from "./sprite-buffer";
import type { Renderer } from "./renderer";
import type { LoadedSprite, SpriteBook } from "./sprites";

const angles = 24;
const sizeStep = 1.15;
const logStep = Math.log(sizeStep);
const mostBytes = 160 * 1024 * 1024;
/** Making a cut costs some tenths of a millisecond, and a flock may want hundreds: so much of a frame goes to it. */
const cuttingMs = 1.2;
const turn = Math.PI * 2;

/** So large is what is seen to be blurred, pixels; and so many are drawn whole in one frame. */
const largeFrom = 60;
const mostLarge = 8;

function whole(
  context: CanvasRenderingContext2D,
  sprite: LoadedSprite,
  frame: number,
  x: number,
  y: number,
  w: number,
  h: number,
  angle: number,
) {
  const { picture, columns, frameWidth: fw, frameHeight: fh } = sprite;
  if (picture === null) return;
  context.setTransform(Math.cos(angle), Math.sin(angle), -Math.sin(angle), Math.cos(angle), x, y);
  context.drawImage(picture, (frame % columns) * fw, Math.floor(frame / columns) * fh, fw, fh, -w / 2, -h / 2, w, h);
  context.setTransform(1, 0, 0, 1, 0, 0);
}

type Cut = { bitmap: ImageBitmap; side: number; bytes: number; usedAt: number };

/**
 * Canvas 2D with bitmaps that are turned and sized once, cached, and then only copied to whole pixels:
 * the fastest way where no graphics card helps. What is not cached yet and over this frame's budget is
 * drawn from the nearest cut, so a flock of a thousand does not stop the picture.
 */
export class BitmapRenderer implements Renderer {
  readonly name = "bitmaps";
  coarse = false;
  private context: CanvasRenderingContext2D;
  private readonly cuts = new Map<number, Cut>();
  /** Any cut of each sprite, to fall back to. */
  private readonly firsts = new Map<number, number>();
  private bytes = 0;
  private tick = 0;
  private dirty: [number, number, number, number] | null = null;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly sprites: SpriteBook,
  ) {
    const context = canvas.getContext("2d");
    if (context === null) throw new Error("this browser draws no canvas");
    this.context = context;
  }

  resize(width: number, height: number): void {
    this.canvas.width = width;
    this.canvas.height = height;
    this.dirty = null;
  }

  clear(): void {
    if (this.dirty === null) return;
    const [x0, y0, x1, y1] = this.dirty;
    this.context.clearRect(x0 - 2, y0 - 2, x1 - x0 + 4, y1 - y0 + 4);
    this.dirty = null;
  }

  draw(flat: SpriteBuffer): void {
    this.clear();
    this.tick += 1;
    const { context, sprites } = this;
    const d = flat.data;
    const began = performance.now();
    let mayCut = true;
    // When the machine can't keep up, a cut that is about right is copied rather than stretched.
    const loose = this.coarse ? 0.25 : 0.04;
    let alphaNow = 1;
    let large = 0;
    let x0 = Infinity,
      y0 = Infinity,
      x1 = -Infinity,
      y1 = -Infinity;
    context.globalAlpha = 1;
    for (let n = 0, i = 0; n < flat.count; n += 1, i += stride) {
      const x = d[i] ?? 0,
        y = d[i + 1] ?? 0,
        w = d[i + 2] ?? 0,
        h = d[i + 3] ?? 0,
        alpha = d[i + 5] ?? 1;
      if (w < 1 || h < 1 || alpha < 0.01) continue;
      const sprite = sprites.get(d[i + 6] ?? 0);
      if (sprite === undefined || sprite.picture === null) continue;
      // A cut has the frame's own shape and about this size; squash is a stretch of the same cut.
      const side = Math.sqrt(w * h);
      const sizeAt = Math.max(0, Math.min(127, Math.round(Math.log(side / 4) / logStep)));
      const angleAt = this.coarse ? 0 : ((Math.round(((d[i + 4] ?? 0) / turn) * angles) % angles) + angles) % angles;
      const frame = d[i + 7] ?? 0;
      // Only still pictures are ever replaced, so their frames are free to tell one from the next.
      const mark = (frame + sprite.again) % 512;
      const key = ((sprite.id * 512 + mark) * 128 + sizeAt) * angles + angleAt;
      let cut = this.cuts.get(key);
      if (cut === undefined) {
        if (mayCut) {
          cut = this.make(key, sprite, frame, 4 * Math.pow(sizeStep, sizeAt), (angleAt / angles) * turn);
          mayCut = performance.now() - began < cuttingMs;
        } else cut = this.near(sprite.id, mark, sizeAt, angleAt);
        if (cut === undefined) continue;
        // Something large, made of a cut that is far too small, would be a blur: a few such are drawn from their picture.
        if (side > largeFrom && cut.side < side * 0.7 && large < mostLarge) {
          large += 1;
          if (alpha !== alphaNow) context.globalAlpha = alphaNow = alpha;
          whole(context, sprite, frame, x, y, w, h, d[i + 4] ?? 0);
          const far = Math.hypot(w, h) / 2;
          x0 = Math.min(x0, x - far);
          y0 = Math.min(y0, y - far);
          x1 = Math.max(x1, x + far);
          y1 = Math.max(y1, y + far);
          continue;
        }
      }
      cut.usedAt = this.tick;
      if (alpha !== alphaNow) context.globalAlpha = alphaNow = alpha;
      const { bitmap } = cut;
      // A little off the cut's own size nobody sees; more than that is stretched from it.
      const fit = side / cut.side;
      const squash = ((w / h) * sprite.frameHeight) / sprite.frameWidth;
      if (Math.abs(squash - 1) < loose && Math.abs(fit - 1) < loose) {
        context.drawImage(bitmap, (x - bitmap.width / 2) | 0, (y - bitmap.height / 2) | 0);
      } else {
        const bw = bitmap.width * fit * Math.sqrt(squash),
          bh = (bitmap.height * fit) / Math.sqrt(squash);
        context.drawImage(bitmap, (x - bw / 2) | 0, (y - bh / 2) | 0, Math.max(1, bw | 0), Math.max(1, bh | 0));
      }
      const reach = Math.max(bitmap.width, bitmap.height) * Math.max(1, fit * 1.5);
      if (x - reach < x0) x0 = x - reach;
      if (y - reach < y0) y0 = y - reach;
      if (x + reach > x1) x1 = x + reach;
      if (y + reach > y1) y1 = y + reach;
    }
    if (x1 > x0) this.dirty = [Math.floor(x0), Math.floor(y0), Math.ceil(x1), Math.ceil(y1)];
    if (this.bytes > mostBytes) this.trim();
  }

  rehearse(flat: SpriteBuffer): void {
    const unseen = document.createElement("canvas").getContext("2d");
    if (unseen === null) return;
    const seen = this.context;
    this.context = unseen;
    for (let i = 0; i < 12; i += 1) this.draw(flat);
    this.context = seen;
    this.dirty = null;
  }

  /** The cut that looks most alike: a little more or less turned, then a little larger or smaller. */
  private near(sprite: number, mark: number, sizeAt: number, angleAt: number): Cut | undefined {
    const base = ((sprite * 512 + mark) * 128 + sizeAt) * angles;
    for (let turned = 1; turned < 4; turned += 1) {
      const cut = this.cuts.get(base + ((angleAt + turned) % angles)) ?? this.cuts.get(base + ((angleAt - turned + angles) % angles));
      if (cut !== undefined) return cut;
    }
    const sized = this.cuts.get(base + angleAt + angles) ?? this.cuts.get(base + angleAt - angles);
    if (sized !== undefined) return sized;
    // The first frames of something new: straight, and of any frame, rather than not at all.
    const first = this.firsts.get(sprite);
    return first === undefined ? undefined : this.cuts.get(first);
  }

  private make(key: number, sprite: LoadedSprite, frame: number, side: number, angle: number): Cut | undefined {
    const { picture, columns, frameWidth, frameHeight } = sprite;
    if (picture === null) return undefined;
    const ratio = Math.sqrt(frameWidth / frameHeight);
    const w = side * ratio,
      h = side / ratio;
    const cos = Math.abs(Math.cos(angle)),
      sin = Math.abs(Math.sin(angle));
    const width = Math.max(1, Math.ceil(w * cos + h * sin)),
      height = Math.max(1, Math.ceil(w * sin + h * cos));
    const canvas = new OffscreenCanvas(width, height);
    const turned = canvas.getContext("2d");
    if (turned === null) return undefined;
    turned.imageSmoothingQuality = "high";
    turned.translate(width / 2, height / 2);
    turned.rotate(angle);
    turned.drawImage(
      picture,
      (frame % columns) * frameWidth,
      Math.floor(frame / columns) * frameHeight,
      frameWidth,
      frameHeight,
      -w / 2,
      -h / 2,
      w,
      h,
    );
    const cut: Cut = { bitmap: canvas.transferToImageBitmap(), side, bytes: width * height * 4, usedAt: this.tick };
    this.cuts.set(key, cut);
    if (!this.cuts.has(this.firsts.get(sprite.id) ?? -1)) this.firsts.set(sprite.id, key);
    this.bytes += cut.bytes;
    return cut;
  }

  /** Lets go of what was not drawn for longest, down to three quarters. */
  private trim(): void {
    const old = [...this.cuts].sort((a, b) => a[1].usedAt - b[1].usedAt);
    for (const [key, cut] of old) {
      if (this.bytes < mostBytes * 0.75 || cut.usedAt === this.tick) break;
      cut.bitmap.close();
      this.cuts.delete(key);
      this.bytes -= cut.bytes;
    }
  }

  free(): void {
    for (const cut of this.cuts.values()) cut.bitmap.close();
    this.cuts.clear();
    this.bytes = 0;
  }
}
