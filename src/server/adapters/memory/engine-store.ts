import type { ChannelId } from "../../../core/kernel/ids";
import { changesOf, isViewerAccount } from "../../../core/points/ledger";
import type { PriceAt } from "../../../core/points/price";
import type { Sale } from "../../../core/rewards/ledger-view";
import type { Face } from "../../ports/profiles";
import type { Booked, Came, ChannelRow, LedgerRows, EngineStore, KeptRow, LogRow, ViewerSession } from "../../ports/engine-store";

import { memoryMedia } from "./media";

export type MemoryStore = EngineStore & {
  put: (channel: ChannelRow) => void;
  log: (id: ChannelId) => readonly LogRow[];
  keptRows: (id: ChannelId) => readonly KeptRow[];
  /** While true, every call fails as an unreachable database does. */
  away: boolean;
  /** Rows of these texts can't be stored, whatever the reason may be. */
  unfit: Set<string>;
  /** The store's own clock, moved on by tests. */
  time: { nowMs: number };
};

type Ledger = {
  keys: Set<string>;
  accounts: Map<string, LedgerRows["accounts"][number]>;
  sales: Map<string, Sale>;
  prices: Map<string, PriceAt>;
  attended: Map<string, NonNullable<LedgerRows["attended"]>[number]>;
};
const freshLedger = (): Ledger => ({ keys: new Set(), accounts: new Map(), sales: new Map(), prices: new Map(), attended: new Map() });

/** All of it or nothing, as the database does it: no key twice, no viewer below none. */
function bookIn(ledger: Ledger, booked: readonly Booked[]): void {
  const entries = booked.flatMap((b) => b.booking.entries);
  if (new Set(entries.map((e) => e.key)).size < entries.length || entries.some((e) => ledger.keys.has(e.key)))
    throw new Error("an entry stands twice");
  const changes = changesOf(entries);
  for (const { account, amount } of changes)
    if (isViewerAccount(account) && (ledger.accounts.get(account)?.balance ?? 0) + amount < 0) throw new Error("below none");
  for (const e of entries) ledger.keys.add(e.key);
  const names = new Map(booked.flatMap((b) => b.booking.names.map((n) => [n.id, n.name])));
  const earned = new Map(booked.flatMap((b) => b.earned.map(({ viewer, ...rest }) => [viewer, rest])));
  for (const { account, amount } of changes) {
    const old = ledger.accounts.get(account);
    const viewer = isViewerAccount(account) ? account.slice(2) : "";
    ledger.accounts.set(account, {
      account,
      name: names.get(viewer) ?? old?.name ?? "",
      balance: (old?.balance ?? 0) + amount,
      ...(earned.get(viewer) ?? { day: old?.day ?? 0, earned: old?.earned ?? 0 }),
    });
  }
  for (const { booking, met = [] } of booked) {
    for (const m of met) ledger.attended.set(m.viewer, m);
    for (const s of booking.sales) ledger.sales.set(s.id, s);
    for (const p of booking.prices) ledger.prices.set(p.rewardId, p.at);
  }
}

function deskIn({ accounts, sales, prices, attended }: Ledger, showId: string, sinceMs: number): LedgerRows {
  const counted = [...sales.values()].filter((s) => s.state !== "refunded");
  return {
    accounts: [...accounts.values()],
    sold: [...new Set([...sales.values()].map((s) => s.rewardId))].map((rewardId) => ({
      rewardId,
      count: counted.filter((s) => s.rewardId === rewardId).length,
      handed: [...sales.values()].filter((s) => s.rewardId === rewardId && s.code !== "").length,
    })),
    soldInShow:
      showId === "" ? [] : counted.filter((s) => s.showId === showId).map((s) => ({ rewardId: s.rewardId, viewer: s.viewer.id, count: 1 })),
    last: [...sales.values()]
      .filter((s) => s.atMs >= sinceMs && (s.state !== "refunded" || s.shown))
      .map((s) => ({ rewardId: s.rewardId, viewer: s.viewer.id, atMs: s.atMs })),
    prices: [...prices].map(([rewardId, at]) => ({ rewardId, at })),
    sales: [...sales.values()],
    attended: [...attended.values()],
  };
}

