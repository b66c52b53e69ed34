/**
 * Reproducible chance for motion, crowds and tests. Never for draws or payouts: those use
 * HMAC-SHA-256 over committed secrets (RULES section 5).
 */
export type Chance = () => number;

/** splitmix32's finaliser: spreads neighbouring integers over the whole 32-bit range. */
export function mix32(a: number, b = 0): number {
  let h = (Math.imul(a ^ 0x9e3779b9, 0x85ebca6b) + Math.imul(b ^ 0x7f4a7c15, 0xc2b2ae35)) | 0;
  h ^= h >>> 16;
  h = Math.imul(h, 0x21f0aaad);
  h ^= h >>> 15;
  h = Math.imul(h, 0x735a2d97);
  h ^= h >>> 15;
  return h >>> 0;
}

/** A generator of numbers in [0, 1) from a 32-bit seed (mulberry32). Same seed, same run. */
export function chanceFrom(seed: number): Chance {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** The `index`-th number in [0, 1) that belongs to `seed`, without walking a generator there. */
export const unitAt = (seed: number, index: number): number => mix32(seed, index) / 4294967296;

/** A whole number in [0, below). */
export const pick = (chance: Chance, below: number): number => Math.floor(chance() * below);

/** The same things in another order (Fisher–Yates); what was given stays as it was. */
export function shuffled<T>(things: readonly T[], chance: Chance): T[] {
  const left = [...things];
  const out: T[] = [];
  while (left.length > 0) out.push(...left.splice(pick(chance, left.length), 1));
  return out;
}
