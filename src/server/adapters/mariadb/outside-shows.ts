import { promisify } from "node:util";
import { gunzip, gzip } from "node:zlib";
import { fold } from "../../../core/kernel/fold";
import { refused } from "../../../core/kernel/refusal";
import { alone } from "../../../core/kernel/text";
import { type OutsideLine, type OutsideShow, outsideShowSchema } from "../../../core/review/outside";
import type { OutsideShowStore } from "../../ports/outside-show-store";
import { broughtIn } from "./brought-in";
import { type Database, fromJson } from "./database";
import { nobody } from "./forget-records";
import { type Row, text } from "./rows";

const [zip, unzip] = [promisify(gzip), promisify(gunzip)];
const mostBytes = 60 * 1024 * 1024;
type Packed = readonly [atMs: number, kind: string, name: string, text: string, chips: OutsideLine["chips"]];

const pack = (lines: readonly OutsideLine[]): Promise<Buffer> =>
  zip(JSON.stringify(lines.map(({ atMs, kind, name, text: said, chips }): Packed => [atMs, kind, name, said, chips])));
async function unpack(log: Buffer): Promise<OutsideLine[]> {
  // What this store wrote there itself.
  const packed = JSON.parse((await unzip(log)).toString()) as readonly Packed[];
  return packed.map(([atMs, kind, name, said, chips]): OutsideLine => ({ atMs, kind, name, text: said, chips }));
}

export function mariadbOutsideShows(db: Database): OutsideShowStore {
  const of = (channel: string, id: string) => db("outside_shows").where({ channel_id: channel, id });
  const { list, add, ...rest } = broughtIn(db, "outside_shows", { unknown: "outside/unknown", tooMany: "outside/too-many" });
  return {
    ...rest,
    list: async (channel) =>
      (await list(channel, [])).map((r) => ({
        id: text(r["id"]),
        name: text(r["name"]),
        by: text(r["brought_by"]),
        createdMs: Number(r["created_ms"]),
        removedMs: r["removed_ms"] === null ? null : Number(r["removed_ms"]),
      })),
    add: async ({ id, channel, name, by }, show, lines, nowMs) => {
      const log = await pack(lines);
      if (log.length > mostBytes) return refused("outside/too-large");
      const row = { id, channel_id: channel, name, body: JSON.stringify(show), log, brought_by: by.slice(0, 80), created_ms: nowMs };
      return add(channel, (trx) => trx("outside_shows").insert(row));
    },
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