/** The store without a database: for unit tests of the engine, held to the same contract. */
export function memoryEngineStore(): MemoryStore {
  const channels = new Map<ChannelId, ChannelRow>();
  const logs = new Map<ChannelId, LogRow[]>();
  const records = new Map<ChannelId, KeptRow[]>();
  const leases = new Map<ChannelId, { owner: string; untilMs: number; epoch: number }>();
  const ledgers = new Map<ChannelId, Ledger>();
  const faces = new Map<string, Face>();
  const viewers = new Map<string, ViewerSession & { untilMs: number }>();
  const ledgerOf = (id: ChannelId): Ledger => {
    const ledger = ledgers.get(id) ?? freshLedger();
    ledgers.set(id, ledger);
    return ledger;
  };
  const logOf = (id: ChannelId): LogRow[] => {
    const log = logs.get(id) ?? [];
    logs.set(id, log);
    return log;
  };
  const has = (log: readonly LogRow[], row: LogRow): boolean => log.some((r) => r.seq === row.seq);
  const came = (log: readonly LogRow[], row: LogRow): boolean =>
    row.id !== null && log.some((r) => r.source === row.source && r.id === row.id);
  const fits = (row: LogRow): boolean => !store.unfit.has(String((row.body as { text?: unknown } | null)?.text ?? ""));
  const guard = (): void => {
    if (store.away) throw Object.assign(new Error("the database is away"), { code: "ECONNREFUSED" });
  };
  const store: MemoryStore = {
    away: false,
    unfit: new Set(),
    time: { nowMs: 0 },
    isAway: (error) => (error as { code?: string }).code === "ECONNREFUSED",
    put: (channel) => void channels.set(channel.id, channel),
    log: (id) => logOf(id),
    keptRows: (id) => records.get(id) ?? [],
    came: async (id, source, ids) => {
      guard();
      const found = new Map<string, Came>();
      for (const row of logOf(id)) {
        if (row.source !== source || row.id === null || !ids.includes(row.id)) continue;
        const { notes } = (row.body ?? {}) as { notes?: Came["notes"] };
        found.set(row.id, { seq: row.seq, notes: notes ?? [] });
      }
      return found;
    },
    channels: async () => (guard(), [...channels.keys()]),
    channel: async (id) => (guard(), channels.get(id) ?? null),
    revisions: async () => (guard(), new Map([...channels].map(([id, c]) => [id, c.revision]))),
    lastSeq: async (id) => (guard(), logOf(id).reduce((max, r) => Math.max(max, r.seq), 0)),
    commit: async (id, { rows, states, kept, booked = [] }, fence) => {
      guard();
      const held = leases.get(id);
      if (fence !== undefined && (held?.owner !== fence.owner || held.epoch !== fence.epoch)) return { is: "lost" };
      const log = logOf(id);
      const twice = rows.filter((row, i) => came(log, row) || came(rows.slice(0, i), row));
      if (twice.length > 0) return { is: "twice", seqs: twice.map((r) => r.seq) };
      if (!rows.every(fits)) throw new Error("a row can't be stored");
      bookIn(ledgerOf(id), booked);
      log.push(...rows);
      records.set(id, [...(records.get(id) ?? []), ...kept]);
      const channel = channels.get(id);
      if (channel !== undefined) {
        channels.set(id, {
          ...channel,
          games: channel.games.map((g) => {
            const state = states.filter((s) => s.gameId === g.id).pop();
            return state === undefined ? g : { ...g, durable: state.durable, stateVersion: state.version ?? 1 };
          }),
        });
      }
      return { is: "committed" };
    },
    append: async (id, rows) => {
      guard();
      const log = logOf(id);
      for (const row of rows) if (fits(row) && !has(log, row)) log.push(row);
      return rows.filter((row) => !fits(row)).length;
    },
    ledgerView: async (id, { showId, sinceMs }) => (guard(), deskIn(ledgerOf(id), showId, sinceMs)),
    kept: async (id, game, kinds, { seq, atMs }) => {
      guard();
      return (records.get(id) ?? []).filter((r) => r.gameId === game && kinds.includes(r.kind) && r.seq >= seq && r.toMs >= atMs);
    },
    logged: async (id, { fromMs, toMs, after, limit }) => {
      guard();
      const isBehind = (row: LogRow): boolean =>
        after === null || row.atMs > after.atMs || (row.atMs === after.atMs && row.seq > after.seq);
      return logOf(id)
        .filter((row) => row.atMs >= fromMs && row.atMs <= toMs && isBehind(row))
        .sort((a, b) => a.atMs - b.atMs || a.seq - b.seq)
        .slice(0, limit);
    },
    delivered: async () => guard(),
    sale: async (id, sale) => (guard(), ledgerOf(id).sales.get(sale) ?? null),
    ledgerFaults: async () => (guard(), []),
    sweepDetails: async () => guard(),
    addViewerSession: async (id, { tokenHash, viewer, untilMs }) => {
      guard();
      viewers.set(tokenHash, { channelId: id, viewer, untilMs });
    },
    viewerSession: async (tokenHash, nowMs) => {
      guard();
      const found = viewers.get(tokenHash);
      return found === undefined || found.untilMs <= nowMs ? null : { channelId: found.channelId, viewer: found.viewer };
    },
    endViewerSession: async (tokenHash) => {
      guard();
      viewers.delete(tokenHash);
    },
    renewViewerSession: async (channel, before, after) => {
      guard();
      const found = viewers.get(before);
      if (found?.channelId !== channel) return false;
      viewers.delete(before);
      viewers.set(after, found);
      return true;
    },
    audit: async () => guard(),
    setHushed: async (id, on) => {
      guard();
      const channel = channels.get(id);
      if (channel !== undefined) channels.set(id, { ...channel, hushed: on });
    },
    lease: async (id, owner, forMs) => {
      guard();
      const { nowMs } = store.time;
      const held = leases.get(id) ?? { owner: "", untilMs: 0, epoch: 0 };
      if (held.owner !== owner && held.owner !== "" && held.untilMs > nowMs) return null;
      const epoch = held.owner === owner ? held.epoch : held.epoch + 1;
      leases.set(id, { owner, untilMs: nowMs + forMs, epoch });
      if (held.owner === owner) return { owner, epoch };
      return { owner, epoch, idleFromMs: held.untilMs === 0 ? null : held.owner === "" ? held.untilMs : held.untilMs - forMs };
    },
    release: async (id, owner) => {
      guard();
      const held = leases.get(id);
      if (held?.owner === owner) leases.set(id, { ...held, owner: "", untilMs: store.time.nowMs });
    },
    face: async (id, key) => (guard(), faces.get(`${id} ${key}`) ?? null),
    saveFace: async (id, key, face) => (guard(), void faces.set(`${id} ${key}`, face)),
    media: memoryMedia(guard),
    session: async () => (guard(), null),
    upkeep: async () => (guard(), {}),
    ping: async () => guard(),
  };
  return store;
}
