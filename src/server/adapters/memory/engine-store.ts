import type { ChannelId } from "../../../core/kernel/ids";
import type { ChannelRow, EngineStore, KeptRow, LogRow } from "../../ports/engine-store";

export type MemoryStore = EngineStore & {
  put: (channel: ChannelRow) => void;
  log: (id: ChannelId) => readonly LogRow[];
  kept: (id: ChannelId) => readonly KeptRow[];
  /** While true, every call fails as an unreachable database does. */
  away: boolean;
};

/** The store without a database: for unit tests of the engine, held to the same contract. */
export function memoryEngineStore(): MemoryStore {
  const channels = new Map<ChannelId, ChannelRow>();
  const logs = new Map<ChannelId, LogRow[]>();
  const records = new Map<ChannelId, KeptRow[]>();
  const leases = new Map<ChannelId, { owner: string; untilMs: number }>();
  const logOf = (id: ChannelId): LogRow[] => {
    const log = logs.get(id) ?? [];
    logs.set(id, log);
    return log;
  };
  const has = (log: readonly LogRow[], row: LogRow): boolean =>
    log.some((r) => r.seq === row.seq || (r.source === row.source && r.id === row.id));
  const guard = (): void => {
    if (store.away) throw Object.assign(new Error("the database is away"), { code: "ECONNREFUSED" });
  };
  const store: MemoryStore = {
    away: false,
    put: (channel) => void channels.set(channel.id, channel),
    log: (id) => logOf(id),
    kept: (id) => records.get(id) ?? [],
    seen: async (id, source, ids) => (guard(), new Set(ids.filter((i) => logOf(id).some((r) => r.source === source && r.id === i)))),
    channels: async () => (guard(), [...channels.keys()]),
    channel: async (id) => (guard(), channels.get(id) ?? null),
    revisions: async () => (guard(), new Map([...channels].map(([id, c]) => [id, c.revision]))),
    lastSeq: async (id) => (guard(), logOf(id).reduce((max, r) => Math.max(max, r.seq), 0)),
    commit: async (id, { rows, states, kept }) => {
      guard();
      const log = logOf(id);
      if (rows.some((row) => has(log, row))) return "duplicate";
      log.push(...rows);
      records.set(id, [...(records.get(id) ?? []), ...kept]);
      const channel = channels.get(id);
      if (channel !== undefined) {
        channels.set(id, {
          ...channel,
          games: channel.games.map((g) => ({ ...g, durable: states.find((s) => s.gameId === g.id)?.durable ?? g.durable })),
        });
      }
      return "committed";
    },
    append: async (id, rows) => {
      guard();
      const log = logOf(id);
      for (const row of rows) if (!has(log, row)) log.push(row);
    },
    setHushed: async (id, on) => {
      guard();
      const channel = channels.get(id);
      if (channel !== undefined) channels.set(id, { ...channel, hushed: on });
    },
    lease: async (id, owner, nowMs, untilMs) => {
      guard();
      const held = leases.get(id);
      if (held !== undefined && held.owner !== owner && held.untilMs > nowMs) return false;
      leases.set(id, { owner, untilMs });
      return true;
    },
    release: async (id, owner) => {
      guard();
      if (leases.get(id)?.owner === owner) leases.delete(id);
    },
    prop: async () => (guard(), null),
    session: async () => (guard(), null),
    ping: async () => guard(),
  };
  return store;
}
