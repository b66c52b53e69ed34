import { mix32, unitAt } from "../core/kernel/chance";
import { initialsOf } from "../core/pictures/initials";
import type { Pose } from "./motion";
import { lettering, lookNow } from "./dress";
import type { LoadedSprite } from "./sprites";
import { shortened } from "./letters";
import { drawPanel, edgeOf, outline, writeOn } from "./panel";

type Brush = CanvasRenderingContext2D;
/** What a card about somebody says: their picture, their name, a line, and something small. */
export type CardWords = Readonly<{
  title: string;
  line: string;
  small: string;
  /** Round pictures beside the words, the first in front. */
  faces: readonly (LoadedSprite | undefined)[];
  /** Whose glaze runs down the card's upper edge: their name; empty for none. */
  glaze: string;
  /** A picture beyond the words; null for none. */
  picture: LoadedSprite | null;
  /** A square of black and white that cameras read: rows of modules. */
  code?: readonly (readonly boolean[])[];
}>;

/** Draws a frame of a sprite within a square, as large as fits. */
export function stamp(context: Brush, sprite: LoadedSprite | undefined, x: number, y: number, size: number, ageMs = 0): void {
  if (sprite?.picture === null || sprite === undefined) return;
  const { frames, columns, frameWidth, frameHeight, frameMs, picture } = sprite;
  const frame = frames > 1 && frameMs > 0 ? Math.floor(ageMs / frameMs) % frames : 0;
  const scale = size / Math.max(frameWidth, frameHeight);
  const [w, h] = [frameWidth * scale, frameHeight * scale];
  context.drawImage(
    picture,
    (frame % columns) * frameWidth,
    Math.floor(frame / columns) * frameHeight,
    frameWidth,
    frameHeight,
    x + (size - w) / 2,
    y + (size - h) / 2,
    w,
    h,
  );
}

/** A text in at most two lines, broken between words; what does not fit is shortened. */
export function twoLines(context: Brush, text: string, width: number): readonly string[] {
  if (context.measureText(text).width <= width) return text === "" ? [] : [text];
  const words = text.split(" ");
  let n = words.length - 1;
  while (n > 1 && context.measureText(words.slice(0, n).join(" ")).width > width) n -= 1;
  const first = words.slice(0, n).join(" ");
  if (n === 0 || context.measureText(first).width > width) return [shortened(context, text, width)];
  return [first, shortened(context, words.slice(n).join(" "), width)];
}

/**
 * A card of this size with its middle where the brush stands, in the pose of its entrance or exit. Letters are never
 * smaller than `least`.
 */
