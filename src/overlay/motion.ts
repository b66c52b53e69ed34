import type { entrances, exits } from "../core/alerts/alert";
import { lookNow } from "./dress";

/**
 * How things move on an overlay: one small vocabulary, so that all games move alike, in the temper of the look. Functions of
 * time alone, never integrated: a page that was held back catches up, and two pages look alike. Each word stands on the page
 * "How things move" with a picture of it.
 */
export const clamp01 = (u: number): number => (u < 0 ? 0 : u > 1 ? 1 : u);
/** Slow, fast, slow: 0 → 1 over `u` from 0 to 1. */
export const smooth = (u: number): number => u * u * (3 - 2 * u);
/** The same, still before and after. */
export const ease = (u: number): number => smooth(clamp01(u));

/** Draws back a little before it goes: 0 → 1, below 0 at first. */
export function anticipate(u: number, back = 0.12): number {
  const t = clamp01(u);
  return t < 0.3 ? -back * Math.sin((t / 0.3) * Math.PI * 0.5) : -back + (1 + back) * ease((t - 0.3) / 0.7);
}
/** Goes beyond where it is to rest and comes back, as far as the look has it: 0 → 1 over about `span`. */
export function settle(since: number, span: number): number {
  const { overshoot: c, pace } = lookNow();
  const u = clamp01(since / (span * pace));
  return 1 + (c + 1) * (u - 1) ** 3 + c * (u - 1) ** 2;
}
/** A damped spring from rest: 0 → 1, ringing out around it. */
export const springTo = (tS: number, stiffness = 15, damping = 6.5): number =>
  tS <= 0 ? 0 : 1 - Math.exp(-damping * tS) * Math.cos(stiffness * tS);
/** A spring that was struck: from 0 out and back to 0, ringing. */
export const springBack = (tS: number, damping = 5.5, stiffness = 17): number =>
  tS <= 0 ? 0 : Math.exp(-damping * tS) * Math.sin(stiffness * tS);
/** Flattened by a blow and ringing out: positive is flat. */
export const squash = (sinceS: number, strength: number): number =>
  sinceS < 0 ? 0 : strength * Math.exp(-8 * sinceS) * Math.cos(26 * sinceS);
/** What hangs on something follows it late: the share of a move that it still lags behind. */
export const follow = (tS: number, weight = 1): number => (tS <= 0 ? 0 : Math.exp((-4.5 / weight) * tS) * Math.cos((9 / weight) * tS));
/** Swells a little before it shrinks to nothing, over the last `spanS`. */
export function shrink(leftS: number, spanS: number): number {
  if (leftS >= spanS) return 1;
  const u = clamp01(1 - leftS / spanS);
  return u < 0.35 ? 1 + 0.16 * smooth(u / 0.35) : 1.16 * (1 - smooth((u - 0.35) / 0.65));
}

/** Where something stands beside where it is to be: in shares of its own height, radians, sizes. */
export type Pose = Readonly<{ x: number; y: number; angle: number; width: number; height: number; alpha: number }>;
const at = (part: Partial<Pose>): Pose => ({ x: 0, y: 0, angle: 0, width: 1, height: 1, alpha: 1, ...part });
export type Entrance = (typeof entrances)[number];
export type Exit = (typeof exits)[number];
export const entranceMs: Readonly<Record<Entrance, number>> = { spring: 520, slide: 560, fade: 260, drop: 720, rise: 620, turn: 560 };
export const exitMs: Readonly<Record<Exit, number>> = { shrink: 340, sink: 420, fly: 460, fade: 260 };

/** The ways to come in, by name; `u` from 0 to 1. For who asked for less motion all of them fade. */
export function enter(name: Entrance, u: number, still = false): Pose {
  const soft = at({ alpha: ease(u * 1.4) });
  if (still) return soft;
  const seen = clamp01(u * 5);
  switch (name) {
    case "fade":
      return soft;
    case "spring": {
      const s = 0.2 + 0.8 * settle(u, 0.86);
      return at({ width: s, height: s, alpha: seen });
    }
    case "slide": {
      const gone = 1 - settle(u, 0.9);
      return at({ x: -2.4 * gone, angle: -0.14 * gone, alpha: seen });
    }
    case "drop": {
      // Falls, lands, and is flattened for a moment.
      const landing = 0.46;
      const flat = u < landing ? -0.1 * (u / landing) : squash((u - landing) * 0.9, 0.3 * Math.min(1.4, 0.3 + lookNow().overshoot / 2));
      const y = u < landing ? -2.2 * (1 - (u / landing) ** 2) : 0;
      return at({ y: y + flat * 0.5, width: 1 + flat, height: 1 - flat, alpha: clamp01(u * 8) });
    }
    case "rise": {
      const up = anticipate(u, 0.08 * Math.min(1.5, lookNow().overshoot));
      return at({ y: 1.5 * (1 - up), height: u < 0.3 ? 1 - 0.12 * Math.sin((u / 0.3) * Math.PI) : 1, alpha: clamp01(u * 4) });
    }
    case "turn": {
      const s = settle(u, 0.9);
      return at({ width: Math.max(0.02, Math.abs(s)), angle: (1 - s) * 0.5, alpha: seen });
    }
  }
}
/** The ways to go, by name; `u` from 0 to 1. */
export function exit(name: Exit, u: number, still = false): Pose {
  const soft = at({ alpha: 1 - ease(u) });
  if (still) return soft;
  switch (name) {
    case "fade":
      return soft;
    case "shrink": {
      const s = shrink(1 - u, 1);
      return at({ width: s, height: s, alpha: 1 - ease((u - 0.5) * 2) });
    }
    case "sink":
      return at({ y: 1.1 * anticipate(u, 0.1), alpha: 1 - ease((u - 0.35) / 0.65) });
    case "fly": {
      const go = anticipate(u, 0.1);
      return at({ x: 2.6 * go, angle: 0.3 * go, alpha: 1 - ease((u - 0.6) / 0.4) });
    }
  }
}

const frames = 24;
/** The same as a style sheet has it, around a place of its own: for what is an element and no picture. */
export function keyframes(id: string, pose: (u: number) => Pose): string {
  const steps = Array.from({ length: frames + 1 }, (_, i) => {
    const p = pose(i / frames);
    const moved = `translate(calc(-50% + ${(p.x * 100).toFixed(1)}%),calc(-50% + ${(p.y * 100).toFixed(1)}%)) rotate(${p.angle.toFixed(3)}rad) scale(${p.width.toFixed(3)},${p.height.toFixed(3)})`;
    return `${((i / frames) * 100).toFixed(1)}%{transform:${moved};opacity:${p.alpha.toFixed(3)}}`;
  });
  return `@keyframes ${id}{${steps.join("")}}`;
}
