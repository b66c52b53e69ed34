import type { Entry } from "../../core/points/ledger";
import { memoryEngineStore } from "../adapters/memory/engine-store";
import type { ChannelRow, EngineStore, KeptRow, LedgerRows, LogRow } from "../ports/engine-store";
import type { Sale } from "../../core/rewards/ledger-view";

export type Seen = Readonly<{
  rows: (rows: readonly LogRow[]) => void;
  kept: (rows: readonly KeptRow[]) => void;
  booked: (entries: readonly Entry[], sales: readonly Sale[]) => void;
}>;

/**
 * Where a rehearsal writes: nowhere. What it would have written is told to who watches it, and forgotten; what a runner asks
 * for again is answered from the copy that it began with.
 */
export function rehearsalStore(row: ChannelRow, ledger: LedgerRows, seen: () => Seen): EngineStore {
  const sales = new Map(ledger.sales.map((s) => [s.id, s]));
  return {
    ...memoryEngineStore(),
    channel: async () => row,
    channels: async () => [row.id],
    lastSeq: async () => 0,
    came: async () => new Map(),
    ledgerView: async () => ledger,
    kept: async () => [],
    sale: async (_, id) => sales.get(id) ?? null,
    commit: async (_, { rows, kept, booked = [] }) => {
      seen().rows(rows);
      seen().kept(kept);
      for (const { booking } of booked) seen().booked(booking.entries, booking.sales);
      return { is: "committed" };
    },
    append: async (_, rows) => {
      seen().rows(rows);
      return 0;
    },
  };
}
