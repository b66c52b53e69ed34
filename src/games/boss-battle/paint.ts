import { paintBar } from "../../overlay/panel";
import { lettering, lookNow } from "../../overlay/dress";
import type { BossView } from "../../core/games/boss-battle/settings";
import { mix32 } from "../../core/kernel/chance";
import { count } from "../../core/words/sentence";
import type { SceneKit } from "../../overlay/scene";
import { shade } from "../../overlay/colour";
import { ease, settle } from "../../overlay/motion";
import { drawFigure } from "./draw";
import { type Blow, fallMs, recoil, shard, type Shard } from "./play";

export type Look = Readonly<{ name: string; figure: string }>;
export type Burst = Readonly<{ atMs: number; seed: number; count: number; power: number; x: number; y: number }>;
export type Word = Readonly<{ atMs: number; text: string; colour: string; side: number }>;
export type Fall = Readonly<{ atMs: number; fallen: Look; next: Look; seed: number }>;
/** All that one picture of the boss depends on. */
export type BossNow = Readonly<{
  view: BossView;
  nowMs: number;
  /** The surface, in its own pixels. */
  width: number;
  height: number;
  /** 0 away, 1 there. */
  there: number;
  /** Height of the whole stage in the surface's pixels: no text is smaller than a share of it. */
  stageHeight: number;
  /** Milliseconds; Infinity while none falls. */
  sinceFall: number;
  fall: Fall | null;
  blows: readonly Blow[];
  bursts: readonly Burst[];
  words: readonly Word[];
  /** Share of health that is shown just now, while it drains. */
  level: number;
  /** Since when it drains, in milliseconds. */
  drainingMs: number;
  /** Full health of the boss that is falling. */
  dyingMax: number;
  still: boolean;
  sprites: SceneKit["sprites"];
}>;

export const drainMs = 650;
export const wordMs = 1_700;
const seedOf = (text: string): number => [...text].reduce((h, c) => mix32(h, c.codePointAt(0) ?? 0), 7);
/** One for all shards of a frame: nothing is made while drawing. */
const one: Shard = { x: 0, y: 0, angle: 0, size: 0, alpha: 0, glazed: false };

/** Draws one moment of the boss on its surface. */
export function paintBoss(context: CanvasRenderingContext2D, now: BossNow): void {
  const { view: v, nowMs, width, height, there, stageHeight, sinceFall, fall, words, still } = now;
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(0, 0, width, height);
  if (there <= 0) return;
  context.globalAlpha = there;
  const { looks } = v;
  // No text on the picture is smaller than 2.2 % of its height.
  const small = Math.max(stageHeight * 0.026, height * 0.042);
  const large = Math.max(stageHeight * 0.034, height * 0.062);
  const nameRoom = looks.name ? large * 1.35 : 0;
  const foot = (looks.band ? small * 1.25 : looks.numbers ? small * 1.3 : 0) + (looks.call === "" ? 0 : small * 1.5);
  const side = looks.figure ? Math.max(10, Math.min(width * 0.92, height - nameRoom - foot - height * 0.04)) : 0;
  const left = (width - side) / 2;
  const top = nameRoom + (height - nameRoom - foot - side) * 0.6;
  if (looks.figure) {
    context.save();
    paintFigure(context, now, left, top, side);
    context.restore();
    paintShards(context, now, left, top, side);
  }
  const look = fall !== null && sinceFall < fallMs.burst ? fall.fallen : (fall?.next ?? { name: v.name, figure: v.figure });
  if (looks.name) paintText(context, look.name, width / 2, large * 0.72, large, looks.text, width * 0.96);
  paintHealth(context, now, top + side + height * 0.02, small);
  if (looks.call !== "") paintText(context, looks.call, width / 2, height - small * 0.75, small, looks.text, width * 0.96);
  words.forEach((word) => {
    const u = (nowMs - word.atMs) / wordMs;
    context.globalAlpha = there * Math.min(1, (1 - u) * 3);
    const rise = still ? 0 : ease(Math.min(1, u * 1.4)) * side * 0.32;
    const size = small * (still ? 1 : 0.9 + 0.25 * settle(u * wordMs, 300));
    // Beside the middle, but never over the edge.
    context.font = lettering(700, size);
    const free = Math.max(0, (width * 0.96 - Math.min(width * 0.94, context.measureText(word.text).width)) / 2);
    const middle = width / 2 + Math.max(-free, Math.min(free, word.side * side * 0.3));
    paintText(context, word.text, middle, top + side * 0.4 - rise, size, word.colour, width * 0.94);
  });
}

