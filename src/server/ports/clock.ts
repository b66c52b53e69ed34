/** Time comes in by this port, so that tests can hold it still. Milliseconds, UTC. */
export type Clock = Readonly<{
  now: () => number;
  /** The computer's own clock, as it is set: what others sign by. Left out where it is the same. */
  wall?: () => number;
  /** How far it runs ahead of the computer's own clock because that was set back; 0 usually. */
  aheadMs?: () => number;
  /** Does something in so many of its milliseconds, unless it is called off: a rehearsal's clock stands, or runs fast. By the computer's timers when left out. */
  after?: (ms: number, work: () => void) => () => void;
}>;

/** Does something by a clock, in at least a millisecond of it; calls it off when asked. Nothing is kept alive by it. */
export function later(clock: Pick<Clock, "after">, ms: number, work: () => void): () => void {
  if (clock.after !== undefined) return clock.after(ms, work);
  const timer = setTimeout(work, ms);
  timer.unref();
  return () => clearTimeout(timer);
}

/**
 * The computer's clock, but never backwards: when that is set back, time here runs on from where it was,
 * so that a cooldown of ten seconds stays one of ten and the log keeps its order. When it is set forward
 * again, what was added is given back. A leap forward is believed: a laptop that slept did lose that time.
 */
export function steadyClock(wall: () => number = Date.now, steady: () => number = () => performance.now()): Clock {
  let offset = 0;
  let last = wall();
  let lastSteady = steady();
  const now = (): number => {
    const at = steady();
    const expected = last + (at - lastSteady);
    const leap = wall() + offset - expected;
    if (leap < -1_000) offset -= leap;
    else if (leap > 1_000 && offset > 0) offset -= Math.min(offset, leap);
    last = Math.max(last, Math.round(wall() + offset));
    lastSteady = at;
    return last;
  };
  return { now, wall, aheadMs: () => Math.round(offset) };
}
export const systemClock: Clock = steadyClock();
