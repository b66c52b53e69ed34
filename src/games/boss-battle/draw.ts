import { unitAt } from "../../core/kernel/chance";
import { shade } from "../../overlay/colour";
import type { LoadedSprite } from "../../overlay/sprites";
import { type Figure, figureOf } from "./figures";
import { cracksOf } from "./play";

/** How one figure stands at one moment. */
export type Pose = Readonly<{
  /** Share of its health: the glaze's level. May be over 1 when healed without end. */
  level: number;
  /** How many of its cracks are open, 0–1. */
  cracked: number;
  crackSeed: number;
  clay: string;
  glaze: string;
  mirrored: boolean;
  /** 0 calm, 1 just hit. */
  hurt: number;
  /** For the surface of the glaze, which sways a little after a blow. */
  sway: number;
  nowMs: number;
}>;

const paths = new Map<string, Path2D>();
const path = (d: string): Path2D => {
  let made = paths.get(d);
  if (made === undefined) paths.set(d, (made = new Path2D(d)));
  return made;
};
const dark = "#241913";

/** Draws into a square of 100 by 100; the caller has placed, leaned and squashed it. */
export function drawFigure(context: CanvasRenderingContext2D, name: string, picture: LoadedSprite | null, pose: Pose): void {
  const figure = figureOf(name);
  context.save();
  if (pose.mirrored) {
    context.translate(100, 0);
    context.scale(-1, 1);
  }
  if (figure !== null) drawVessel(context, figure, pose);
  else if (picture !== null && picture.picture !== null) drawPicture(context, picture, pose);
  context.restore();
}

function drawVessel(context: CanvasRenderingContext2D, f: Figure, pose: Pose): void {
  const { clay, glaze } = pose;
  const body = path(f.body);
  context.lineJoin = "round";
  context.lineCap = "round";
  // Feet, so that it stands.
  context.fillStyle = shade(clay, -0.38);
  for (const side of [-1, 1]) {
    context.beginPath();
    context.ellipse(50 + side * f.feet, 94.5, 8.5, 4, 0, 0, Math.PI * 2);
    context.fill();
  }
  for (const limb of f.limbs) {
    context.strokeStyle = dark;
    context.lineWidth = limb.width + 3;
    context.stroke(path(limb.path));
    context.strokeStyle = shade(clay, -0.12);
    context.lineWidth = limb.width;
    context.stroke(path(limb.path));
    context.strokeStyle = shade(clay, 0.18);
    context.lineWidth = limb.width * 0.28;
    context.stroke(path(limb.path));
  }
  // Bare clay: what is left when the glaze has drained.
  const side = context.createLinearGradient(12, 0, 90, 0);
  side.addColorStop(0, shade(clay, -0.05));
  side.addColorStop(0.35, shade(clay, 0.2));
  side.addColorStop(1, shade(clay, -0.35));
  context.fillStyle = side;
  context.fill(body);
  context.save();
  context.clip(body);
  context.fillStyle = shade(clay, -0.3);
  for (let i = 0; i < 34; i += 1) {
    context.globalAlpha = 0.35;
    context.beginPath();
    context.arc(unitAt(91, i) * 100, 15 + unitAt(92, i) * 80, 0.5 + unitAt(93, i) * 0.9, 0, Math.PI * 2);
    context.fill();
  }
  context.globalAlpha = 1;
  drawGlaze(context, f, pose, glaze);
  drawCracks(context, pose);
  context.restore();
  context.strokeStyle = dark;
  context.lineWidth = 2.4;
  context.stroke(body);
  context.fillStyle = shade(clay, -0.62);
  context.beginPath();
  context.ellipse(f.rim.x, f.rim.y, f.rim.rx, f.rim.ry, 0, 0, Math.PI * 2);
  context.fill();
  context.strokeStyle = shade(clay, 0.1);
  context.lineWidth = 1.4;
  context.stroke();
  drawFace(context, f, pose);
}

/** The glaze is the health: it drains from above, its edge hangs in runs like real glaze. */
function drawGlaze(context: CanvasRenderingContext2D, f: Figure, pose: Pose, glaze: string): void {
  if (pose.level <= 0) return;
  const level = Math.min(1, pose.level);
  const y = f.bottom - (f.bottom - f.top) * level;
  const edge = (x: number): number =>
    y + Math.sin(x * 0.22 + pose.nowMs / 260) * pose.sway * 4 + Math.sin(x * 0.55 + pose.crackSeed) * 1.1 * (1 - level * 0.6);
  context.beginPath();
  context.moveTo(0, 100);
  context.lineTo(0, edge(0));
  for (let x = 4; x <= 100; x += 4) context.lineTo(x, edge(x));
  context.lineTo(100, 100);
  context.closePath();
  const tone = context.createLinearGradient(12, 0, 92, 0);
  tone.addColorStop(0, shade(glaze, 0.05));
  tone.addColorStop(0.3, shade(glaze, 0.34));
  tone.addColorStop(0.46, glaze);
  tone.addColorStop(1, shade(glaze, -0.42));
  context.fillStyle = tone;
  context.fill();
  context.strokeStyle = shade(glaze, 0.5);
  context.lineWidth = 1.6;
  context.beginPath();
  context.moveTo(0, edge(0));
  for (let x = 4; x <= 100; x += 4) context.lineTo(x, edge(x));
  context.stroke();
  // A window's light on it.
  context.fillStyle = "rgba(255,255,255,.34)";
  context.beginPath();
  context.ellipse(31, Math.max(y + 9, 46), 3.4, Math.min(13, Math.max(1, (f.bottom - y) * 0.3)), 0.12, 0, Math.PI * 2);
  context.fill();
}

