import type { Motion } from "../../core/games/emote-wall/settings";
import { clamp01, shrink as leave, smooth, springTo as spring, squash as ring } from "../../overlay/motion";

/**
 * How an emote moves: a function of its age and its own numbers, never integrated, so that a page that
 * was held back catches up and two pages of one overlay look alike.
 *
 * Lengths are shares of the area's height: y runs 0 (top) to 1, x runs 0 to `aspect`. `r(k)` is the
 * emote's k-th number in [0, 1). The pose is written into `out`; nothing is allocated.
 */
export type Pose = { x: number; y: number; angle: number; scaleX: number; scaleY: number; alpha: number };
export type Life = { lifeS: number; size: number; aspect: number };
export type Numbers = (k: number) => number;

const turn = Math.PI * 2;
const lerp = (a: number, b: number, t: number): number => a + (b - a) * t;

/** A point that runs back and forth between two walls; also how long ago it touched one. */
const folded = { at: 0, sinceS: 0 };
function fold(startAt: number, speed: number, tS: number, low: number, high: number): void {
  const span = Math.max(0.0001, high - low);
  const travelled = startAt - low + speed * tS;
  const phase = ((travelled % (2 * span)) + 2 * span) % (2 * span);
  folded.at = low + (phase <= span ? phase : 2 * span - phase);
  const pastWall = speed >= 0 ? phase % span : span - (phase % span);
  const since = pastWall / Math.max(0.0001, Math.abs(speed));
  folded.sinceS = since <= tS ? since : -1;
}

function drift(tS: number, { lifeS, size, aspect }: Life, r: Numbers, out: Pose): void {
  const u = clamp01(tS / lifeS);
  const sway = (0.025 + 0.05 * r(1)) * Math.min(1, tS);
  const pace = (0.9 + 0.9 * r(2)) * (turn / 4);
  const phase = r(3) * turn;
  const swing = Math.sin(pace * tS + phase);
  out.x = lerp(size * 0.6, Math.max(size * 0.6, aspect - size * 0.6), r(0)) + sway * swing;
  // Slow off the floor, then steady: a bubble that lets go.
  out.y = lerp(1 - size * 0.55, size * 0.55, u * (0.55 + 0.45 * smooth(Math.min(1, u * 1.6))) ** 0.5);
  out.angle = 0.3 * Math.cos(pace * tS + phase) * (r(4) < 0.5 ? 1 : -1);
  const breath = 0.05 * Math.sin(tS * 5.2 + phase);
  const grown = spring(tS) * leave(lifeS - tS, 0.32);
  out.scaleX = grown * (1 + breath);
  out.scaleY = grown * (1 - breath);
  out.alpha = 1;
}

function pop(tS: number, { lifeS, size, aspect }: Life, r: Numbers, out: Pose): void {
  const left = lifeS - tS;
  const sink = clamp01(1 - left / 0.4);
  out.x = lerp(size * 0.7, Math.max(size * 0.7, aspect - size * 0.7), r(0));
  out.y = lerp(size * 0.7, Math.max(size * 0.7, 1 - size * 0.7), r(1)) + size * 0.35 * sink * sink;
  const lean = (r(2) - 0.5) * 0.5;
  out.angle = lean + 0.14 * Math.sin(tS * (2.2 + r(3))) * (1 - sink) + 0.5 * Math.exp(-4 * tS) * Math.sin(14 * tS) * (r(4) < 0.5 ? 1 : -1);
  const squash = ring(tS - 0.08, 0.24);
  const grown = spring(tS, 17, 7) * leave(left, 0.4);
  out.scaleX = grown * (1 + squash);
  out.scaleY = grown * (1 - squash);
  out.alpha = 1;
}

function ricochet(tS: number, { lifeS, size, aspect }: Life, r: Numbers, out: Pose): void {
  const heading = (r(2) < 0.5 ? 0 : Math.PI) + (0.25 + 0.5 * r(3)) * (r(4) < 0.5 ? 1 : -1) * (Math.PI / 2);
  const speed = 0.38 + 0.3 * r(5);
  const edge = size * 0.5;
  const x0 = lerp(edge, Math.max(edge, aspect - edge), r(0));
  const y0 = lerp(edge, Math.max(edge, 1 - edge), r(1));
  fold(x0, Math.cos(heading) * speed, tS, edge, Math.max(edge + 0.001, aspect - edge));
  out.x = folded.at;
  const flatX = ring(folded.sinceS, 0.26);
  fold(y0, Math.sin(heading) * speed, tS, edge, Math.max(edge + 0.001, 1 - edge));
  out.y = folded.at;
  const flatY = ring(folded.sinceS, 0.26);
  // Rolls the way it goes, so that it turns round at every wall.
  out.angle = ((out.x - x0) / Math.max(0.05, size)) * 0.9;
  const grown = spring(tS) * leave(lifeS - tS, 0.35);
  out.scaleX = grown * (1 - flatX + flatY);
  out.scaleY = grown * (1 + flatX - flatY);
  out.alpha = 1;
}

