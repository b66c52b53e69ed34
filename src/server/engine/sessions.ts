import type { EngineStore } from "../ports/engine-store";

type Session = NonNullable<Awaited<ReturnType<EngineStore["session"]>>>;
const keptMs = 3_600_000;
const mostKept = 1_000;

/**
 * Who holds a session. While the database is away, who was known within the last hour still is: an
 * operator whose page reconnects just then must see that it is away, and be able to hush.
 */
export function rememberedSessions(
  store: EngineStore,
  now: () => number = Date.now,
): Readonly<{ of: (tokenHash: string) => Promise<Session | null>; recheck: () => Promise<void> }> {
  const known = new Map<string, Readonly<{ session: Session; untilMs: number }>>();
  return {
    of: async (tokenHash) => {
      try {
        const session = await store.session(tokenHash, now());
        known.delete(tokenHash);
        if (session !== null) known.set(tokenHash, { session, untilMs: now() + keptMs });
        if (known.size > mostKept) known.delete(known.keys().next().value ?? "");
        return session;
      } catch (error) {
        const kept = known.get(tokenHash);
        if (kept !== undefined && kept.untilMs > now()) return kept.session;
        throw error;
      }
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
