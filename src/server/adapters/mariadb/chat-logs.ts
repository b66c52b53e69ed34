import { promisify } from "node:util";
import { gunzip, gzip } from "node:zlib";
import { fold } from "../../../core/kernel/fold";
import { eveningRatesSchema } from "../../../core/lab/rates";
import type { ChatLogLine } from "../../../core/rehearsal/chat-log";
import type { ChatLogStore } from "../../ports/chat-log-store";
import { broughtIn } from "./brought-in";
import { type Database, fromJson } from "./database";
import { type Row, text } from "./rows";

const [zip, unzip] = [promisify(gzip), promisify(gunzip)];
/** What this store wrote there itself: a name, a time and a text for each line. */
const packed = (lines: readonly ChatLogLine[]): Promise<Buffer> => zip(JSON.stringify(lines.map((l) => [l.afterMs, l.name, l.text])));
const unpacked = async (body: Buffer): Promise<readonly ChatLogLine[]> =>
  (JSON.parse((await unzip(body)).toString()) as [number, string, string][]).map(([afterMs, name, said]) => ({
    afterMs,
    name,
    text: said,
  }));

export function mariadbChatLogs(db: Database): ChatLogStore {
  const of = (channel: string, id: string) => db("chat_files").where({ channel_id: channel, id });
  const { list, add, ...rest } = broughtIn(db, "chat_files", { unknown: "chat-log/unknown", tooMany: "chat-log/too-many" });
  return {
    ...rest,
    list: async (channel) =>
      (await list(channel, ["line_count", "people", "ms"])).map((r) => ({
        id: text(r["id"]),
        name: text(r["name"]),
        lines: Number(r["line_count"]),
        people: Number(r["people"]),
        ms: Number(r["ms"]),
        by: text(r["brought_by"]),
        createdMs: Number(r["created_ms"]),
        removedMs: r["removed_ms"] === null ? null : Number(r["removed_ms"]),
      })),
    add: async ({ id, channel, name, by, people, ms, rates }, lines, nowMs) => {
      const row = {
        id,
        channel_id: channel,
        name,
        line_count: lines.length,
        people,
        ms,
        body: await packed(lines),
        rates: JSON.stringify(rates),
        brought_by: by.slice(0, 80),
        created_ms: nowMs,
      };
      return add(channel, (trx) => trx("chat_files").insert(row));
    },
    lines: async (channel, id) => {
      const row = (await of(channel, id).whereNull("removed_ms").first("name", "body")) as Row | undefined;
      return row === undefined ? null : { name: text(row["name"]), lines: await unpacked(row["body"] as Buffer) };
    },
    rates: async (channel, id) => {
      const row = (await of(channel, id).whereNull("removed_ms").first("rates")) as Row | undefined;
      const rates = row === undefined ? null : eveningRatesSchema.safeParse(fromJson(row["rates"]));
      return rates?.success === true ? rates.data : null;
    },
  };
}

/** Whoever is forgotten wrote no line of what was brought in either: those lines go, by their name. */
export async function forgetInChatFiles(db: Database, channelNum: number, name: string): Promise<void> {
  if (name === "") return;
  const rows = (await db("chat_files as f")
    .join("channels as c", "c.id", "f.channel_id")
    .where("c.num", channelNum)
    .select("f.id")) as Row[];
  for (const { id } of rows) {
    const row = (await db("chat_files")
      .where({ id: text(id) })
      .first("body")) as Row | undefined;
    if (row === undefined) continue;
    const lines = await unpacked(row["body"] as Buffer);
    const rest = lines.filter((l) => fold(l.name) !== fold(name));
    if (rest.length < lines.length)
      await db("chat_files")
        .where({ id: text(id) })
        .update({ body: await packed(rest), line_count: rest.length });
  }
}
