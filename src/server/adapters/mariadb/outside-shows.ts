import { promisify } from "node:util";
import { gunzip, gzip } from "node:zlib";
import type { Knex } from "knex";
import { fold } from "../../../core/kernel/fold";
import { ok, refused } from "../../../core/kernel/refusal";
import { alone } from "../../../core/kernel/text";
import { type OutsideLine, type OutsideShow, outsideShowSchema } from "../../../core/review/outside";
import type { OutsideShowStore } from "../../ports/outside-show-store";
import { type Database, fromJson } from "./database";
import { nobody } from "./forget-records";
import { type Row, text } from "./rows";

const [zip, unzip] = [promisify(gzip), promisify(gunzip)];
const mostKept = 20;
const mostBytes = 60 * 1024 * 1024;
/** What was removed can be brought back for so long. */
const shownRemovedMs = 7 * 86_400_000;
type Packed = readonly [atMs: number, kind: string, name: string, text: string, chips: OutsideLine["chips"]];

const pack = (lines: readonly OutsideLine[]): Promise<Buffer> =>
  zip(JSON.stringify(lines.map(({ atMs, kind, name, text: said, chips }): Packed => [atMs, kind, name, said, chips])));
async function unpack(log: Buffer): Promise<OutsideLine[]> {
  // What this store wrote there itself.
  const packed = JSON.parse((await unzip(log)).toString()) as readonly Packed[];
  return packed.map(([atMs, kind, name, said, chips]): OutsideLine => ({ atMs, kind, name, text: said, chips }));
}

async function hereNow(trx: Knex.Transaction, channel: string): Promise<number> {
  const kept = await trx("outside_shows").where({ channel_id: channel }).whereNull("removed_ms").count({ n: "*" }).first();
  return Number(kept?.["n"]);
}

export function mariadbOutsideShows(db: Database): OutsideShowStore {
  const of = (channel: string, id: string) => db("outside_shows").where({ channel_id: channel, id });
  return {
    list: async (channel) =>
      (
        (await db("outside_shows")
          .where({ channel_id: channel })
          .where((b) => b.whereNull("removed_ms").orWhere("removed_ms", ">", Date.now() - shownRemovedMs))
          .orderBy("created_ms", "desc")
          .orderBy("id")
          .limit(mostKept * 3)
          .select("id", "name", "brought_by", "created_ms", "removed_ms")) as Row[]
      ).map((r) => ({
        id: text(r["id"]),
        name: text(r["name"]),
        by: text(r["brought_by"]),
        createdMs: Number(r["created_ms"]),
        removedMs: r["removed_ms"] === null ? null : Number(r["removed_ms"]),
      })),
    add: async ({ id, channel, name, by }, show, lines, nowMs) => {
      const log = await pack(lines);
      if (log.length > mostBytes) return refused("outside/too-large");
      return db.transaction(async (trx) => {
        await trx("channels").where({ id: channel }).forUpdate().first("id");
        if ((await hereNow(trx, channel)) >= mostKept) return refused("outside/too-many", { most: mostKept });
        // What was removed takes room too: of it as many are kept as of those that are here.
        const gone = await trx("outside_shows")
          .where({ channel_id: channel })
          .whereNotNull("removed_ms")
          .orderBy("removed_ms", "desc")
          .limit(1_000)
          .offset(mostKept)
          .select("id");
        await trx("outside_shows")
          .whereIn(
            "id",
            gone.map((g) => text(g.id)),
          )
          .delete();
        const row = { id, channel_id: channel, name, body: JSON.stringify(show), log, brought_by: by.slice(0, 80), created_ms: nowMs };
        await trx("outside_shows").insert(row);
        return ok(null);
      });
    },
    rename: async (channel, id, name) => (await of(channel, id).update({ name })) > 0,
    remove: async (channel, id, nowMs) => (await of(channel, id).update({ removed_ms: nowMs })) > 0,
    restore: (channel, id) =>
      db.transaction(async (trx) => {
        await trx("channels").where({ id: channel }).forUpdate().first("id");
        const row = (await trx("outside_shows").where({ channel_id: channel, id }).first("removed_ms")) as Row | undefined;
        if (row === undefined) return refused("outside/unknown");
        if (row["removed_ms"] === null) return ok(null);
        if ((await hereNow(trx, channel)) >= mostKept) return refused("outside/too-many", { most: mostKept });
        await trx("outside_shows").where({ channel_id: channel, id }).update({ removed_ms: null });
        return ok(null);
      }),
    show: async (channel, id) => {
      const row = (await of(channel, id).whereNull("removed_ms").first("name", "body")) as Row | undefined;
      const read = row === undefined ? null : outsideShowSchema.safeParse(fromJson(row["body"]));
      return row === undefined || read?.success !== true ? null : { name: text(row["name"]), show: read.data };
    },
    lines: async (channel, id) => {
      const row = (await of(channel, id).whereNull("removed_ms").first("log")) as Row | undefined;
      return row === undefined ? null : unpack(row["log"] as Buffer);
    },
  };
}

/** Whoever is forgotten is in no show of others either: what they said goes, and where they are named stands somebody. */
export async function forgetInOutsideShows(db: Database, channelNum: number, name: string): Promise<void> {
  if (name === "" || name === nobody) return;
  const rows = (await db("outside_shows as s")
    .join("channels as c", "c.id", "s.channel_id")
    .where("c.num", channelNum)
    .select("s.id")) as Row[];
  const named = alone(name);
  const without = (said: string): string => said.replace(named, nobody);
  for (const { id } of rows) {
    const at = db("outside_shows").where({ id: text(id) });
    const row = (await at.clone().first("body", "log")) as Row | undefined;
    const read = row === undefined ? null : outsideShowSchema.safeParse(fromJson(row["body"]));
    if (row === undefined || read?.success !== true) continue;
    const { marks, moments, results, ...rest } = read.data;
    const show: OutsideShow = {
      ...rest,
      marks: marks.map((m) => ({ ...m, label: without(m.label) })),
      moments: moments.map((m) => ({ ...m, name: without(m.name), why: without(m.why) })),
      results: results.map((r) => ({ ...r, title: without(r.title), result: without(r.result) })),
    };
    const lines = (await unpack(row["log"] as Buffer))
      .filter((l) => fold(l.name) !== fold(name))
      .map((l) => ({
        ...l,
        text: without(l.text),
        chips: l.chips.map((c) => ({ ...c, short: without(c.short), words: without(c.words) })),
      }));
    await at.clone().update({ body: JSON.stringify(show), log: await pack(lines) });
  }
}
