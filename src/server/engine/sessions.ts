import { LRUCache } from "lru-cache";
import type { EngineStore } from "../ports/engine-store";

type Session = NonNullable<Awaited<ReturnType<EngineStore["session"]>>>;
const keptMs = 3_600_000;
const mostKept = 1_000;
/** So long the database is waited for, when who it is was known a moment ago: hush must not wait for one that hangs. */
const patienceMs = 300;

/**
 * Who holds a session. While the database is away, who was known within the last hour still is: an
 * operator whose page reconnects just then must see that it is away, and be able to hush, at once.
 */
export function rememberedSessions(
  store: EngineStore,
  now: () => number = Date.now,
): Readonly<{ of: (tokenHash: string) => Promise<Session | null>; recheck: () => Promise<void> }> {
  const known = new LRUCache<string, Readonly<{ session: Session; untilMs: number }>>({ max: mostKept });
  return {
    of: async (tokenHash) => {
      const look = async (): Promise<Session | null> => {
        const session = await store.session(tokenHash, now());
        if (session === null) known.delete(tokenHash);
        else known.set(tokenHash, { session, untilMs: now() + keptMs });
        return session;
      };
      const kept = known.get(tokenHash);
      if (kept === undefined || kept.untilMs <= now()) return look();
      let late: NodeJS.Timeout | undefined;
      const impatient = new Promise<Session>((resolve) => (late = setTimeout(() => resolve(kept.session), patienceMs)));
      return Promise.race([look().catch(() => kept.session), impatient]).finally(() => clearTimeout(late));
    },
    /** Sessions ended somewhere: those that did are known no longer, should the database be away later. */
    recheck: async () => {
      for (const hash of [...known.keys()])
        try {
          if ((await store.session(hash, now())) === null) known.delete(hash);
        } catch {
          return;
        }
    },
  };
}
