import type { Database } from "./database";
import { type Row } from "./rows";

export type LogPlace = Readonly<{ atMs: number; seq: number }>;

/**
 * The next rows of a channel's log up to a time, behind a place in it: what chat said stands in a table of its own, so two are
 * read side by side and merged by time. A row without `kind` is a message.
 */
export async function bothLogs(
  db: Database,
  channel: number,
  { behind, toMs, limit }: Readonly<{ behind: LogPlace; toMs: number; limit: number }>,
): Promise<readonly Row[]> {
  const of = async (table: "chat_log" | "log", columns: readonly string[]): Promise<Row[]> =>
    (await db(`${table} as l`)
      .leftJoin("viewers as v", "v.id", "l.viewer")
      .where("l.channel", channel)
      .andWhere("l.at_ms", "<=", toMs)
      // Said so that the key is used: of a pair compared with a pair MariaDB reads every row.
      .andWhereRaw("l.at_ms >= ? and (l.at_ms > ? or l.seq > ?)", [behind.atMs, behind.atMs, behind.seq])
      .orderBy("l.at_ms")
      .orderBy("l.seq")
      .limit(limit)
      .select("l.at_ms", "l.seq", "v.ext", "v.name", "v.roles as known", "l.body", ...columns)) as Row[];
  const [said, done] = await Promise.all([of("chat_log", ["l.roles"]), of("log", ["l.kind", "l.source"])]);
  return [...said, ...done].sort((a, b) => Number(a["at_ms"]) - Number(b["at_ms"]) || Number(a["seq"]) - Number(b["seq"])).slice(0, limit);
}
/** Before everything from a time on. */
export const beginOf = (fromMs: number): LogPlace => ({ atMs: fromMs - 1, seq: Number.MAX_SAFE_INTEGER });
export const placeOf = (row: Row): LogPlace => ({ atMs: Number(row["at_ms"]), seq: Number(row["seq"]) });
