import { byCodeUnits } from "../../kernel/fold";
import { emptyRolling, type Rolling } from "../../kernel/rolling";

/** What the wall remembers between messages and may lose in a crash. */
export type WallTransient = Readonly<{
  /** Copies seen per emote, since the last combo of it. */
  combos: Rolling;
  /** Emotes shown per viewer. */
  viewers: Rolling;
  /** How often each emote was written, by ten-second bucket, for flocks of those used most. */
  usage: Usage;
}>;
type Buckets = Readonly<Record<string, Readonly<Record<string, number>>>>;
type Written = Readonly<{ at: number; keys: readonly string[] }>;
/** The last few messages are kept as they are and counted together: counting each would copy a bucket each time. */
export type Usage = Readonly<{ buckets: Buckets; fresh: readonly Written[] }>;

export const freshWallTransient = (): WallTransient => ({ combos: emptyRolling, viewers: emptyRolling, usage: { buckets: {}, fresh: [] } });

const bucketMs = 10_000;
const keptBuckets = 60;
const mostKeysPerBucket = 500;
const bucketAt = (atMs: number): number => Math.floor(atMs / bucketMs);

const mostFresh = 48;

export function withUsage(usage: Usage, keys: readonly string[], atMs: number): Usage {
  const fresh = [...usage.fresh, { at: bucketAt(atMs), keys }];
  return fresh.length < mostFresh ? { buckets: usage.buckets, fresh } : { buckets: counted(usage.buckets, fresh), fresh: [] };
}

function counted(buckets: Buckets, fresh: readonly Written[]): Buckets {
  const now = fresh.reduce((latest, written) => Math.max(latest, written.at), 0);
  const next: Record<string, Record<string, number>> = {};
  for (const [name, counts] of Object.entries(buckets)) if (Number(name.slice(1)) > now - keptBuckets) next[name] = counts;
  const copied = new Set<string>();
  for (const { at, keys } of fresh) {
    if (at <= now - keptBuckets) continue;
    const name = `b${at}`;
    if (!copied.has(name)) next[name] = { ...next[name] };
    copied.add(name);
    const bucket = next[name] ?? {};
    let held = Object.keys(bucket).length;
    for (const key of keys) {
      const before = bucket[key];
      if (before === undefined && held >= mostKeysPerBucket) continue;
      if (before === undefined) held += 1;
      bucket[key] = (before ?? 0) + 1;
    }
  }
  return next;
}

/** The emotes written most in the last minutes, most first; ties by key, so that every page agrees. */
export function mostUsed(usage: Usage, nowMs: number, minutes: number, most = 12): readonly string[] {
  const from = bucketAt(nowMs - minutes * 60_000);
  const sums = new Map<string, number>();
  for (const [name, counts] of Object.entries(counted(usage.buckets, usage.fresh))) {
    if (Number(name.slice(1)) <= from) continue;
    for (const [key, count] of Object.entries(counts)) sums.set(key, (sums.get(key) ?? 0) + count);
  }
  return [...sums]
    .sort((a, b) => b[1] - a[1] || byCodeUnits(a[0], b[0]))
    .slice(0, most)
    .map(([key]) => key);
}
