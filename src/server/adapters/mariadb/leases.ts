import type { Knex } from "knex";
import type { ChannelId } from "../../../core/kernel/ids";
import type { EngineStore } from "../../ports/engine-store";
import type { Database } from "./database";
import type { Keys } from "./keys";
import { type Row, text } from "./rows";

/** The database's own time in milliseconds: hosts may disagree about theirs. */
export const dbNow = "floor(unix_timestamp(now(3)) * 1000)";
/** A lock of the database's own that lasts as long as a connection: whose is free, their process is gone. */
const lockOf = (owner: string): string => `izzam-owner-${owner}`.slice(0, 64);

/** Keeps a named lock of this process's own for as long as it lives. */
export type Alive = (lock: string) => Promise<void>;
const isGone = async (trx: Knex.Transaction, owner: string): Promise<boolean> => {
  const [rows] = (await trx.raw("select is_used_lock(?) as holder", [lockOf(owner)])) as [Row[]];
  return rows[0]?.["holder"] === null;
};

/** Who runs a channel: one at a time, by the database's time, under an epoch that only grows. */
export function leases(
  db: Database,
  keys: Keys,
  numOf: (id: ChannelId) => Promise<number>,
  alive: Alive | undefined,
): Pick<EngineStore, "lease" | "release"> {
  return {
    lease: async (id, owner, forMs) => {
      const num = await keys.channel(id);
      if (num === null) return null;
      if (alive !== undefined) await alive(lockOf(owner));
      await db.raw("insert ignore into leases (channel, owner, epoch, until_ms, last_seq) values (?, '', 0, 0, 0)", [num]);
      return db.transaction(async (trx) => {
        const row = (await trx("leases")
          .where({ channel: num })
          .forUpdate()
          .first("owner", "epoch", "until_ms", trx.raw(`until_ms > ${dbNow} as holds`))) as Row;
        const before = text(row["owner"]);
        if (before !== owner) {
          // One that still holds it gives way only when the process behind it is gone.
          if (before !== "" && Number(row["holds"]) === 1 && !(await isGone(trx, before))) return null;
          await trx("leases")
            .where({ channel: num })
            .update({ owner, epoch: trx.raw("epoch + 1"), until_ms: trx.raw(`${dbNow} + ?`, [forMs]) });
          // Whoever let go said when; who was ended held it for so long after they were last heard of.
          const untilMs = Number(row["until_ms"]);
          const idleFromMs = untilMs === 0 ? null : before === "" ? untilMs : untilMs - forMs;
          return { owner, epoch: Number(row["epoch"]) + 1, idleFromMs };
        }
        await trx("leases")
          .where({ channel: num })
          .update({ until_ms: trx.raw(`${dbNow} + ?`, [forMs]) });
        return { owner, epoch: Number(row["epoch"]) };
      });
    },
    release: async (id, owner) =>
      void (await db("leases")
        .where({ channel: await numOf(id), owner })
        .update({ owner: "", until_ms: db.raw(dbNow) })),
  };
}
