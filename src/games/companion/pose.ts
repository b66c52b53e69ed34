import { unitAt } from "../../core/kernel/chance";
import { type FigureState, type PartName, partNames } from "../../core/props/figure";
import { clamp01, ease, springBack, squash } from "../../overlay/motion";

/**
 * How a figure holds itself: functions of time alone, so that a page that was held back catches up and two pages look
 * alike. Lengths are hundredths of the figure's side, angles radians, times seconds.
 */
export type PartPose = { x: number; y: number; angle: number; width: number; height: number; alpha: number };
export type Pose = { whole: PartPose; parts: Record<PartName, PartPose> };
export type Moment = Readonly<{
  state: FigureState;
  /** Since it began to do this. */
  sinceS: number;
  /** For what goes on all the while: breath, tail, blinking. */
  clockS: number;
  seed: number;
  /** Where it looks: −1 to 1 to each side. */
  gaze: Readonly<{ x: number; y: number }>;
  /** How far the bar of two beats has gone, 0 to 1. */
  bar: number;
  /** For who asked for less motion: it holds still in what it does. */
  still: boolean;
}>;

const rest = (): PartPose => ({ x: 0, y: 0, angle: 0, width: 1, height: 1, alpha: 1 });
export const emptyPose = (): Pose => ({
  whole: rest(),
  // Made of the list of names itself.
  parts: Object.fromEntries(partNames.map((name) => [name, rest()])) as Record<PartName, PartPose>,
});
const clear = (p: PartPose): void => void Object.assign(p, { x: 0, y: 0, angle: 0, width: 1, height: 1, alpha: 1 });

/** Whether its eyes are shut just now: every few seconds, now and then twice. */
export function blinks(seed: number, clockS: number): boolean {
  const slotS = 4.2;
  const slot = Math.floor(clockS / slotS);
  const at = clockS - slot * slotS - unitAt(seed, slot * 2) * 3.4;
  const twice = unitAt(seed, slot * 2 + 1) < 0.22;
  return (at > 0 && at < 0.13) || (twice && at > 0.27 && at < 0.39);
}
/** How long after it began each thing is in full swing, for who holds still in it. */
const inSwing: Readonly<Record<FigureState, number>> = {
  rest: 0,
  glum: 0,
  merry: 0,
  walk: 0,
  greet: 0.6,
  dance: 0,
  sleep: 2,
  eat: 0.5,
  startle: 0.05,
  cheer: 0.12,
  speak: 0.3,
};

