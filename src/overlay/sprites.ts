import type { FigureFacts } from "../core/props/figure";
import type { Sprite } from "../core/wire/messages";
import { drawnSprite, isDrawn, isFace, nameOfFace, pictureFace } from "./drawn-sprites";

export type SpritePicture = CanvasImageSource & { readonly width: number; readonly height: number };
export type LoadedSprite = {
  id: number;
  key: string;
  picture: SpritePicture | null;
  frames: number;
  columns: number;
  frameWidth: number;
  frameHeight: number;
  frameMs: number;
  /** What it is seen doing, when it is a figure. */
  figure?: FigureFacts;
  usedAtMs: number;
  /** How often its picture was replaced by another: what was made of the one before is of no use then. */
  again: number;
};

export const emojiFont = "Noto Color Emoji";
const emojiPx = 160;
const retryMs = 20_000;
/** A long storm of ever other emoji must not fill the memory: over so many, those unused for longest go. */
const mostLoaded = 300;
/** Longer than any emote lives: who was not asked for in this time is on no picture, not even a hidden page's. */
const surelyGoneMs = 130_000;

/**
 * The pictures of a stage: small numbers for keys, loaded when first wanted. Emoji are drawn from the font
 * that ships with Izzam, so that they look the same on every machine.
 */
export class SpriteBook {
  private readonly byKey = new Map<string, LoadedSprite>();
  private readonly list: (LoadedSprite | undefined)[] = [];
  private sheets = new Map<string, Sprite>();
  private markedUrl = "";
  private facesUrl = "";
  /** Grows with every picture that has come. */
  loads = 0;
  /** The page's clock, set by the player once a frame. */
  nowMs = 0;
  onLoaded: (sprite: LoadedSprite) => void = () => undefined;

  setStage(sprites: readonly Sprite[], markedUrl: string, facesUrl = ""): void {
    const next = new Map(sprites.map((s) => [s.key, s]));
    for (const [key, old] of this.sheets) {
      // A sheet that was replaced is loaded anew when it is wanted next.
      if (next.get(key)?.url !== old.url && this.byKey.has(key)) this.forget(key);
    }
    this.sheets = next;
    this.markedUrl = markedUrl;
    // Somebody's picture is shown no more, or is again: all are asked for anew, and what may not be shown is not.
    const asked = facesUrl !== this.facesUrl;
    this.facesUrl = facesUrl;
    if (asked) for (const sprite of this.list) if (sprite !== undefined && isFace(sprite.key)) void this.load(sprite);
  }

  /** Keys of the channel's own pictures. */
  known(): readonly string[] {
    return [...this.sheets.keys()];
  }

  private forget(key: string): void {
    this.byKey.delete(key);
  }

  id(key: string): number {
    const known = this.byKey.get(key);
    if (known !== undefined) {
      known.usedAtMs = this.nowMs;
      return known.id;
    }
    const sprite: LoadedSprite = {
      id: this.list.length,
      key,
      picture: null,
      frames: 1,
      columns: 1,
      frameWidth: 1,
      frameHeight: 1,
      frameMs: 0,
      usedAtMs: this.nowMs,
      again: 0,
    };
    this.byKey.set(key, sprite);
    this.list.push(sprite);
    void this.load(sprite);
    return sprite.id;
  }

  get(id: number): LoadedSprite | undefined {
    const sprite = this.list[id];
    if (sprite !== undefined) sprite.usedAtMs = this.nowMs;
    return sprite;
  }

  private async withPicture(sprite: LoadedSprite, facesUrl: string): Promise<void> {
    const picture = await pictureFace(facesUrl.replace("{name}", encodeURIComponent(nameOfFace(sprite.key)))).catch(() => null);
    if (picture === null || this.byKey.get(sprite.key) !== sprite || facesUrl !== this.facesUrl) return;
    Object.assign(sprite, { picture, frameWidth: picture.width, frameHeight: picture.height, again: sprite.again + 1 });
    this.loads += 1;
    this.onLoaded(sprite);
  }

