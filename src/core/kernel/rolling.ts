/**
 * Counts per key within a rolling time, as an immutable value that survives a JSON round trip.
 *
 * Keys are spread over shards, so that one more event copies one small shard and not a map of every
 * viewer; each change also sweeps one other shard, so what nobody touches any more is dropped in time
 * and a long storm of passers-by cannot grow the state without end.
 */
const shardCount = 256;

export type Stamp = Readonly<{ atMs: number; by: string }>;
type Shard = Readonly<Record<string, readonly Stamp[]>>;
export type Rolling = Readonly<{ shards: Readonly<Record<string, Shard>>; sweep: number }>;

export const emptyRolling: Rolling = { shards: {}, sweep: 0 };

function shardOf(key: string): string {
  let h = 2166136261;
  for (let i = 0; i < key.length; i += 1) h = Math.imul(h ^ key.charCodeAt(i), 16777619);
  // A letter in front keeps keys from looking like numbers, which would change their order.
  return `s${(h >>> 0) % shardCount}`;
}

const own = (shard: Shard | undefined, key: string): readonly Stamp[] =>
  shard !== undefined && Object.hasOwn(shard, key) ? (shard[key] ?? []) : [];

/** The stamps of `key` younger than `withinMs` at `nowMs`, oldest first. */
export function recent(rolling: Rolling, key: string, nowMs: number, withinMs: number): readonly Stamp[] {
  const all = own(rolling.shards[shardOf(key)], key);
  let from = 0;
  while (from < all.length && nowMs - (all[from]?.atMs ?? 0) >= withinMs) from += 1;
  return from === 0 ? all : all.slice(from);
}

/** Defined, not assigned: `__proto__` is a legal key. */
const put = (shard: Record<string, readonly Stamp[]>, key: string, stamps: readonly Stamp[]): void =>
  void Object.defineProperty(shard, key, { value: stamps, enumerable: true, configurable: true, writable: true });

function pruned(shard: Shard, nowMs: number, withinMs: number): Shard {
  const next: Record<string, readonly Stamp[]> = {};
  for (const key of Object.keys(shard)) {
    const stamps = own(shard, key);
    const last = stamps[stamps.length - 1];
    if (last !== undefined && nowMs - last.atMs < withinMs) put(next, key, stamps);
  }
  return next;
}

/** Replaces the stamps of `key`; an empty list forgets it. */
export function withStamps(rolling: Rolling, key: string, stamps: readonly Stamp[], nowMs: number, withinMs: number): Rolling {
  const name = shardOf(key);
  const shard: Record<string, readonly Stamp[]> = { ...rolling.shards[name] };
  if (stamps.length === 0) Reflect.deleteProperty(shard, key);
  else put(shard, key, stamps);
  const shards: Record<string, Shard> = { ...rolling.shards, [name]: shard };
  const swept = `s${rolling.sweep}`;
  const other = shards[swept];
  if (other !== undefined) {
    const kept = pruned(other, nowMs, withinMs);
    if (Object.keys(kept).length === 0) Reflect.deleteProperty(shards, swept);
    else shards[swept] = kept;
  }
  return { shards, sweep: (rolling.sweep + 1) % shardCount };
}

/** How many keys are held, for tests and health. */
export const heldKeys = (rolling: Rolling): number =>
  Object.values(rolling.shards).reduce((sum, shard) => sum + Object.keys(shard).length, 0);
