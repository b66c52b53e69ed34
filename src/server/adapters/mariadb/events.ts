import { z } from "zod";
import type { EventStore, GameRecord } from "../../ports/event-store";
import { channelId } from "../../../core/kernel/ids";
import { type Database, fromJson } from "./database";
import { bump, type Row, text } from "./rows";

/** From which signal on the entries of a round stand in rows of their own. */
const sinceSchema = z.object({ entriesSince: z.number() });
/** What rounds of chance are kept as. */
const roundKinds = ["spin", "round", "abandoned"];

const recordsOf = (db: Database) =>
  db("records as r")
    .join("channels as c", "c.num", "r.channel")
    .join("games as g", "g.id", "r.game_id")
    .leftJoin("viewers as v", "v.id", "r.viewer");
const recordColumns = [
  "r.id",
  "r.seq",
  "r.kind",
  "r.game_id",
  "r.from_ms",
  "r.to_ms",
  "g.name as game_name",
  "g.kind as game_kind",
  "v.ext",
  "v.name as viewer",
] as const;
const recordFrom = (r: Row): GameRecord => ({
  id: Number(r["id"]),
  seq: Number(r["seq"]),
  kind: text(r["kind"]),
  game: text(r["game_id"]),
  gameName: text(r["game_name"]),
  gameKind: text(r["game_kind"]),
  fromMs: Number(r["from_ms"]),
  toMs: Number(r["to_ms"]),
  viewer: r["ext"] === null ? null : { id: text(r["ext"]), name: text(r["viewer"]) },
  body: fromJson(r["body"]),
});

export function mariadbEvents(db: Database): EventStore {
  return {
    secret: async (channel) => {
      const row = await db("event_sources").where({ channel_id: channel }).first();
      if (row === undefined) return null;
      return {
        sealed: text(row.secret_sealed),
        sinceMs: Number(row["since_ms"]),
        oldUntilMs: row["old_secret_sealed"] === null ? 0 : Number(row["old_until_ms"]),
      };
    },
    setSecret: (channel, { sealed, oldUntilMs, nowMs }) =>
      db.transaction(async (trx) => {
        const row = await trx("event_sources").where({ channel_id: channel }).forUpdate().first();
        const next = { secret_sealed: sealed, since_ms: nowMs };
        if (row === undefined) await trx("event_sources").insert({ channel_id: channel, ...next });
        else
          await trx("event_sources")
            .where({ channel_id: channel })
            .update({ ...next, old_secret_sealed: row.secret_sealed, old_until_ms: oldUntilMs });
        await bump(trx as unknown as Database, channel);
      }),
    endOld: async (channel) => {
      await db("event_sources").where({ channel_id: channel }).update({ old_secret_sealed: null, old_until_ms: 0 });
      await bump(db, channel);
    },
    triggers: async (channel) => (await db("triggers").where({ channel_id: channel }).select("cue_id")).map((r) => text(r["cue_id"])),
    trigger: async (channel, cue) => {
      const row = await db("triggers").where({ channel_id: channel, cue_id: cue }).first("token_sealed");
      return row === undefined ? null : text(row["token_sealed"]);
    },
    setTrigger: async (channel, cue, token, nowMs) => {
      await db("triggers").where({ channel_id: channel, cue_id: cue }).delete();
      if (token !== null)
        await db("triggers").insert({
          channel_id: channel,
          cue_id: cue,
          token_hash: token.hash,
          token_sealed: token.sealed,
          since_ms: nowMs,
        });
      await bump(db, channel);
    },
    round: async (game, round) => {
      const [r] = await db("records as r")
        .join("channels as c", "c.num", "r.channel")
        .join("games as g", "g.id", "r.game_id")
        .leftJoin("viewers as v", "v.id", "r.viewer")
        .where("r.game_id", game)
        .whereIn("r.kind", roundKinds)
        .whereRaw("json_value(r.body, '$.round') = ?", [round])
        .orderBy("r.id", "desc")
        .limit(1)
        .select(
          "r.id",
          "r.kind",
          "r.to_ms",
          "r.body",
          "c.id as channel_id",
          "c.name as channel_name",
          "g.name as game_name",
          "v.name as viewer",
        );
      if (r === undefined) return null;
      const body = fromJson(r.body);
      const since = sinceSchema.safeParse(body);
      const entries = since.success
        ? await db("records")
            .where({ game_id: game, kind: "entry" })
            .where("seq", ">=", since.data.entriesSince)
            .where("id", "<", r.id)
            .orderBy("id")
            .select("body")
        : [];
      return {
        entries: entries.map((e) => fromJson(e.body)),
        channel: channelId(text(r.channel_id)),
        channelName: text(r.channel_name),
        gameName: text(r.game_name),
        kind: text(r.kind),
        atMs: Number(r.to_ms),
        viewer: r.viewer === null ? null : text(r.viewer),
        body,
      };
    },
    rounds: async (channel, { kinds, game, limit, between }) => {
      const rows = await recordsOf(db)
        .where("c.id", channel)
        .whereIn("r.kind", [...kinds])
        .modify((q) => (game === "" ? undefined : void q.where("r.game_id", game)))
        .modify((q) => (between === undefined ? undefined : void q.whereBetween("r.to_ms", [...between])))
        .orderBy("r.to_ms", "desc")
        .orderBy("r.id", "desc")
        .limit(limit)
        .select(...recordColumns, db.raw("json_remove(r.body, '$.proof') as body"));
      return (rows as Row[]).map(recordFrom);
    },
    record: async (channel, id) => {
      const [row] = (await recordsOf(db)
        .where({ "c.id": channel, "r.id": id })
        .select(...recordColumns, "r.body")) as Row[];
      return row === undefined ? null : recordFrom(row);
    },
    rowsBetween: async (game, kind, { fromMs, toMs, beforeId }) => {
      const rows = await db("records")
        .where({ game_id: game, kind })
        .where("id", "<", beforeId)
        .whereBetween("to_ms", [fromMs, toMs])
        .orderBy("id")
        .select("body");
      return rows.map((r) => fromJson(r.body));
    },
    records: async (channel, game, kind, limit) => {
      const rows = await db("records as r")
        .join("channels as c", "c.num", "r.channel")
        .leftJoin("viewers as v", "v.id", "r.viewer")
        .where({ "c.id": channel, "r.game_id": game, "r.kind": kind })
        .orderBy("r.id", "desc")
        .limit(limit)
        .select("r.*", "v.ext", "v.name");
      return rows.map((r) => ({
        id: Number(r["id"]),
        viewer: r["ext"] === null ? null : { id: text(r["ext"]), name: text(r["name"]) },
        fromMs: Number(r["from_ms"]),
        toMs: Number(r["to_ms"]),
        body: (typeof r["body"] === "string" ? JSON.parse(r["body"]) : r["body"]) as unknown,
      }));
    },
  };
}