  private letGo(): void {
    const idle = [...this.byKey.values()]
      .filter((s) => s.picture !== null && this.nowMs - s.usedAtMs > surelyGoneMs)
      .sort((a, b) => a.usedAtMs - b.usedAtMs);
    for (const sprite of idle.slice(0, this.byKey.size - Math.floor(mostLoaded * 0.8))) {
      if (sprite.picture instanceof ImageBitmap) sprite.picture.close();
      sprite.picture = null;
      this.forget(sprite.key);
      Reflect.deleteProperty(this.list, sprite.id);
    }
  }

  private async load(sprite: LoadedSprite): Promise<void> {
    try {
      if (sprite.key.startsWith("emoji:")) await loadEmoji(sprite);
      else if (isDrawn(sprite.key)) {
        const picture = await drawnSprite(sprite.key);
        const again = sprite.picture === null ? sprite.again : sprite.again + 1;
        Object.assign(sprite, { picture, frameWidth: picture.width, frameHeight: picture.height, again });
        // Initials stand there at once; the picture takes their place when it has come.
        if (isFace(sprite.key) && this.facesUrl !== "") void this.withPicture(sprite, this.facesUrl);
      } else if (sprite.key.startsWith("mark:"))
        await loadSheet(sprite, this.markedUrl.replace("{id}", encodeURIComponent(sprite.key.slice(5))), null);
      else {
        const sheet = this.sheets.get(sprite.key) ?? null;
        await loadSheet(sprite, sheet?.url ?? "", sheet);
      }
      this.loads += 1;
      this.onLoaded(sprite);
      if (this.byKey.size > mostLoaded) this.letGo();
    } catch {
      // It stays invisible; asked for again after a while.
      setTimeout(() => this.byKey.get(sprite.key) === sprite && this.forget(sprite.key), retryMs);
    }
  }
}

async function loadEmoji(sprite: LoadedSprite): Promise<void> {
  const glyph = sprite.key.slice(6);
  const font = `${emojiPx * 0.8}px "${emojiFont}"`;
  await document.fonts.load(font, glyph);
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = emojiPx;
  const context = canvas.getContext("2d");
  if (context === null) throw new Error("no canvas");
  context.font = `${font}, sans-serif`;
  context.textAlign = "center";
  context.textBaseline = "alphabetic";
  const size = context.measureText(glyph);
  const height = size.actualBoundingBoxAscent + size.actualBoundingBoxDescent;
  const scale = Math.min(1, emojiPx / Math.max(1, height, size.width));
  context.translate(emojiPx / 2, emojiPx / 2 + ((size.actualBoundingBoxAscent - size.actualBoundingBoxDescent) / 2) * scale);
  context.scale(scale, scale);
  context.fillText(glyph, 0, 0);
  Object.assign(sprite, { picture: canvas, frameWidth: emojiPx, frameHeight: emojiPx });
}

/** `sheet` tells the frames; for a platform's emote the answer itself does, in a header. */
async function loadSheet(sprite: LoadedSprite, url: string, sheet: Sprite | null): Promise<void> {
  if (url === "") throw new Error("no picture");
  const response = await fetch(url);
  if (!response.ok) throw new Error(`picture: ${response.status}`);
  const told = (response.headers.get("x-izzam-sheet") ?? "").split(",").map(Number);
  const picture = await createImageBitmap(await response.blob());
  const [frames = 1, columns = 1, frameWidth = picture.width, frameHeight = picture.height, frameMs = 0] =
    sheet !== null ? [sheet.frames, sheet.columns, sheet.frameWidth, sheet.frameHeight, sheet.frameMs] : told.length === 5 ? told : [];
  Object.assign(sprite, { picture, frames, columns, frameWidth, frameHeight, frameMs, figure: sheet?.figure });
}
