/**
 * How often an animation flashes, by WCAG 2.3.1: a flash is a pair of opposing changes of relative
 * luminance by a tenth or more where the darker state is below 0.80, or of a saturated red. Counted per
 * pixel over one loop; what at least a quarter of the visible pixels do is what the animation does.
 */
export type Frame = Readonly<{ width: number; height: number; rgba: Uint8Array }>;

const leastChange = 0.1;
const darkBelow = 0.8;
const quarter = 0.25;
/** At most this many flashes within any second are allowed. */
export const mostFlashesPerSecond = 3;

const linear = Array.from({ length: 256 }, (_, v) => (v <= 10 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4));
const part = (value: number, alpha: number): number => (linear[value] ?? 0) * (alpha / 255);

/** Opposing changes of one value over a loop that begins again where it ended. */
function turns(values: readonly number[], counts: (low: number, high: number) => boolean): number {
  let changes = 0;
  let rising: boolean | null = null;
  let extreme = values[0] ?? 0;
  // Twice around, counting the second time only: the first finds where the loop stands.
  for (let i = 1; i <= values.length * 2; i += 1) {
    const value = values[i % values.length] ?? 0;
    if (rising !== null && (rising ? value > extreme : value < extreme)) extreme = value;
    else if (counts(Math.min(value, extreme), Math.max(value, extreme))) {
      rising = value > extreme;
      extreme = value;
      if (i > values.length) changes += 1;
    }
  }
  return changes;
}

/** Flashes in one loop of the animation; all frames have one size. */
export function flashesPerLoop(frames: readonly Frame[]): number {
  const first = frames[0];
  if (first === undefined || frames.length < 2) return 0;
  const found: number[] = [];
  for (let p = 0; p < first.width * first.height; p += 1) {
    if (!frames.some((f) => (f.rgba[p * 4 + 3] ?? 0) > 24)) continue;
    const light: number[] = [];
    const red: number[] = [];
    for (const { rgba } of frames) {
      const alpha = rgba[p * 4 + 3] ?? 0;
      const r = part(rgba[p * 4] ?? 0, alpha);
      const g = part(rgba[p * 4 + 1] ?? 0, alpha);
      const b = part(rgba[p * 4 + 2] ?? 0, alpha);
      light.push(0.2126 * r + 0.7152 * g + 0.0722 * b);
      // Saturated red: R / (R + G + B) of 0.8 or more; its strength as WCAG weighs it.
      red.push(r + g + b > 0 && r / (r + g + b) >= 0.8 ? Math.max(0, (r - g - b) * 320) : 0);
    }
    const general = turns(light, (low, high) => high - low >= leastChange && low < darkBelow);
    const saturated = turns(red, (low, high) => high - low > 20);
    found.push(Math.max(general, saturated) / 2);
  }
  if (found.length === 0) return 0;
  found.sort((a, b) => b - a);
  return found[Math.max(0, Math.ceil(found.length * quarter) - 1)] ?? 0;
}

/** The shortest time per frame, in milliseconds, at which the animation stays within the limit. */
export function safeFrameMs(frames: readonly Frame[], frameMs: number): number {
  const flashes = flashesPerLoop(frames);
  const leastLoopMs = (flashes / mostFlashesPerSecond) * 1000;
  return Math.max(frameMs, Math.ceil(leastLoopMs / Math.max(1, frames.length)));
}
