import type { Knex } from "knex";
import { emoteIndex, findEmotes } from "../../../core/chat/emotes";
import { channelId, type ChannelId } from "../../../core/kernel/ids";
import type { KeptMoment, LinesAsked, LogLine, ReviewedShow, ReviewStore } from "../../ports/review-store";
import { logBetween } from "./data";
import { type Database, fromJson } from "./database";
import { Keys } from "./keys";
import { type Row, text } from "./rows";
import { givenKinds, showTables } from "./show-tables";

/** Emoji are looked for only where there can be one: that costs ten times what the channel's own words do. */
const sources = { marked: false, own: true, emoji: false };
const withEmoji = { ...sources, emoji: true };
const beyondAscii = /[^\u0020-\u007e]/;
/** Messages are read so many at a time, so that a long evening never lies in memory whole. */
const atOnce = 5_000;
type Body = Readonly<Record<string, unknown>>;
const bodyOf = (row: Row): Body => fromJson(row["body"]) as Body;

export function mariadbReviews(db: Database): ReviewStore {
  const keys = new Keys(db);
  const numOf = async (channel: ChannelId): Promise<number> => (await keys.channel(channel)) ?? 0;
  const recordOf = async (channel: ChannelId, id: number) =>
    (await db("records")
      .where({ id, channel: await numOf(channel), kind: "show" })
      .first()) as Row | undefined;
  async function written(
    channel: ChannelId,
    id: number,
    part: Readonly<{ name?: string; offset_ms?: number; share?: string | null }>,
  ): Promise<boolean> {
    if ((await recordOf(channel, id)) === undefined) return false;
    await db("show_reviews")
      .insert({ record: id, ...part })
      .onConflict("record")
      .merge(part);
    return true;
  }
  const binsOf = (rows: readonly Row[], size: number): number[] => {
    const bins = new Array<number>(size).fill(0);
    for (const r of rows) {
      const at = Number(r["bin"]);
      if (at >= 0 && at < size) bins[at] = Number(r["n"]);
    }
    return bins;
  };
  const sizeOf = ({ fromMs, toMs, binMs }: Readonly<{ fromMs: number; toMs: number; binMs: number }>): number =>
    Math.max(1, Math.ceil((toMs - fromMs) / binMs));
  return {
    show: async (channel, id) => {
      const row = await recordOf(channel, id);
      if (row === undefined) return null;
      const body = bodyOf(row);
      if (body["rehearsal"] === true) return null;
      const own = (await db("show_reviews").where({ record: id }).first()) as Row | undefined;
      const show: ReviewedShow = {
        id,
        showId: String(body["id"] ?? ""),
        fromMs: Number(row["from_ms"]),
        toMs: Number(row["to_ms"]),
        by: String(body["by"] ?? ""),
        name: own === undefined ? "" : text(own["name"]),
        offsetMs: own === undefined ? 0 : Number(own["offset_ms"]),
        shared: own !== undefined && own["share"] !== null,
      };
      return show;
    },
    name: (channel, id, name) => written(channel, id, { name }),
    offset: (channel, id, offset_ms) => written(channel, id, { offset_ms }),
    share: (channel, id, share) => written(channel, id, { share }),
    sharedBy: async (hash) => {
      const row = (await db("show_reviews as s")
        .join("records as r", "r.id", "s.record")
        .join("channels as c", "c.num", "r.channel")
        .where("s.share", hash)
        .first("c.id", "c.name", "s.record")) as Row | undefined;
      return row === undefined ? null : { channel: channelId(text(row["id"])), channelName: text(row["name"]), id: Number(row["record"]) };
    },
    moments: async (channel, id) => {
      if ((await recordOf(channel, id)) === undefined) return [];
      const rows = (await db("show_moments").where({ record: id }).orderBy("at_ms").orderBy("id")) as Row[];
      return rows.map((r): KeptMoment => ({
        id: text(r["id"]),
        atMs: Number(r["at_ms"]),
        toMs: Number(r["to_ms"]),
        name: text(r["name"]),
        why: text(r["why"]),
        state: r["state"] === "dropped" ? "dropped" : "kept",
        by: text(r["decided_by"]),
      }));
    },
    decide: async (channel, record, { id, atMs, toMs, name, why, state, by }) => {
      if ((await recordOf(channel, record)) === undefined) return false;
      const part = { at_ms: atMs, to_ms: toMs, name, why, state, decided_by: by };
      await db("show_moments")
        .insert({ record, id, ...part })
        .onConflict(["record", "id"])
        .merge(part);
      return true;
    },
    undecide: async (channel, record, id) => {
      if ((await recordOf(channel, record)) !== undefined) await db("show_moments").where({ record, id }).delete();
    },
    beside: async (channel, { id, fromMs }) => {
      const num = await numOf(channel);
      const next = async (way: "<" | ">"): Promise<number | null> => {
        const row = (await db("records")
          .where({ channel: num, kind: "show" })
          .whereRaw("coalesce(json_value(body, '$.rehearsal'), 0) not in (1, 'true')")
          .whereRaw(`(from_ms, id) ${way} (?, ?)`, [fromMs, id])
          .orderBy("from_ms", way === "<" ? "desc" : "asc")
          .orderBy("id", way === "<" ? "desc" : "asc")
          .first("id")) as Row | undefined;
        return row === undefined ? null : Number(row["id"]);
      };
      const [before, after] = await Promise.all([next("<"), next(">")]);
      return { before, after };
    },
    numbers: async (channel, { fromMs, toMs, showId }) => {
      const num = await numOf(channel);
      const within = (table: "log") => db(table).where({ channel: num }).whereBetween("at_ms", [fromMs, toMs]);
      const sum = (field: string) => db.raw(`coalesce(sum(json_value(body, '$.${field}')), 0) as total`);
      const [given, tips, raids, points, sales] = (await Promise.all([
        within("log")
          .whereIn("kind", [...givenKinds])
          .groupBy("kind")
          .select("kind", db.raw("count(*) as n")),
        within("log").where({ kind: "tip" }).select(sum("homeMinor")).first(),
        within("log").where({ kind: "raid" }).select(sum("viewers")).first(),
        db("show_points").where({ channel: num, show_id: showId }).first("made", "spent"),
        db("sales")
          .where({ channel: num })
          .whereBetween("at_ms", [fromMs, toMs])
          .select(db.raw("count(*) as n"), db.raw("coalesce(sum(state = 'refunded'), 0) as back"))
          .first(),
      ])) as [Row[], Row | undefined, Row | undefined, Row | undefined, Row | undefined];
      const of = (kind: string): number => Number(given.find((g) => g["kind"] === kind)?.["n"] ?? 0);
      return {
        follows: of("follow"),
        memberships: of("membership"),
        gifts: of("gift"),
        tips: of("tip"),
        tipped: Number(tips?.["total"] ?? 0),
        reactions: of("reaction"),
        raids: of("raid"),
        raiders: Number(raids?.["total"] ?? 0),
        made: Number(points?.["made"] ?? 0),
        spent: Number(points?.["spent"] ?? 0),
        sales: Number(sales?.["n"] ?? 0),
        refunds: Number(sales?.["back"] ?? 0),
      };
    },
    bins: async (channel, at) => {
      const num = await numOf(channel);
      const { fromMs, toMs, binMs } = at;
      const bin = db.raw("floor((at_ms - ?) / ?) as bin", [fromMs, binMs]);
      const [chat, signals, said] = (await Promise.all([
        db("chat_log").where({ channel: num }).whereBetween("at_ms", [fromMs, toMs]).select(bin, db.raw("count(*) as n")).groupBy("bin"),
        db("log")
          .where({ channel: num })
          .whereBetween("at_ms", [fromMs, toMs])
          .whereIn("kind", [...givenKinds])
          .select(bin, db.raw("count(*) as n"))
          .groupBy("bin"),
        db("chat_log").where({ channel: num }).whereBetween("at_ms", [fromMs, toMs]).countDistinct({ people: "viewer" }).first(),
      ])) as [Row[], Row[], Row | undefined];
      return { fromMs, binMs, chat: binsOf(chat, sizeOf(at)), signals: binsOf(signals, sizeOf(at)), people: Number(said?.["people"] ?? 0) };
    },
    emotes: async (channel, at) => {
      const num = await numOf(channel);
      const { fromMs, toMs, binMs } = at;
      const words = ((await db("emotes").where({ channel_id: channel }).select("id", "word")) as Row[]).map((r) => ({
        id: text(r["id"]),
        word: text(r["word"]),
      }));
      const index = emoteIndex(words);
      const bins = new Array<number>(sizeOf(at)).fill(0);
      let last = { atMs: fromMs - 1, seq: 0 };
      for (;;) {
        const rows = (await db("chat_log")
          .where({ channel: num })
          .modify((q) => behind(q, last))
          .where("at_ms", "<=", toMs)
          .orderBy("at_ms")
          .orderBy("seq")
          .limit(atOnce)
          .select("at_ms", "seq", "body")) as Row[];
        for (const r of rows) {
          const said = text(r["body"]);
          const found = findEmotes(said, [], index, beyondAscii.test(said) ? withEmoji : sources).length;
          const bin = Math.min(bins.length - 1, Math.floor((Number(r["at_ms"]) - fromMs) / binMs));
          if (found > 0) bins[bin] = (bins[bin] ?? 0) + found;
        }
        const end = rows.at(-1);
        if (end === undefined || rows.length < atOnce) return bins;
        last = { atMs: Number(end["at_ms"]), seq: Number(end["seq"]) };
      }
    },
    ...showTables(db, numOf),
    log: (channel, { fromMs, toMs }) => logBetween(db, keys, channel, fromMs, toMs),
    lines: async (channel, asked) => {
      const num = await numOf(channel);
      const [chat, rest] = await Promise.all([
        asked.only === "rest" ? [] : chatLines(db, num, asked),
        asked.only === "chat" ? [] : otherLines(db, num, asked),
      ]);
      return [...chat, ...rest].sort((a, b) => a.atMs - b.atMs || a.seq - b.seq).slice(0, asked.limit);
    },
  };
}

