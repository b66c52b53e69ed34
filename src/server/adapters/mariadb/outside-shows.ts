import { promisify } from "node:util";
import { gunzip, gzip } from "node:zlib";
import { ok, refused } from "../../../core/kernel/refusal";
import { type OutsideLine, outsideShowSchema } from "../../../core/review/outside";
import type { OutsideShowStore } from "../../ports/outside-show-store";
import { type Database, fromJson } from "./database";
import { type Row, text } from "./rows";

const [zip, unzip] = [promisify(gzip), promisify(gunzip)];
const mostKept = 20;
const mostBytes = 60 * 1024 * 1024;
/** What was removed can be brought back for so long. */
const shownRemovedMs = 7 * 86_400_000;
type Packed = readonly [atMs: number, kind: string, name: string, text: string, chips: OutsideLine["chips"]];

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
      const log = await zip(JSON.stringify(lines.map(({ atMs, kind, name: who, text: said, chips }): Packed => [atMs, kind, who, said, chips])));
      if (log.length > mostBytes) return refused("outside/too-large");
      return db.transaction(async (trx) => {
        await trx("channels").where({ id: channel }).forUpdate().first("id");
        const kept = await trx("outside_shows").where({ channel_id: channel }).whereNull("removed_ms").count({ n: "*" }).first();
        if (Number(kept?.["n"]) >= mostKept) return refused("outside/too-many", { most: mostKept });
        const row = { id, channel_id: channel, name, body: JSON.stringify(show), log, brought_by: by.slice(0, 80), created_ms: nowMs };
        await trx("outside_shows").insert(row);
        return ok(null);
      });
    },
    rename: async (channel, id, name) => (await of(channel, id).update({ name })) > 0,
    remove: async (channel, id, atMs) => (await of(channel, id).update({ removed_ms: atMs })) > 0,
    show: async (channel, id) => {
      const row = (await of(channel, id).whereNull("removed_ms").first("name", "body")) as Row | undefined;
      const read = row === undefined ? null : outsideShowSchema.safeParse(fromJson(row["body"]));
      return row === undefined || read?.success !== true ? null : { name: text(row["name"]), show: read.data };
    },
    lines: async (channel, id) => {
      const row = (await of(channel, id).whereNull("removed_ms").first("log")) as Row | undefined;
      if (row === undefined) return null;
      // What this store wrote there itself.
      const packed = JSON.parse((await unzip(row["log"] as Buffer)).toString()) as readonly Packed[];
      return packed.map(([atMs, kind, name, said, chips]): OutsideLine => ({ atMs, kind, name, text: said, chips }));
    },
  };
}