export function paintCard(context: Brush, words: CardWords, width: number, height: number, least: number, pose: Pose, ageMs: number): void {
  const alpha = Math.max(0, Math.min(1, pose.alpha));
  if (alpha <= 0) return;
  const before = context.globalAlpha;
  context.save();
  context.translate(pose.x * height, pose.y * height);
  context.rotate(pose.angle);
  context.scale(pose.width, pose.height);
  context.translate(-width / 2, -height / 2);
  drawPanel(context, width, height, alpha);
  context.globalAlpha = before * alpha;
  if (words.glaze !== "") drip(context, words.glaze, width, height);
  const pad = Math.max(edgeOf(height) * 1.6, height * 0.11);
  const { letters, soft, accent } = lookNow();
  let left = pad;
  const faces = words.faces.slice(0, 4);
  if (faces.length > 0) {
    const size = height - 2 * pad * 0.8;
    const step = faces.length === 1 ? 0 : (size * 0.62) / (faces.length - 1);
    const each = faces.length === 1 ? size : size * 0.78;
    for (let i = faces.length - 1; i >= 0; i -= 1) stamp(context, faces[i], left + i * step, (height - each) / 2, each, ageMs);
    left += each + step * (faces.length - 1) + pad * 0.8;
  }
  let right = width - pad;
  if (words.code !== undefined && words.code.length > 0)
    right -= paintCode(context, words.code, right, pad * 0.8, height - 1.6 * pad) + pad * 0.8;
  if (words.picture !== null) {
    const size = height - pad;
    stamp(context, words.picture, right - size + pad * 0.4, pad / 2, size, ageMs);
    right -= size;
  }
  const room = Math.max(10, right - left);
  const large = Math.max(least * 1.1, height * (words.line === "" ? 0.3 : 0.25));
  const small = Math.max(least, height * 0.15);
  context.textAlign = "left";
  context.textBaseline = "alphabetic";
  context.font = lettering(600, small);
  const lines = words.line === "" ? [] : twoLines(context, words.line, room);
  const total = large * 1.05 + lines.length * small * 1.22 + (words.small === "" ? 0 : small * 1.05);
  // Where letters have their least size and the card is small, what is said last gives way.
  const fits = total <= height - pad;
  const shown = fits ? lines : lines.slice(0, 1);
  const tail = fits ? words.small : "";
  let y =
    (height - (large * 1.05 + shown.length * small * 1.22 + (tail === "" ? 0 : small * 1.05))) / 2 +
    large * 0.82 +
    (words.glaze === "" ? 0 : height * 0.03);
  context.font = lettering(800, large);
  context.fillStyle = letters;
  writeOn(context, shortened(context, words.title, room), left, y, large);
  y += small * 0.3;
  context.font = lettering(600, small);
  for (const line of shown) {
    y += small * 1.18;
    writeOn(context, line, left, y, small);
  }
  if (tail !== "") {
    context.font = lettering(500, small * 0.86);
    context.fillStyle = shown.length === 0 ? accent : soft;
    writeOn(context, shortened(context, tail, room), left, y + small * 1.14, small);
  }
  context.restore();
}

/** Glaze in somebody's own colour, run down from the upper edge: the same for the same name, everywhere. */
function drip(context: Brush, name: string, width: number, height: number): void {
  const { colour } = initialsOf(name);
  const seed = [...name].reduce((mark, letter) => mix32(mark, letter.codePointAt(0) ?? 0), 7);
  const step = height * 0.46;
  const edge = height * 0.07;
  context.save();
  outline(context, width, height);
  context.clip();
  context.beginPath();
  context.moveTo(0, -2);
  context.lineTo(0, edge);
  for (let i = 0, x = 0; x < width; i += 1, x += step) {
    const wide = Math.min(step, width - x);
    const deep = edge + height * (unitAt(seed, i) < 0.4 ? 0.02 : 0.04 + unitAt(seed, i + 90) * 0.1);
    const at = x + wide * (0.3 + unitAt(seed, i + 40) * 0.4);
    const half = Math.min(wide * 0.24, height * 0.05);
    context.lineTo(Math.max(x, at - half * 1.6), edge);
    context.quadraticCurveTo(at - half, edge, at - half, (edge + deep) / 2);
    context.quadraticCurveTo(at - half, deep, at, deep);
    context.quadraticCurveTo(at + half, deep, at + half, (edge + deep) / 2);
    context.quadraticCurveTo(at + half, edge, Math.min(x + wide, at + half * 1.6), edge);
  }
  context.lineTo(width, edge);
  context.lineTo(width, -2);
  context.closePath();
  context.fillStyle = colour;
  context.fill();
  // Light on its upper side, as on wet glaze.
  context.fillStyle = "rgba(255,255,255,.28)";
  context.fillRect(0, edge * 0.24, width, Math.max(1, edge * 0.2));
  context.restore();
}

/** Dark modules on a light ground with the four modules of room that readers need; how wide it is. */
function paintCode(context: Brush, code: readonly (readonly boolean[])[], right: number, top: number, height: number): number {
  const n = code.length + 8;
  const module = Math.max(1, Math.floor(height / n));
  const size = module * n;
  const [x, y] = [Math.round(right - size), Math.round(top + (height - size) / 2)];
  context.fillStyle = "#FFFFFF";
  context.fillRect(x, y, size, size);
  context.fillStyle = "#10131B";
  code.forEach((row, r) => row.forEach((dark, c) => dark && context.fillRect(x + (c + 4) * module, y + (r + 4) * module, module, module)));
  return size;
}