function rain(tS: number, { lifeS, size, aspect }: Life, r: Numbers, out: Pose): void {
  const fallS = Math.min(lifeS * 0.6, 0.9 + 0.9 * r(1));
  const floor = 1 - size * 0.5;
  const top = -size * 0.6;
  const wind = (r(2) - 0.5) * 0.08;
  out.x = lerp(size * 0.6, Math.max(size * 0.6, aspect - size * 0.6), r(0)) + wind * Math.min(tS, fallS + 0.6);
  const spin = (r(3) - 0.5) * 2.4;
  let flat = 0;
  if (tS <= fallS) {
    const u = tS / fallS;
    out.y = lerp(top, floor, u * (0.35 + 0.65 * u));
    // Drawn out by its own speed.
    flat = -0.14 * u;
    out.angle = spin * tS;
  } else {
    // Three bounces, each two fifths as high as the one before.
    let since = tS - fallS;
    let spanS = Math.min(0.5, lifeS * 0.14);
    let high = 0.17;
    for (let k = 0; k < 3 && since > spanS; k += 1) {
      since -= spanS;
      spanS *= 0.63;
      high *= 0.4;
    }
    const u = since / spanS;
    const landed = since > spanS;
    out.y = landed ? floor : floor - high * 4 * u * (1 - u);
    flat = ring(landed ? since - spanS : since, 0.5 * Math.sqrt(high / 0.17));
    const settle = Math.exp(-2.2 * (tS - fallS));
    out.angle = spin * fallS * settle;
  }
  const left = lifeS - tS;
  const splash = clamp01(1 - left / 0.35);
  out.scaleX = (1 + flat) * (1 + 0.7 * splash);
  out.scaleY = (1 - flat) * (1 - 0.92 * smooth(splash));
  out.y += size * 0.46 * smooth(splash);
  out.alpha = 1 - smooth(splash);
}

function spout(tS: number, { lifeS, size, aspect }: Life, r: Numbers, out: Pose): void {
  const flights = Math.max(1, Math.round(lifeS / (1.7 + 0.6 * r(7))));
  const flightS = lifeS / flights;
  const n = Math.min(flights - 1, Math.floor(tS / flightS));
  const since = tS - n * flightS;
  const own = (k: number): number => {
    const v = r(k) + n * 0.381966;
    return v - Math.floor(v);
  };
  const high = 0.55 + 0.4 * own(1);
  const from = 1 + size * 0.55;
  const rise = (4 * high) / flightS;
  const pull = (2 * rise) / flightS;
  out.x = aspect * (0.5 + (own(2) - 0.5) * 0.1) + (own(0) - 0.5) * aspect * 0.8 * (since / flightS);
  out.y = from - (rise * since - 0.5 * pull * since * since);
  const speed = (rise - pull * since) / rise;
  const drawn = 0.22 * speed * speed;
  out.angle = (own(3) - 0.5) * 9 * since * (0.4 + 0.6 * (since / flightS));
  out.scaleX = 1 - drawn * 0.6;
  out.scaleY = 1 + drawn * 0.4;
  out.alpha = clamp01(Math.min(since / 0.06, (flightS - since) / 0.1));
}

function swirl(tS: number, { lifeS, size, aspect }: Life, r: Numbers, out: Pose): void {
  const u = clamp01(tS / lifeS);
  const way = 1;
  // Like glaze in a turning bowl: fast near the middle, slower as it widens.
  const turned = (1.9 + 0.5 * r(1)) * lifeS ** 0.8 * (1 - (1 - u) ** 1.7) * way;
  const theta = r(0) * turn + turned;
  const reach = (0.35 + 0.65 * r(2)) * u ** 0.62;
  out.x = aspect / 2 + Math.max(0, aspect / 2 - size * 0.6) * reach * Math.cos(theta);
  out.y = 0.5 + Math.max(0, 0.5 - size * 0.6) * reach * Math.sin(theta);
  out.angle = 0.5 * Math.sin(theta + r(3));
  const near = 0.82 + 0.18 * Math.sin(theta);
  const grown = spring(tS, 12, 6) * near * leave(lifeS - tS, 0.4);
  out.scaleX = grown;
  out.scaleY = grown;
  out.alpha = 1;
}

/** For who asked for less motion: it stands still, comes and goes softly. */
function still(tS: number, { lifeS, size, aspect }: Life, r: Numbers, out: Pose): void {
  out.x = lerp(size * 0.6, Math.max(size * 0.6, aspect - size * 0.6), r(0));
  out.y = lerp(size * 0.6, Math.max(size * 0.6, 1 - size * 0.6), r(1));
  out.angle = 0;
  out.scaleX = out.scaleY = 1;
  out.alpha = clamp01(Math.min(tS / 0.3, (lifeS - tS) / 0.3));
}

/** What piles up is reckoned by the physics, not from its age. */
export type Moves = Exclude<Motion, "pile"> | "still";
export const moves: Readonly<Record<Moves, (tS: number, life: Life, r: Numbers, out: Pose) => void>> = {
  drift,
  pop,
  ricochet,
  rain,
  spout,
  swirl,
  still,
};