/** Writes the pose of a moment. */
export function strike(out: Pose, moment: Moment): void {
  const { state, seed, still, gaze } = moment;
  const t = still ? inSwing[state] : moment.sinceS;
  const c = still ? 0 : moment.clockS;
  const { whole, parts: p } = out;
  clear(whole);
  for (const name of partNames) clear(p[name]);
  // Breath, and what it does while nothing happens.
  const breath = Math.sin((c * Math.PI * 2) / 3.4);
  whole.height = 1 + 0.012 * breath;
  p.head.y = -0.35 * breath;
  p.tail.angle = 0.11 * Math.sin(c * 1.3) + 0.05 * Math.sin(c * 3.1);
  p.pupils.x = gaze.x * 2.2;
  p.pupils.y = gaze.y * 1.8;
  p.head.angle = gaze.x * 0.06 + 0.02 * Math.sin(c * 0.7);
  const flick = Math.max(0, Math.sin(c * 0.9 + 1) - 0.96) * 8;
  p["ear-left"].angle = -flick;
  p.lids.alpha = !still && blinks(seed, c) ? 1 : 0;
  p["mouth-open"].alpha = 0;
  switch (state) {
    case "rest":
      break;
    case "glum":
      whole.height *= 0.965;
      p.head.y += 3;
      p.head.angle += 0.07;
      p["ear-left"].angle -= 0.4;
      p["ear-right"].angle += 0.4;
      p.tail.angle = 0.3 + 0.03 * Math.sin(c * 0.8);
      p.pupils.y += 1.6;
      p.mouth.height = -0.8;
      break;
    case "merry": {
      const hop = Math.max(0, Math.sin(c * 4.4)) * 1.4;
      whole.y = -hop;
      whole.height += 0.02 * Math.sin(c * 8.8);
      p.tail.angle = 0.32 * Math.sin(c * 5.5);
      p.head.angle += 0.05 * Math.sin(c * 2.2);
      p.mouth.width = 1.2;
      break;
    }
    case "walk": {
      const step = t * Math.PI * 2 * 1.5;
      whole.y = -Math.abs(Math.sin(step)) * 2;
      whole.angle = Math.sin(step) * 0.035;
      whole.width = 1 + 0.02 * Math.cos(step * 2);
      p["leg-left"].angle = Math.sin(step) * 0.42;
      p["leg-right"].angle = -Math.sin(step) * 0.42;
      p["leg-left"].y = -Math.max(0, Math.cos(step)) * 2.4;
      p["leg-right"].y = -Math.max(0, -Math.cos(step)) * 2.4;
      p["arm-left"].angle = -Math.sin(step) * 0.3;
      p["arm-right"].angle = Math.sin(step) * 0.3;
      p.tail.angle = 0.2 * Math.sin(step);
      break;
    }
    case "greet": {
      const up = ease(t / 0.25);
      whole.y = -7 * Math.max(0, springBack(t, 5, 11));
      whole.angle = 0.05 * Math.sin(t * 6.5) * up;
      p["arm-right"].angle = (-2.35 + 0.34 * Math.sin(t * 11)) * up;
      p.head.angle += 0.12 * up;
      p.head.y -= 1.2 * up;
      p["mouth-open"].alpha = t < 0.9 ? 1 : 0;
      p.tail.angle = 0.3 * Math.sin(t * 7);
      break;
    }
    case "dance": {
      const beat = still ? 0.25 : (moment.bar * 2) % 1;
      const side = still ? 0.7 : Math.sin(moment.bar * Math.PI * 2);
      // Down on the beat, up between: squash and stretch.
      const down = Math.exp(-beat * 5);
      whole.height = 1.05 - 0.13 * down;
      whole.width = 0.975 + 0.085 * down;
      whole.x = side * 3.2;
      whole.angle = side * 0.1;
      p.head.angle = -side * 0.16;
      p["arm-left"].angle = 1.2 + 1.1 * side;
      p["arm-right"].angle = -1.2 + 1.1 * side;
      p["leg-left"].y = -Math.max(0, side) * 3;
      p["leg-right"].y = -Math.max(0, -side) * 3;
      p.tail.angle = 0.5 * side;
      p.mouth.width = 1.2;
      break;
    }
    case "sleep": {
      const down = ease(t / 1.1);
      const slow = Math.sin((c * Math.PI * 2) / 5.2);
      whole.height = 1 - 0.13 * down + 0.022 * slow * down;
      whole.width = 1 + 0.06 * down - 0.008 * slow * down;
      p.head.y = 9 * down - 0.6 * slow;
      p.head.angle = 0.16 * down;
      p["ear-left"].angle = -0.15 * down;
      p["ear-right"].angle = 0.15 * down;
      p.tail.angle = 0.45 * down;
      p["arm-left"].height = p["arm-right"].height = 1 - 0.25 * down;
      p.lids.alpha = t > 0.5 ? 1 : t > 0.2 && Math.sin(t * 20) > 0 ? 1 : 0;
      break;
    }
    case "eat": {
      const bite = Math.sin(t * 10);
      p.head.y = 5 + 1.4 * bite;
      p.head.angle = 0.06;
      p["arm-right"].angle = 1.95 + 0.1 * bite;
      p["arm-left"].angle = -1.95 - 0.1 * bite;
      // Bent: shorter, seen from in front.
      p["arm-left"].height = p["arm-right"].height = 0.6;
      p["mouth-open"].alpha = bite > 0 ? 1 : 0;
      whole.height = 1 - 0.015 * (1 + bite);
      p.pupils.y += 1.4;
      break;
    }
    case "startle": {
      const u = clamp01(t / 0.5);
      const jump = 4 * u * (1 - u);
      whole.y = -24 * jump;
      whole.height = t < 0.5 ? 1 + 0.12 * jump : 1 - squash(t - 0.5, 0.2);
      whole.width = 2 - whole.height;
      const wide = 1 - ease((t - 1.1) / 0.4);
      p.eyes.width = p.eyes.height = 1 + 0.24 * wide;
      p.pupils.width = p.pupils.height = 1 - 0.3 * wide;
      p["ear-left"].angle = 0.2 * wide;
      p["ear-right"].angle = -0.2 * wide;
      p["arm-left"].angle = 1.1 * wide;
      p["arm-right"].angle = -1.1 * wide;
      p.tail.angle = -0.7 * wide;
      p["mouth-open"].alpha = wide > 0.3 ? 1 : 0;
      p.lids.alpha = 0;
      break;
    }
    case "cheer": {
      const hop = (t * 2.1) % 1;
      const air = 4 * hop * (1 - hop);
      whole.y = -13 * air;
      whole.height = hop < 0.14 ? 0.88 + (hop / 0.14) * 0.14 : 1 + 0.05 * air;
      whole.width = 2 - whole.height;
      p["arm-left"].angle = 2.5 - 0.3 * Math.sin(t * 15);
      p["arm-right"].angle = -2.5 + 0.3 * Math.sin(t * 15);
      p["mouth-open"].alpha = 1;
      p.tail.angle = 0.4 * Math.sin(t * 12);
      p.head.y -= 1.5;
      break;
    }
    case "speak": {
      const syllable = Math.floor(t * 7);
      p["mouth-open"].alpha = unitAt(seed, syllable) > 0.38 ? 1 : 0;
      p["mouth-open"].height = 0.6 + 0.4 * unitAt(seed, syllable + 9_000);
      p.head.angle += 0.05 * Math.sin(t * 4.3);
      p.head.y += 0.8 * Math.sin(t * 6.1);
      p["arm-left"].angle = 0.25 + 0.2 * Math.sin(t * 3.1);
      break;
    }
  }
  // What speaks, cheers or eats has no shut mouth besides.
  p.mouth.alpha = 1 - p["mouth-open"].alpha;
}

const keys = ["x", "y", "angle", "width", "height", "alpha"] as const;
const mix = (to: PartPose, from: PartPose, share: number): void => {
  for (const key of keys) to[key] = from[key] + (to[key] - from[key]) * share;
};
/** From what it did before into what it does now. What is either there or not changes at once. */
export function blend(to: Pose, from: Pose, share: number): void {
  mix(to.whole, from.whole, share);
  for (const name of partNames) {
    const { alpha } = to.parts[name];
    mix(to.parts[name], from.parts[name], share);
    to.parts[name].alpha = alpha;
  }
}