function drawCracks(context: CanvasRenderingContext2D, pose: Pose): void {
  const cracks = cracksOf(pose.crackSeed);
  const open = pose.cracked * cracks.length;
  for (let i = 0; i < open; i += 1) {
    const crack = cracks[i];
    if (crack === undefined) return;
    // The newest is still opening.
    const points = Math.max(2, Math.ceil(crack.length * Math.min(1, open - i)));
    for (const [width, colour, shift] of [
      [2.1, dark, 0],
      [0.7, "rgba(255,240,220,.5)", 0.7],
    ] as const) {
      context.strokeStyle = colour;
      context.lineWidth = width;
      context.beginPath();
      crack
        .slice(0, points)
        .forEach((p, k) =>
          k === 0 ? context.moveTo(p.x * 100 + shift, p.y * 100 + shift) : context.lineTo(p.x * 100 + shift, p.y * 100 + shift),
        );
      context.stroke();
    }
  }
}

function drawFace(context: CanvasRenderingContext2D, f: Figure, pose: Pose): void {
  const { y, apart, size } = f.eyes;
  const weary = 1 - Math.min(1, Math.max(0, pose.level));
  const lid = Math.min(0.9, pose.hurt * 0.9 + (weary > 0.7 ? 0.35 : 0));
  for (const s of [-1, 1]) {
    const x = 50 + s * apart;
    context.fillStyle = "#FBF3E4";
    context.strokeStyle = dark;
    context.lineWidth = 1.5;
    context.beginPath();
    context.ellipse(x, y, size, Math.max(0.8, size * 1.12 * (1 - lid)), 0, 0, Math.PI * 2);
    context.fill();
    context.stroke();
    if (lid < 0.7) {
      context.fillStyle = dark;
      context.beginPath();
      context.arc(x + 1.2, y + 1 + weary * 1.5, size * 0.46, 0, Math.PI * 2);
      context.fill();
      context.fillStyle = "#fff";
      context.beginPath();
      context.arc(x + 2.6, y - 0.6, size * 0.15, 0, Math.PI * 2);
      context.fill();
    }
    // Brows: proud when full, worried when low.
    context.strokeStyle = dark;
    context.lineWidth = 2.2;
    context.beginPath();
    const tilt = (0.5 - weary) * 4 + pose.hurt * 3;
    context.moveTo(x - s * size * 0.9, y - size * 1.55 + s * 0 + tilt * 0.5);
    context.lineTo(x + s * size * 0.9, y - size * 1.55 - tilt * 0.6);
    context.stroke();
  }
  context.strokeStyle = dark;
  context.fillStyle = "#4A1F17";
  context.lineWidth = 2;
  context.beginPath();
  const mouth = y + size * 2;
  if (pose.hurt > 0.25) {
    context.ellipse(50, mouth + 1, 5, 2 + 3 * pose.hurt, 0, 0, Math.PI * 2);
    context.fill();
  } else {
    const bend = weary > 0.6 ? -3.5 : 4;
    context.moveTo(42, mouth);
    context.quadraticCurveTo(50, mouth + bend, 58, mouth);
  }
  context.stroke();
}

let scratch: HTMLCanvasElement | null = null;
/** One's own picture: bare and clay-coloured where the glaze has drained, as it is where it has not. */
function drawPicture(context: CanvasRenderingContext2D, sprite: LoadedSprite, pose: Pose): void {
  const { picture, frameWidth, frameHeight, frames, columns, frameMs } = sprite;
  if (picture === null) return;
  const side = 320;
  scratch ??= document.createElement("canvas");
  scratch.width = scratch.height = side;
  const work = scratch.getContext("2d");
  if (work === null) return;
  const frame = frames > 1 && frameMs > 0 ? Math.floor(pose.nowMs / frameMs) % frames : 0;
  const fit = Math.min(side / frameWidth, side / frameHeight);
  const [w, h] = [frameWidth * fit, frameHeight * fit];
  const stamp = (): void =>
    work.drawImage(
      picture,
      (frame % columns) * frameWidth,
      Math.floor(frame / columns) * frameHeight,
      frameWidth,
      frameHeight,
      (side - w) / 2,
      side - h,
      w,
      h,
    );
  stamp();
  work.globalCompositeOperation = "source-atop";
  work.fillStyle = pose.clay;
  work.globalAlpha = 0.72;
  work.fillRect(0, 0, side, side);
  work.globalAlpha = 1;
  const level = Math.min(1, Math.max(0, pose.level));
  const from = side - h * level;
  work.save();
  work.beginPath();
  work.rect(0, from, side, side - from);
  work.clip();
  stamp();
  work.restore();
  if (level > 0 && level < 1) {
    work.fillStyle = shade(pose.glaze, 0.4);
    work.fillRect(0, from, side, 3);
  }
  work.scale(side / 100, side / 100);
  drawCracks(work, pose);
  context.drawImage(scratch, 0, 0, 100, 100);
}
