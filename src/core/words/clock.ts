const two = (n: number): string => String(n).padStart(2, "0");

/** A length of time as a clock shows it: 1:02:33. */
export function clockOf(ms: number): string {
  const s = Math.max(0, Math.floor(ms / 1_000));
  return `${Math.floor(s / 3_600)}:${two(Math.floor((s % 3_600) / 60))}:${two(s % 60)}`;
}
