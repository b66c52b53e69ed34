import { z } from "zod";

/**
 * The hashes that this browser saw while a round ran, by the round's name. The page of a finished round compares its
 * proof with them: nobody can show it another round than the one that it watched.
 */
const key = "izzam.seen-hashes";
const [mostRounds, mostHashes] = [20, 60];
const storedSchema = z.array(z.tuple([z.string(), z.array(z.string().regex(/^[0-9a-f]{64}$/))]));
type Stored = z.infer<typeof storedSchema>;

function stored(): Stored {
  try {
    return storedSchema.safeParse(JSON.parse(localStorage.getItem(key) ?? "[]")).data ?? [];
  } catch {
    return [];
  }
}

/** Keeps what is new; a browser without storage keeps nothing. */
export function noteSeen(round: string, hashes: readonly string[]): void {
  const all = stored();
  const before = all.find(([name]) => name === round)?.[1] ?? [];
  const fresh = hashes.filter((h) => h !== "" && !before.includes(h));
  if (round === "" || fresh.length === 0) return;
  // The promise stays, however many links come after it.
  const [promise, ...links] = [...before, ...fresh];
  const kept = [promise, ...links.slice(1 - mostHashes)].filter((h) => h !== undefined);
  try {
    localStorage.setItem(key, JSON.stringify([[round, kept], ...all.filter(([name]) => name !== round)].slice(0, mostRounds)));
  } catch {
    // It is full or forbidden: a viewer may still note a hash by hand.
  }
}
export const seenOf = (round: string): readonly string[] => stored().find(([name]) => name === round)?.[1] ?? [];
