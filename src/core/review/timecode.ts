/**
 * Timecode as editors count it (SMPTE ST 12-1). `num`/`den` are the frames of a second; `nominal` those that the counter
 * counts to a second. Drop-frame leaves out the first numbers of every minute but each tenth, so that the counter stays with
 * the clock: no frame is lost, only its number.
 */
export const frameRates = [
  { id: "23.976", words: "23.976", num: 24_000, den: 1_001, nominal: 24, drop: 0 },
  { id: "24", words: "24", num: 24, den: 1, nominal: 24, drop: 0 },
  { id: "25", words: "25", num: 25, den: 1, nominal: 25, drop: 0 },
  { id: "29.97", words: "29.97, drop-frame", num: 30_000, den: 1_001, nominal: 30, drop: 2 },
  { id: "29.97n", words: "29.97, non-drop", num: 30_000, den: 1_001, nominal: 30, drop: 0 },
  { id: "30", words: "30", num: 30, den: 1, nominal: 30, drop: 0 },
  { id: "50", words: "50", num: 50, den: 1, nominal: 50, drop: 0 },
  { id: "59.94", words: "59.94, drop-frame", num: 60_000, den: 1_001, nominal: 60, drop: 4 },
  { id: "60", words: "60", num: 60, den: 1, nominal: 60, drop: 0 },
] as const;
export type FrameRate = (typeof frameRates)[number];
export type FrameRateId = FrameRate["id"];
export const frameRateIds = frameRates.map((r) => r.id) as [FrameRateId, ...FrameRateId[]];
export const frameRateOf = (id: FrameRateId): FrameRate => frameRates.find((r) => r.id === id) ?? frameRates[2];

/** The frame that is shown at this time, milliseconds from the first one: none is shown before it begins. */
export const frameAt = (ms: number, { num, den }: FrameRate): number => Math.max(0, Math.floor((ms * num) / (den * 1_000) + 1e-6));
/** When a frame begins, milliseconds. */
export const msOfFrame = (frame: number, { num, den }: FrameRate): number => (frame * den * 1_000) / num;

const two = (n: number): string => String(n).padStart(2, "0");
/** The number on the counter for a frame; a day of frames later it begins again. */
export function timecode(frame: number, { nominal, drop }: FrameRate): string {
  let n = frame;
  if (drop > 0) {
    const tenMinutes = nominal * 600 - drop * 9;
    const minute = nominal * 60 - drop;
    const [tens, rest] = [Math.floor(frame / tenMinutes), frame % tenMinutes];
    // The first minute of ten is whole; each after it misses its first numbers.
    n += drop * 9 * tens + (rest < drop ? 0 : drop * Math.floor((rest - drop) / minute));
  }
  const seconds = Math.floor(n / nominal);
  const head = [Math.floor(seconds / 3_600) % 24, Math.floor(seconds / 60) % 60, seconds % 60].map(two).join(":");
  return `${head}${drop > 0 ? ";" : ":"}${two(n % nominal)}`;
}
/** The frame of a number on the counter; null for one that is none, or that drop-frame leaves out. */
export function frameOf(code: string, { nominal, drop }: FrameRate): number | null {
  const parts = /^(\d{2}):(\d{2}):(\d{2})[:;](\d{2})$/.exec(code);
  if (parts === null) return null;
  const [h = 0, m = 0, s = 0, f = 0] = parts.slice(1).map(Number);
  if (m > 59 || s > 59 || f >= nominal) return null;
  if (drop > 0 && s === 0 && f < drop && m % 10 !== 0) return null;
  const minutes = h * 60 + m;
  return (minutes * 60 + s) * nominal + f - drop * (minutes - Math.floor(minutes / 10));
}