/** Behind a place in the log. Said so that the key is used: of a pair compared with a pair MariaDB reads every row. */
function behind(query: Knex.QueryBuilder, { atMs, seq }: Readonly<{ atMs: number; seq: number }>, of: "" | "l." = ""): void {
  void query.whereRaw(`${of}at_ms >= ? and (${of}at_ms > ? or ${of}seq > ?)`, [atMs, atMs, seq]);
}
const likeOf = (words: string): string => `%${words.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;
/** Rows of one of the two logs, as they are asked for; `more` are columns that only this one has. */
async function rowsOf(
  db: Database,
  table: "chat_log" | "log",
  more: readonly string[],
  channel: number,
  asked: LinesAsked,
): Promise<Row[]> {
  const { fromMs, toMs, after, words, limit } = asked;
  const query = db(`${table} as l`)
    .where("l.channel", channel)
    .whereBetween("l.at_ms", [fromMs, toMs])
    .leftJoin("viewers as v", "v.id", "l.viewer")
    .orderBy("l.at_ms")
    .orderBy("l.seq")
    .limit(limit)
    .select("l.at_ms", "l.seq", "l.body", "v.name", ...more);
  if (after !== null) behind(query, after, "l.");
  if (words !== "") void query.where((b) => b.where("l.body", "like", likeOf(words)).orWhere("v.name", "like", likeOf(words)));
  return (await query) as Row[];
}
const placeOf = (r: Row) => ({ seq: Number(r["seq"]), atMs: Number(r["at_ms"]), name: text(r["name"] ?? "") });
const chatLines = async (db: Database, channel: number, asked: LinesAsked): Promise<LogLine[]> =>
  (await rowsOf(db, "chat_log", [], channel, asked)).map((r) => ({
    ...placeOf(r),
    kind: "message",
    source: "chat",
    text: text(r["body"]),
    body: null,
  }));
const otherLines = async (db: Database, channel: number, asked: LinesAsked): Promise<LogLine[]> =>
  (await rowsOf(db, "log", ["l.kind", "l.source"], channel, asked)).map((r) => {
    const body = bodyOf(r);
    const said = body["text"];
    return { ...placeOf(r), kind: text(r["kind"]), source: text(r["source"]), text: typeof said === "string" ? said : "", body };
  });
