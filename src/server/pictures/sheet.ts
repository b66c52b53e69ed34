import { createHash } from "node:crypto";
import { fileTypeFromBuffer } from "file-type";
import sharp from "sharp";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { pictureDefaults, type PictureSettings } from "../../core/props/settings";
import { type Frame, safeFrameMs } from "../../core/pictures/flash";
import { sha256 } from "../hash";
import { mostPictureBytes } from "./limits";
import { cleanSvg, looksLikeSvg } from "./svg";
import { isTooHeavy, isTooLong } from "./svg-weight";

export type PictureKind = "png" | "svg" | "gif" | "webp";
/** One picture made of equal frames, row by row, so that a page draws an animation without decoding one. */
export type Sheet = Readonly<{
  kind: PictureKind;
  webp: Buffer;
  frames: number;
  columns: number;
  frameWidth: number;
  frameHeight: number;
  frameMs: number;
  sourceWidth: number;
  sourceHeight: number;
  /** Hash of the file as it was sent, and of what it shows: two files may show the same. */
  sourceSha: string;
  pixelsSha: string;
}>;

const mostFrames = 300;
const mostPixelsPerSide = 4_096;
/** What a picture is for decides how large it may be, and how large its frames are kept. */
export type SheetUse = Readonly<{ mostBytes: number; stillSide: number; animatedSide: number; settings: PictureSettings }>;
/** Sharp up to a tenth of a 4K picture, small enough that 500 fit in memory. */
export const emoteUse: SheetUse = { mostBytes: mostPictureBytes.emote, stillSide: 256, animatedSide: 128, settings: pictureDefaults };
export const propUse = (settings: PictureSettings): SheetUse => ({
  mostBytes: mostPictureBytes.prop,
  stillSide: 1_024,
  animatedSide: 384,
  settings,
});
export const mostSheetPixels = 3_072 * 3_072;

sharp.cache(false);
sharp.concurrency(1);

/**
 * Checks a picture by its content, never by its name, and turns it into a sheet. Refused: too large, not
 * one of the four kinds, broken, too many frames, nothing visible.
 */
export async function toSheet(bytes: Buffer, use: SheetUse = emoteUse): Promise<Result<Sheet>> {
  const cut = await toFrames(bytes, use);
  if (!cut.ok) return cut;
  const { raw, ...rest } = cut.value;
  const { frameWidth, frameHeight, frames } = rest;
  const pixels = createHash("sha256").update(`${frameWidth}x${frameHeight}x${frames}`);
  for (const frame of raw) pixels.update(frame);
  return ok({ ...rest, ...(await compose(raw, frameWidth, frameHeight)), sourceSha: sha256(bytes), pixelsSha: pixels.digest("hex") });
}

/** The frames of a picture, each as raw RGBA of one size; the source's size, and how long each is shown. */
export type Frames = Readonly<{ raw: readonly Buffer[] }> & Omit<Sheet, "webp" | "columns" | "sourceSha" | "pixelsSha">;
/** The same checks as for a sheet. */
export async function toFrames(bytes: Buffer, use: SheetUse): Promise<Result<Frames>> {
  if (bytes.length === 0) return refused("picture/empty");
  if (bytes.length > use.mostBytes) return refused("picture/too-large", { mostKilobytes: use.mostBytes / 1024 });
  const type = await fileTypeFromBuffer(bytes);
  let kind: PictureKind;
  let source = bytes;
  if (type?.mime === "image/png" || type?.mime === "image/apng") kind = "png";
  else if (type?.mime === "image/gif") kind = "gif";
  else if (type?.mime === "image/webp") kind = "webp";
  else if (type === undefined || type.mime === "application/xml" || (type.mime as string) === "image/svg+xml") {
    const text = bytes.toString("utf8");
    if (!looksLikeSvg(text)) return refused("picture/unknown-kind");
    if (isTooLong(text)) return refused("picture/too-complex");
    const clean = cleanSvg(text);
    if (clean === null) return refused("picture/unknown-kind");
    if (isTooHeavy(clean)) return refused("picture/too-complex");
    kind = "svg";
    source = Buffer.from(clean);
  } else return refused("picture/unknown-kind");
  try {
    return await cutFrames(kind, source, use);
  } catch {
    return refused("picture/broken");
  }
}

