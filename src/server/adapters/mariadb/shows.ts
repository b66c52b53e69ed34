import { markKinds } from "../../../core/show/marks";
import type { ShowStore } from "../../ports/show-store";
import { type Database, fromJson } from "./database";
import { type Row, text } from "./rows";

const paceMinutes = 10;
type Body = Readonly<Record<string, unknown>>;
// What the engine wrote there: an object.
const bodyOf = (row: Row): Body => fromJson(row["body"]) as Body;

export function mariadbShows(db: Database): ShowStore {
  return {
    tape: async (channel, fromMs, toMs, limit) => {
      // By kind, whatever the optimiser thinks of the order: by time alone it would walk through all of chat.
      const rows = (await db(db.raw("signals FORCE INDEX (signals_by_kind)") as unknown as string)
        .where({ channel_id: channel })
        .whereBetween("at_ms", [fromMs, toMs])
        .whereIn("kind", [...markKinds])
        .orderBy("at_ms", "desc")
        .orderBy("seq", "desc")
        .limit(limit)
        .select("seq", "at_ms", "kind", "source", "viewer", "body")) as Row[];
      return rows.reverse().map((r) => ({
        seq: Number(r["seq"]),
        atMs: Number(r["at_ms"]),
        kind: text(r["kind"]),
        source: text(r["source"]),
        viewer: r["viewer"] === null ? null : text(r["viewer"]),
        body: bodyOf(r),
      }));
    },
    viewer: async (channel, id) => {
      const rows = (await db("signals")
        .where({ channel_id: channel, viewer: id })
        .orderBy("seq", "desc")
        .limit(40)
        .select("seq", "at_ms", "kind", "body")) as Row[];
      const newest = rows[0];
      if (newest === undefined) return null;
      const counted = (await db("signals").where({ channel_id: channel, viewer: id, kind: "message" }).count("* as n").first()) as
        Row | undefined;
      const first = (await db("signals").where({ channel_id: channel, viewer: id }).orderBy("seq").first("at_ms")) as Row | undefined;
      const hits = (await db("game_records")
        .where({ channel_id: channel, viewer: id, kind: "hit" })
        .select(db.raw("count(*) as n"), db.raw("coalesce(sum(json_value(body, '$.amount')), 0) as damage"))
        .first()) as Row | undefined;
      const reigns = (await db("game_records").where({ channel_id: channel, viewer: id, kind: "reign" }).count("* as n").first()) as
        Row | undefined;
      const account = (await db("point_balances")
        .where({ channel_id: channel, account: `v:${id}` })
        .first("balance")) as Row | undefined;
      const known = rows.map(bodyOf).find((b) => b["name"] !== undefined || b["viewer"] !== undefined) ?? {};
      const viewer = (known["viewer"] ?? known) as Body;
      return {
        id,
        name: String(viewer["name"] ?? id),
        roles: Array.isArray(viewer["roles"]) ? viewer["roles"].map(String) : [],
        last: rows.map((r) => {
          const body = bodyOf(r);
          return {
            seq: Number(r["seq"]),
            atMs: Number(r["at_ms"]),
            kind: text(r["kind"]),
            text: typeof body["text"] === "string" ? body["text"] : "",
            notes: Array.isArray(body["notes"]) ? body["notes"] : [],
          };
        }),
        messages: Number(counted?.["n"] ?? 0),
        firstMs: first === undefined ? null : Number(first["at_ms"]),
        hits: { count: Number(hits?.["n"] ?? 0), damage: Number(hits?.["damage"] ?? 0) },
        reigns: Number(reigns?.["n"] ?? 0),
        points: account === undefined ? null : Number(account["balance"]),
      };
    },
    fight: async (channel, game, sinceMs, nowMs) => {
      const of = () => db("game_records").where({ channel_id: channel, game_id: game });
      const rows = (await of()
        .whereIn("kind", ["hit", "heal", "undo"])
        .where("to_ms", ">=", sinceMs)
        .orderBy("id", "desc")
        .limit(240)
        .select("to_ms", "body")) as Row[];
      const leader = (await of()
        .where("kind", "hit")
        .where("to_ms", ">=", sinceMs)
        .whereNotNull("viewer")
        .groupBy("viewer")
        .orderBy("damage", "desc")
        .orderBy("viewer")
        .select(db.raw("max(viewer_name) as name"), db.raw("sum(json_value(body, '$.amount')) as damage"))
        .first()) as Row | undefined;
      const fromMs = Math.max(sinceMs, nowMs - paceMinutes * 60_000);
      const recent = (await of()
        .where("kind", "hit")
        .where("to_ms", ">=", fromMs)
        .select(db.raw("coalesce(sum(json_value(body, '$.amount')), 0) as damage"))
        .first()) as Row | undefined;
      return {
        points: rows.reverse().map((r) => ({ atMs: Number(r["to_ms"]), health: Number(bodyOf(r)["after"] ?? 0) })),
        leader: leader === undefined ? null : { name: text(leader["name"]), damage: Number(leader["damage"]) },
        recent: { damage: Number(recent?.["damage"] ?? 0), minutes: Math.max(1, (nowMs - fromMs) / 60_000) },
      };
    },
    past: async (channel, limit) => {
      const rows = (await db("game_records").where({ channel_id: channel, kind: "show" }).orderBy("to_ms", "desc").limit(limit)) as Row[];
      return rows.map((r) => {
        const body = bodyOf(r);
        return {
          fromMs: Number(r["from_ms"]),
          toMs: Number(r["to_ms"]),
          rehearsal: body["rehearsal"] === true,
          by: String(body["by"] ?? ""),
        };
      });
    },
  };
}