function paintFigure(context: CanvasRenderingContext2D, now: BossNow, left: number, top: number, side: number): void {
  const { view: v, nowMs, sinceFall, fall, blows, still, sprites } = now;
  const { looks } = v;
  let look: Look = { name: v.name, figure: v.figure };
  let level = now.level;
  let scaleX = 1;
  let scaleY = 1;
  let dx = 0;
  let dy = 0;
  let lean = 0;
  let cracked = Math.max(0, 1 - Math.max(0, level) * 1.02);
  if (fall !== null && sinceFall < fallMs.full) {
    if (sinceFall < fallMs.burst) {
      look = fall.fallen;
      // Anticipation: it holds its breath, trembles harder and harder, swells.
      const u = sinceFall / fallMs.shake;
      if (!still) {
        dx = Math.sin(sinceFall / 17) * 0.025 * u * u;
        lean = Math.sin(sinceFall / 23) * 0.05 * u;
        scaleX = scaleY = 1 - 0.05 * Math.sin(Math.min(1, u * 2) * Math.PI) + 0.13 * u ** 4;
      }
      level = Math.max(0, level * (1 - u));
      cracked = 0.6 + 0.4 * u;
    } else if (sinceFall < fallMs.enter) return;
    else {
      look = fall.next;
      cracked = 0;
      const drop = (sinceFall - fallMs.enter) / (fallMs.land - fallMs.enter);
      const landed = (sinceFall - fallMs.land) / 1000;
      if (drop < 1) {
        dy = still ? 0 : -(1 - drop * drop) * 1.25;
        scaleX = still ? 1 : 0.94;
        scaleY = still ? 1 : 1.07;
        level = 0;
      } else {
        const ring = still ? 0 : Math.exp(-6 * landed) * Math.cos(20 * landed);
        scaleX = 1 + 0.16 * ring;
        scaleY = 1 - 0.18 * ring;
        level = ease((sinceFall - fallMs.land - 120) / (fallMs.full - fallMs.land - 120)) * (v.max > 0 ? v.health / v.max : 1);
      }
    }
  } else {
    const r = recoil(blows, nowMs);
    dx = r.x;
    dy = r.y;
    lean = r.lean;
    scaleX = 1 + r.squash;
    scaleY = 1 - r.squash * 0.8;
  }
  const last = blows[blows.length - 1];
  const hurt = last === undefined ? 0 : Math.max(0, 1 - (nowMs - last.atMs) / 420) * Math.min(1, last.force + 0.35);
  context.translate(left + side / 2 + dx * side, top + side * 0.96 + dy * side);
  context.rotate(lean);
  context.scale((side / 100) * scaleX, (side / 100) * scaleY);
  context.translate(-50, -96);
  const own = look.figure.startsWith("prop:") ? (sprites.get(sprites.id(look.figure)) ?? null) : null;
  drawFigure(context, look.figure, own, {
    level,
    cracked,
    crackSeed: seedOf(look.name) ^ (v.falls + (fall !== null && sinceFall < fallMs.burst ? -1 : 0)),
    clay: looks.clay,
    glaze: looks.glaze,
    mirrored: looks.mirrored,
    hurt: still ? 0 : hurt,
    sway: still ? 0 : Math.min(1, Math.abs(lean) * 6 + Math.max(0, 1 - now.drainingMs / 900) * 0.5),
    nowMs,
  });
}

function paintShards(
  context: CanvasRenderingContext2D,
  { view: v, bursts, nowMs }: BossNow,
  left: number,
  top: number,
  side: number,
): void {
  for (const burst of bursts) {
    const tS = (nowMs - burst.atMs) / 1000;
    for (let i = 0; i < burst.count; i += 1) {
      if (!shard(burst.seed, i, tS, burst, burst.power, one)) continue;
      context.save();
      context.globalAlpha = Math.max(0, one.alpha);
      context.translate(left + one.x * side, top + one.y * side);
      context.rotate(one.angle);
      const s = one.size * side;
      context.fillStyle = one.glazed ? v.looks.glaze : shade(v.looks.clay, -0.1);
      context.strokeStyle = "#241913";
      context.lineWidth = Math.max(1, side * 0.006);
      context.beginPath();
      context.moveTo(-s, -s * 0.5);
      context.lineTo(s * 0.9, -s * 0.8);
      context.lineTo(s * 0.5, s);
      context.lineTo(-s * 0.7, s * 0.6);
      context.closePath();
      context.fill();
      context.stroke();
      context.restore();
    }
  }
}

function paintHealth(context: CanvasRenderingContext2D, now: BossNow, y: number, small: number): void {
  const { view: v, width, sinceFall, fall, dyingMax } = now;
  const { looks } = v;
  if (!looks.band && !looks.numbers) return;
  const filling = fall !== null && sinceFall >= fallMs.enter;
  const share = filling ? ease((sinceFall - fallMs.land) / 900) * (v.max > 0 ? v.health / v.max : 1) : now.level;
  const max = fall !== null && !filling ? dyingMax : v.max;
  const h = small * 1.15;
  const w = Math.min(width * 0.86, h * 14);
  const x = (width - w) / 2;
  if (looks.band) {
    paintBar(context, x, y, w, h, share, looks.glaze, shade(looks.clay, -0.25));
  }
  if (looks.numbers)
    paintText(context, `${count(Math.round(share * max))} / ${count(max)}`, width / 2, y + h / 2, small * 0.9, looks.text, w);
}

function paintText(
  context: CanvasRenderingContext2D,
  text: string,
  x: number,
  y: number,
  size: number,
  colour: string,
  most: number,
): void {
  context.font = lettering(700, size);
  context.textAlign = "center";
  context.textBaseline = "middle";
  context.lineJoin = "round";
  context.lineWidth = size * lookNow().outline;
  context.strokeStyle = "rgba(16,19,27,.85)";
  context.strokeText(text, x, y, most);
  context.fillStyle = colour;
  context.fillText(text, x, y, most);
}