async function cutFrames(kind: PictureKind, source: Buffer, use: SheetUse): Promise<Result<Frames>> {
  const limits = { limitInputPixels: mostPixelsPerSide * mostPixelsPerSide, failOn: "error" as const };
  const head = await sharp(source, limits).metadata();
  const pages = head.pages ?? 1;
  if (pages > mostFrames) return refused("picture/too-many-frames", { mostFrames, frames: pages });
  const width = head.width;
  const height = head.height;
  if (!width || !height || width > mostPixelsPerSide || height > mostPixelsPerSide)
    return refused("picture/too-many-pixels", { mostPixelsPerSide });
  // A sheet of frames in one picture, or an animation of several; never both.
  const { crop, grid } = use.settings;
  const isGrid = pages === 1 && grid.frames > 1;
  const frames = isGrid ? grid.frames : pages;
  const cut = { left: Math.floor(crop.x * width), top: Math.floor(crop.y * height), width: 1, height: 1 };
  cut.width = Math.max(1, Math.min(width - cut.left, Math.round(crop.width * width)));
  cut.height = Math.max(1, Math.min(height - cut.top, Math.round(crop.height * height)));
  const cellWidth = isGrid ? Math.max(1, Math.floor(cut.width / grid.columns)) : cut.width;
  const cellHeight = isGrid ? Math.max(1, Math.floor(cut.height / grid.rows)) : cut.height;
  let side = frames > 1 ? use.animatedSide : use.stillSide;
  while (frames * side * side > mostSheetPixels && side > 32) side = Math.floor(side * 0.75);
  const scale = kind === "svg" ? side / Math.max(cellWidth, cellHeight) : Math.min(1, side / Math.max(cellWidth, cellHeight));
  const frameWidth = Math.max(1, Math.round(cellWidth * scale));
  const frameHeight = Math.max(1, Math.round(cellHeight * scale));
  const density = kind === "svg" ? Math.min(2_000, Math.max(1, 72 * scale)) : undefined;
  // An SVG is drawn larger, so its cut is larger by as much.
  const drawn = density === undefined ? 1 : density / 72;

  const raw: Buffer[] = [];
  for (let frame = 0; frame < frames; frame += 1) {
    const at = isGrid ? { x: (frame % grid.columns) * cellWidth, y: Math.floor(frame / grid.columns) * cellHeight } : { x: 0, y: 0 };
    const whole = cut.width === width && cut.height === height && !isGrid;
    const opened = sharp(source, { ...limits, page: isGrid ? 0 : frame, pages: 1, density });
    const part = whole
      ? opened
      : opened.extract({
          left: Math.floor((cut.left + at.x) * drawn),
          top: Math.floor((cut.top + at.y) * drawn),
          width: Math.max(1, Math.floor(cellWidth * drawn)),
          height: Math.max(1, Math.floor(cellHeight * drawn)),
        });
    raw.push(await part.resize(frameWidth, frameHeight, { fit: "fill" }).ensureAlpha().toColourspace("srgb").raw().toBuffer());
  }
  if (!raw.some((frame) => frame.some((value, i) => i % 4 === 3 && value > 8))) return refused("picture/nothing-visible");
  const delays = (head.delay ?? []).map((d) => (d > 10 ? d : 100));
  const ownMs = frames > 1 ? Math.round(delays.length > 0 ? delays.reduce((a, b) => a + b, 0) / delays.length : 100) : 0;
  const meantMs = frames > 1 && use.settings.frameMs > 0 ? use.settings.frameMs : ownMs;
  // What would flash too often for some people is played slower; nobody has to find out on air.
  const tile = { width: frameWidth, height: frameHeight, channels: 4 as const };
  const frameMs = frames > 1 ? safeFrameMs(await Promise.all(raw.map((frame) => small(frame, tile))), meantMs) : 0;
  return ok({ kind, raw, frames, frameWidth, frameHeight, frameMs, sourceWidth: width, sourceHeight: height });
}

/** Frames of one size side by side in one picture, row by row. */
export async function compose(raw: readonly Buffer[], width: number, height: number): Promise<Readonly<{ webp: Buffer; columns: number }>> {
  const columns = Math.ceil(Math.sqrt(raw.length));
  const rows = Math.ceil(raw.length / columns);
  const tile = { width, height, channels: 4 as const };
  const webp = await sharp({
    create: { width: width * columns, height: height * rows, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } },
  })
    .composite(raw.map((input, i) => ({ input, raw: tile, left: (i % columns) * width, top: Math.floor(i / columns) * height })))
    .webp({ quality: 92, alphaQuality: 100, effort: 4 })
    .toBuffer();
  return { webp, columns };
}

type Tile = Readonly<{ width: number; height: number; channels: 4 }>;
const lookSide = 24;
async function small(frame: Buffer, tile: Tile): Promise<Frame> {
  const rgba = await sharp(frame, { raw: tile }).resize(lookSide, lookSide, { fit: "fill", kernel: "nearest" }).raw().toBuffer();
  return { width: lookSide, height: lookSide, rgba };
}
