import type { Knex } from "knex";
import type { ChannelId } from "../../../core/kernel/ids";
import { ok, refused, type Result } from "../../../core/kernel/refusal";
import type { Database } from "./database";
import { type Row, text } from "./rows";

const mostKept = 20;
/** What was removed can be brought back for so long. */
const shownRemovedMs = 7 * 86_400_000;

/** What is brought in from outside as files: so many of a channel, and as many again that were removed and can come back. */
export function broughtIn(
  db: Database,
  table: "chat_files" | "outside_shows",
  codes: Readonly<{ unknown: "chat-log/unknown" | "outside/unknown"; tooMany: "chat-log/too-many" | "outside/too-many" }>,
) {
  const one = (channel: string, id: string) => db(table).where({ channel_id: channel, id });
  /** One change of a channel's files at a time. */
  const alone = <T>(channel: string, work: (trx: Knex.Transaction, here: number) => Promise<Result<T>>): Promise<Result<T>> =>
    db.transaction(async (trx) => {
      await trx("channels").where({ id: channel }).forUpdate().first("id");
      const kept = (await trx(table).where({ channel_id: channel }).whereNull("removed_ms").count({ n: "*" }).first()) as Row;
      return work(trx, Number(kept["n"]));
    });
  return {
    /** Newest first, those that can be brought back among them. */
    list: async (channel: ChannelId, columns: readonly string[]): Promise<Row[]> =>
      (await db(table)
        .where({ channel_id: channel })
        .where((b) => void b.whereNull("removed_ms").orWhere("removed_ms", ">", Date.now() - shownRemovedMs))
        .orderBy("created_ms", "desc")
        .orderBy("id")
        .limit(mostKept * 3)
        .select("id", "name", "brought_by", "created_ms", "removed_ms", ...columns)) as Row[],
    add: (channel: ChannelId, insert: (trx: Knex.Transaction) => Promise<unknown>): Promise<Result<null>> =>
      alone(channel, async (trx, here) => {
        if (here >= mostKept) return refused(codes.tooMany, { most: mostKept });
        // What was removed takes room too: of it as many are kept as of those that are here.
        const gone = (await trx(table)
          .where({ channel_id: channel })
          .whereNotNull("removed_ms")
          .orderBy("removed_ms", "desc")
          .limit(1_000)
          .offset(mostKept)
          .select("id")) as Row[];
        if (gone.length > 0)
          await trx(table)
            .whereIn(
              "id",
              gone.map((g) => text(g["id"])),
            )
            .delete();
        await insert(trx);
        return ok(null);
      }),
    rename: async (channel: ChannelId, id: string, name: string): Promise<boolean> => (await one(channel, id).update({ name })) > 0,
    remove: async (channel: ChannelId, id: string, nowMs: number): Promise<boolean> =>
      (await one(channel, id).update({ removed_ms: nowMs })) > 0,
    restore: (channel: ChannelId, id: string): Promise<Result<null>> =>
      alone(channel, async (trx, here) => {
        const row = (await trx(table).where({ channel_id: channel, id }).first("removed_ms")) as Row | undefined;
        if (row === undefined) return refused(codes.unknown);
        if (row["removed_ms"] === null) return ok(null);
        if (here >= mostKept) return refused(codes.tooMany, { most: mostKept });
        await trx(table).where({ channel_id: channel, id }).update({ removed_ms: null });
        return ok(null);
      }),
  };
}
