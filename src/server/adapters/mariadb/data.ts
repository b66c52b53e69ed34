import { z } from "zod";
import type { ChannelId } from "../../../core/kernel/ids";
import type { DataStore, Retention } from "../../ports/operator-store";
import { beginOf, bothLogs, placeOf } from "./both-logs";
import { type Database, fromJson } from "./database";
import { Keys, rolesOf } from "./keys";
import { logs, monthStartMs, partitionOf } from "./lean-tables";
import { type Row, text } from "./rows";

const dayMs = 86_400_000;
const days = z.int().min(7).max(3_650);
/** Ninety days of the log, a year of who did what, half a year of single blows. */
export const retentionSchema = z.object({ logDays: days.default(90), auditDays: days.default(365), hitDays: days.default(180) });
export const retentionDefaults: Retention = retentionSchema.parse({});

export async function readRetention(db: Database): Promise<Retention> {
  const row = await db("installation").where({ name: "retention" }).first("value");
  const read = retentionSchema.safeParse(row === undefined ? {} : fromJson(row["value"]));
  return read.success ? read.data : retentionDefaults;
}

/** `p202611`, as `2026-11`. */
const monthOf = (partition: string): string => `${partition.slice(1, 5)}-${partition.slice(5)}`;
const startOf = (month: string): number => Date.UTC(Number(month.slice(0, 4)), Number(month.slice(5)) - 1, 1);
/** A month goes when its last day is old enough. */
export const goesMs = (month: string, logDays: number): number => monthStartMs(startOf(month), 1) + logDays * dayMs;

type Part = Readonly<{ table: string; name: string; bytes: number; rows: number }>;
export async function partitions(db: Database): Promise<readonly Part[]> {
  const [rows] = (await db.raw(
    `select table_name as t, partition_name as p, data_length + index_length as bytes, table_rows as n from information_schema.partitions
     where table_schema = database() and table_name in (${logs.map(() => "?").join(", ")}) and partition_name is not null order by partition_ordinal_position`,
    logs.map(([name]) => name),
  )) as [Row[]];
  return rows.map((r) => ({ table: text(r["t"]), name: text(r["p"]), bytes: Number(r["bytes"]), rows: Number(r["n"]) }));
}

const whatIs: Readonly<Record<string, string>> = {
  prop_files: "Pictures and sounds",
  file_parts: "Films",
  media_jobs: "Films that were made, or are to be",
  viewers: "Viewers",
  sales: "Sales",
  transfers: "Points: entries",
  transfers_to_many: "Points: rounds of presence",
  records: "What games keep: hits, who was the boss, shows",
  lab_questions: "Questions asked of the odds lab",
  show_moments: "Moments of past shows",
  chat_files: "Chat from outside",
  outside_shows: "Shows of other installations",
  once: "Ids that may come only once",
  audit: "Who did what",
  game_versions: "Versions of settings",
};
const batch = 2_000;

export function mariadbData(db: Database): DataStore {
  const keys = new Keys(db);
  return {
    retention: () => readRetention(db),
    setRetention: async (retention) => {
      const value = JSON.stringify(retentionSchema.parse(retention));
      await db("installation").insert({ name: "retention", value }).onConflict("name").merge();
    },
    months: async (channel) => {
      const num = (await keys.channel(channel)) ?? 0;
      const [parts, counted, { logDays }] = await Promise.all([
        partitions(db),
        db("daily_counts").where({ channel: num }).select("day", "kind", "n") as unknown as Promise<Row[]>,
        readRetention(db),
      ]);
      const byMonth = new Map<string, { messages: number; others: number; bytes: number }>();
      for (const p of parts) {
        if (p.name === "later") continue;
        const one = byMonth.get(monthOf(p.name)) ?? { messages: 0, others: 0, bytes: 0 };
        one.bytes += p.bytes;
        byMonth.set(monthOf(p.name), one);
      }
      for (const r of counted) {
        const one = byMonth.get(monthOf(partitionOf(monthStartMs(Number(r["day"]) * dayMs))));
        if (one === undefined) continue;
        if (r["kind"] === "message") one.messages += Number(r["n"]);
        else one.others += Number(r["n"]);
      }
      return [...byMonth]
        .filter(([, m]) => m.messages + m.others > 0)
        .map(([month, m]) => ({ month, ...m, goesMs: goesMs(month, logDays) }))
        .sort((a, b) => (a.month < b.month ? 1 : -1));
    },
    sizes: async () => {
      const [rows] = (await db.raw(
        "select table_name as t, data_length + index_length as bytes, table_rows as n from information_schema.tables where table_schema = database()",
      )) as [Row[]];
      return rows
        .flatMap((r) => {
          const what = Object.hasOwn(whatIs, text(r["t"])) ? (whatIs[text(r["t"])] ?? "") : "";
          return what === "" ? [] : [{ what, bytes: Number(r["bytes"]), rows: Number(r["n"]) }];
        })
        .sort((a, b) => b.bytes - a.bytes);
    },
    month: (channel, month) => logBetween(db, keys, channel, startOf(month), monthStartMs(startOf(month), 1) - 1),
  };
}

/** A stretch of the log, both ends with it, in pieces: a file of it reads like the evening did. */
export async function* logBetween(
  db: Database,
  keys: Keys,
  channel: ChannelId,
  fromMs: number,
  toMs: number,
): AsyncGenerator<readonly Readonly<Record<string, unknown>>[]> {
  const num = (await keys.channel(channel)) ?? 0;
  let behind = beginOf(fromMs);
  for (;;) {
    const rows = await bothLogs(db, num, { behind, toMs, limit: batch });
    const last = rows.at(-1);
    if (last === undefined) return;
    behind = placeOf(last);
    yield rows.map((r) => ({
      at: new Date(Number(r["at_ms"])).toISOString(),
      seq: Number(r["seq"]),
      kind: r["kind"] === undefined ? "message" : text(r["kind"]),
      source: r["source"] === undefined ? "chat" : text(r["source"]),
      viewer: r["ext"] === null ? null : { id: text(r["ext"]), name: text(r["name"]) },
      ...(r["kind"] === undefined ? { roles: rolesOf(Number(r["roles"])), text: text(r["body"]) } : { body: fromJson(r["body"]) }),
    }));
  }
}
