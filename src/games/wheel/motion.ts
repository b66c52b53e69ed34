import { unitAt } from "../../core/kernel/chance";
import { smooth } from "../../overlay/motion";
import { type Arc, turn } from "../../core/games/wheel/settings";

/**
 * How a wheel turns: a heavy thing on a good bearing. It is drawn back a little, thrown, and runs down by
 * `ω' = −(c + kω)`, whose closed form is solved for the exact angle at which it rests. A function of time and seed
 * alone, so that a page that was held back catches up and two pages look alike. Angles are turns, times seconds.
 */
export type Turning = Readonly<{ from: number; to: number; seconds: number; seed: number }>;
/** How far the run is bent: 0 would be even braking, more a longer crawl at its end. */
const bend = 2.4;
const q = Math.exp(-bend) / (1 - Math.exp(-bend));
/** A spin of so many turns a second at its fastest, about. */
const fastest = 1.35;

type Plan = Readonly<{ backS: number; back: number; throwS: number; runS: number; speed: number; start: number; end: number }>;
const plans = new WeakMap<Turning, Plan>();
function planOf(t: Turning): Plan {
  let plan = plans.get(t);
  if (plan !== undefined) return plan;
  const backS = Math.min(0.7, t.seconds * 0.1);
  const throwS = Math.min(0.35, t.seconds * 0.06);
  const runS = t.seconds - backS - throwS;
  const back = 0.018 + 0.012 * unitAt(t.seed, 11);
  // What a run of this length covers at a speed of one; the throw covers half its time at that speed.
  const covers = runS * (1 / bend - q) + throwS / 2;
  const wish = fastest * (0.9 + 0.2 * unitAt(t.seed, 12)) * covers;
  const least = (((t.to - t.from) % 1) + 1) % 1;
  const end = t.from + least + Math.max(1, Math.round(wish - least));
  const start = t.from - back;
  plan = { backS, back, throwS, runS, speed: (end - start) / covers, start, end };
  plans.set(t, plan);
  return plan;
}

/** How far it is turned `atS` after its beginning; at its end exactly where it was to rest (and whole turns). */
export function turnedAt(t: Turning, atS: number): number {
  const { backS, back, throwS, runS, speed, start, end } = planOf(t);
  if (atS <= 0) return t.from;
  if (atS >= t.seconds) return end;
  if (atS < backS) return t.from - back * smooth(atS / backS);
  const thrown = atS - backS;
  if (thrown < throwS) return start + (speed * thrown * thrown) / (2 * throwS);
  const s = thrown - throwS;
  const k = bend / runS;
  return start + (speed * throwS) / 2 + (speed * (1 + q) * (1 - Math.exp(-k * s))) / k - speed * q * s;
}

/** Pegs on the rim, in turns from the wheel's own top: one at each border of segments, and more where those are far apart. */
export function pegsOf(arcs: readonly Arc[]): readonly number[] {
  if (arcs.length === 0 || arcs.length > 48) return Array.from({ length: 48 }, (_, i) => i / 48);
  return arcs.flatMap(({ from, to }) => {
    const length = (to - from) / turn;
    const parts = Math.max(1, Math.round(length * 14));
    return Array.from({ length: parts }, (_, i) => from / turn + (length * i) / parts);
  });
}

export type Knock = Readonly<{ atS: number; speed: number }>;
/** When the pointer slips off each peg, and how fast the wheel turned then. */
export function knocksOf(t: Turning, pegs: readonly number[], pointer: number): readonly Knock[] {
  const { backS, start, end } = planOf(t);
  const times: Knock[] = [];
  for (const peg of pegs)
    // Turned by pointer − peg, and whole turns, that peg is under the pointer.
    for (let at = Math.ceil(start - (pointer - peg)) + (pointer - peg); at < end; at += 1) {
      if (at <= start) continue;
      let [low, high] = [backS, t.seconds];
      for (let i = 0; i < 30; i += 1) {
        const middle = (low + high) / 2;
        if (turnedAt(t, middle) < at) low = middle;
        else high = middle;
      }
      times.push({ atS: high, speed: (turnedAt(t, high + 0.01) - turnedAt(t, high - 0.01)) / 0.02 });
    }
  return times.sort((a, b) => a.atS - b.atS);
}

/** Before a peg lets go, the pointer leans with it over so much of a turn. */
const contact = 0.012;
/** How far the peg that comes next pushes the pointer, 0 to 1: at rest too, when the wheel stops just short of letting go. */
export function pushAt(turned: number, pegs: readonly number[], pointer: number): number {
  let nearest = 1;
  for (const peg of pegs) {
    const left = (((pointer - peg - turned) % 1) + 1) % 1;
    if (left < nearest) nearest = left;
  }
  return Math.max(0, 1 - nearest / contact);
}
/** How far it still rings from the last peg that let go: one-sided, as a strip of wood against a stop. */
export function ringAt(knocks: readonly Knock[], atS: number): number {
  const gone = knocks[firstAfter(knocks, atS) - 1];
  if (gone === undefined) return 0;
  const since = atS - gone.atS;
  const ring = Math.exp(-13 * since) * Math.cos(34 * since);
  return ring < 0 ? -ring * 0.25 : ring;
}
function firstAfter(knocks: readonly Knock[], atS: number): number {
  let [low, high] = [0, knocks.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((knocks[middle]?.atS ?? 0) <= atS) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** A breath of rocking where it has come to rest: it ends in nothing. */
export const rock = (sinceS: number): number => (sinceS <= 0 || sinceS > 1.2 ? 0 : 0.0016 * Math.exp(-5 * sinceS) * Math.sin(16 * sinceS));
