import { Map as Entries } from "immutable";

/**
 * Counts per key within a rolling time, as an immutable value: what is kept in it costs the same however many there are.
 *
 * Two generations are held. Once the younger is as old as the time, it becomes the elder one and the elder is dropped: nothing
 * in that can count any more, so a long storm of passers-by cannot grow it without end.
 */
export type Stamp = Readonly<{ atMs: number; by: string }>;
type Generation = Entries<string, readonly Stamp[]>;
export type Rolling = Readonly<{ young: Generation; elder: Generation; sinceMs: number }>;

const none: Generation = Entries();
export const emptyRolling: Rolling = { young: none, elder: none, sinceMs: -Infinity };

/** The stamps of `key` younger than `withinMs` at `nowMs`, oldest first. */
export function recent({ young, elder }: Rolling, key: string, nowMs: number, withinMs: number): readonly Stamp[] {
  const all = young.get(key) ?? elder.get(key) ?? [];
  let from = 0;
  while (from < all.length && nowMs - (all[from]?.atMs ?? 0) >= withinMs) from += 1;
  return from === 0 ? all : all.slice(from);
}

/** Replaces the stamps of `key`; an empty list forgets it. */
export function withStamps(rolling: Rolling, key: string, stamps: readonly Stamp[], nowMs: number, withinMs: number): Rolling {
  let { young, elder, sinceMs } = rolling;
  const age = nowMs - sinceMs;
  if (age >= withinMs) {
    // Whatever was written last in the younger is less than twice the time old; what is older than that, all is.
    elder = age >= 2 * withinMs ? none : young;
    young = none;
    sinceMs = nowMs;
  }
  // Empty, it hides what the elder has of it.
  return { young: young.set(key, stamps), elder, sinceMs };
}

/** How many keys are held, for tests and health. */
export const heldKeys = ({ young, elder }: Rolling): number =>
  young.count((s) => s.length > 0) + elder.count((s, key) => s.length > 0 && !young.has(key));
