/** Where the beats of a sound lie: one every so many milliseconds, the first at so many from its begin. */
export type Beat = Readonly<{ everyMs: number; firstMs: number }>;

const slowestMs = 1_000;
const quickestMs = 330;
/** What most people tap to; between two answers that fit alike, the nearer one is taken. */
const likedMs = 520;

/**
 * The beat of a sound, from its envelope (loudness 0–1, one value every `stepMs`): the lag at which its rises agree best
 * with themselves (autocorrelation of the onsets), and where in it they lie. Null where there is none to be told: too
 * short, too even, or without order.
 */
export function beatOf(envelope: readonly number[], stepMs: number): Beat | null {
  const rises = onsets(envelope);
  const most = Math.round(slowestMs / stepMs);
  const least = Math.max(2, Math.round(quickestMs / stepMs));
  // At least six of the slowest.
  if (rises.length < most * 6) return null;
  const power = rises.reduce((sum, r) => sum + r * r, 0) / rises.length;
  if (power < 1e-7) return null;
  const agreement = (lag: number): number => {
    let sum = 0;
    for (let i = lag; i < rises.length; i += 1) sum += (rises[i] ?? 0) * (rises[i - lag] ?? 0);
    return sum / (rises.length - lag) / power;
  };
  let best = { lag: 0, fit: 0, raw: 0 };
  for (let lag = least; lag <= most; lag += 1) {
    // Half a bar agrees as well as a bar: a tap at the usual pace is preferred, softly.
    const raw = (agreement(lag - 1) + 2 * agreement(lag) + agreement(lag + 1)) / 2;
    const fit = raw * Math.exp(-0.5 * (Math.log2((lag * stepMs) / likedMs) / 0.7) ** 2);
    if (fit > best.fit) best = { lag, fit, raw };
  }
  if (best.raw < 0.35) return null;
  const everySteps = fine(agreement, best.lag);
  return { everyMs: Math.round(everySteps * stepMs), firstMs: Math.round(phase(rises, everySteps) * stepMs) };
}

/** How much it grows louder from step to step, smoothed by its neighbours. */
function onsets(envelope: readonly number[]): number[] {
  const raw = envelope.map((v, i) => Math.max(0, v - (envelope[i - 1] ?? v)));
  const mean = raw.reduce((sum, r) => sum + r, 0) / Math.max(1, raw.length);
  const smoothed = raw.map((r, i) => Math.max(0, 0.25 * (raw[i - 1] ?? 0) + 0.5 * r + 0.25 * (raw[i + 1] ?? 0) - mean));
  // Around zero: otherwise whatever rises at all agrees with itself at every lag.
  const middle = smoothed.reduce((sum, r) => sum + r, 0) / Math.max(1, smoothed.length);
  return smoothed.map((r) => r - middle);
}
/** Between the steps: over several beats the true length shows better than over one. */
function fine(agreement: (lag: number) => number, lag: number): number {
  let best = lag;
  let fit = 0;
  const times = 4;
  for (let long = lag * times - times; long <= lag * times + times; long += 1) {
    const raw = agreement(long);
    if (raw > fit) [fit, best] = [raw, long / times];
  }
  return best;
}
function phase(rises: readonly number[], every: number): number {
  let best = 0;
  let most = -1;
  for (let from = 0; from < every; from += 1) {
    let sum = 0;
    for (let at = from; at < rises.length; at += every) sum += rises[Math.round(at)] ?? 0;
    if (sum > most) [most, best] = [sum, from];
  }
  return best;
}
