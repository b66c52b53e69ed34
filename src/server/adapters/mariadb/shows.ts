import { mostBlows, paceMinutes } from "../../../core/rehearsal/fights";
import type { ChannelId } from "../../../core/kernel/ids";
import { markKinds } from "../../../core/show/timeline";
import type { ShowStore } from "../../ports/show-store";
import { type Database, fromJson } from "./database";
import { Keys, rolesOf } from "./keys";
import { type Row, text } from "./rows";

/** So many names of a show are listed; how many there were is told. */
const mostNames = 60;
type Body = Readonly<Record<string, unknown>>;
// What the engine wrote there: an object.
const bodyOf = (row: Row): Body => fromJson(row["body"]) as Body;

export function mariadbShows(db: Database): ShowStore {
  const keys = new Keys(db);
  const numOf = async (channel: ChannelId): Promise<number> => (await keys.channel(channel)) ?? 0;
  return {
    tape: async (channel, fromMs, toMs, limit, kinds = markKinds) => {
      // What chat said has a table of its own, so this reads a few hundred rows whatever an evening was like.
      const rows = (await db("log")
        .where({ channel: await numOf(channel) })
        .whereBetween("at_ms", [fromMs, toMs])
        .whereIn("kind", [...kinds])
        .orderBy("at_ms", "desc")
        .orderBy("seq", "desc")
        .limit(limit)
        .select("seq", "at_ms", "kind", "source", "body")) as Row[];
      return rows.reverse().map((r) => ({
        seq: Number(r["seq"]),
        atMs: Number(r["at_ms"]),
        kind: text(r["kind"]),
        source: text(r["source"]),
        body: bodyOf(r),
      }));
    },
    viewer: async (channel, id) => {
      const who = (await db("viewers")
        .where({ channel: await numOf(channel), ext: id })
        .first()) as Row | undefined;
      if (who === undefined) return null;
      const key = Number(who["id"]);
      const said = (await db("chat_log")
        .where({ viewer: key })
        .orderBy("at_ms", "desc")
        .orderBy("seq", "desc")
        .limit(40)
        .select("seq", "at_ms", db.raw("'message' as kind"), "body")) as Row[];
      const did = (await db("log")
        .where({ viewer: key })
        .orderBy("at_ms", "desc")
        .orderBy("seq", "desc")
        .limit(40)
        .select("seq", "at_ms", "kind", "body")) as Row[];
      const rows = [...said, ...did]
        .sort((a, b) => Number(b["at_ms"]) - Number(a["at_ms"]) || Number(b["seq"]) - Number(a["seq"]))
        .slice(0, 40);
      if (rows.length === 0 && Number(who["has_account"]) === 0) return null;
      const [counted, first, done] = (await Promise.all([
        db("chat_log").where({ viewer: key }).count("* as n").min("at_ms as at").first(),
        db("log").where({ viewer: key }).min("at_ms as at").first(),
        db("records")
          .where({ viewer: key })
          .whereIn("kind", ["hit", "reign"])
          .groupBy("kind")
          .select("kind", db.raw("count(*) as n"), db.raw("coalesce(sum(json_value(body, '$.amount')), 0) as damage")),
      ])) as [Row | undefined, Row | undefined, Row[]];
      const hits = done.find((r) => r["kind"] === "hit");
      const reigns = done.find((r) => r["kind"] === "reign");
      const firsts = [counted?.["at"], first?.["at"]].filter((at) => at !== null && at !== undefined).map(Number);
      return {
        id,
        name: text(who["name"]) || id,
        roles: [...rolesOf(Number(who["roles"]))],
        last: rows.map((r) => {
          const body = r["kind"] === "message" ? { text: text(r["body"]) } : bodyOf(r);
          return {
            seq: Number(r["seq"]),
            atMs: Number(r["at_ms"]),
            kind: text(r["kind"]),
            text: typeof body["text"] === "string" ? body["text"] : "",
            notes: Array.isArray(body["notes"]) ? body["notes"] : [],
          };
        }),
        messages: Number(counted?.["n"] ?? 0),
        firstMs: firsts.length === 0 ? null : Math.min(...firsts),
        hits: { count: Number(hits?.["n"] ?? 0), damage: Number(hits?.["damage"] ?? 0) },
        reigns: Number(reigns?.["n"] ?? 0),
        points: Number(who["has_account"]) === 0 ? null : Number(who["balance"]),
      };
    },
    fight: async (channel, game, sinceMs, nowMs) => {
      const num = await numOf(channel);
      const of = () => db("records").where("records.channel", num).where("game_id", game);
      const rows = (await of()
        .whereIn("kind", ["hit", "heal", "undo"])
        .where("to_ms", ">=", sinceMs)
        .orderBy("records.id", "desc")
        .limit(mostBlows)
        .select("to_ms", "body")) as Row[];
      const leader = (await of()
        .where("kind", "hit")
        .where("to_ms", ">=", sinceMs)
        .join("viewers as v", "v.id", "records.viewer")
        .groupBy("v.id")
        .orderBy("damage", "desc")
        .orderBy("v.ext")
        .select(db.raw("max(v.name) as name"), db.raw("sum(json_value(body, '$.amount')) as damage"))
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
    whoCame: async (channel, fromMs, toMs, awayDays) => {
      const num = await numOf(channel);
      const arrivals = () =>
        db("log")
          .where("log.channel", num)
          .where("log.kind", "arrival")
          .whereBetween("log.at_ms", [fromMs, toMs])
          .leftJoin("viewers as v", "v.id", "log.viewer");
      const shows = "cast(json_value(log.body, '$.shows') as unsigned)";
      // Signed: a clock that was set back puts the time before after this one.
      const days = "floor((log.at_ms - cast(json_value(log.body, '$.beforeMs') as signed)) / 86400000)";
      const [all, fresh, back] = (await Promise.all([
        arrivals()
          .select(
            db.raw("count(*) as came"),
            db.raw(`coalesce(sum(${shows} = 1), 0) as fresh`),
            db.raw(`coalesce(sum(${days} >= ?), 0) as back`, [awayDays]),
          )
          .first(),
        arrivals().whereRaw(`${shows} = 1`).orderBy("log.at_ms").orderBy("log.seq").limit(mostNames).select("v.name"),
        arrivals()
          .whereRaw(`${days} >= ?`, [awayDays])
          .orderBy("days", "desc")
          .orderBy("log.seq")
          .limit(mostNames)
          .select("v.name", db.raw(`${days} as days`)),
      ])) as [Row | undefined, Row[], Row[]];
      const presented = (await db("records")
        .where({ channel: num, kind: "presented" })
        .whereBetween("to_ms", [fromMs, toMs])
        .orderBy("id")
        .limit(mostNames)
        .select("body")) as Row[];
      const nameOf = (row: Row): string => text(row["name"] ?? "") || "somebody";
      return {
        came: Number(all?.["came"] ?? 0),
        fresh: { count: Number(all?.["fresh"] ?? 0), names: fresh.map(nameOf) },
        back: { count: Number(all?.["back"] ?? 0), people: back.map((r) => ({ name: nameOf(r), days: Number(r["days"]) })) },
        presented: presented.map((r) => ({ name: String(bodyOf(r)["name"] ?? ""), page: String(bodyOf(r)["page"] ?? "") })),
      };
    },
    past: async (channel, limit) => {
      const rows = (await db("records")
        .where({ channel: await numOf(channel), kind: "show" })
        .leftJoin("show_reviews as own", "own.record", "records.id")
        .orderBy("to_ms", "desc")
        .limit(limit)
        .select("records.id", "own.name", "from_ms", "to_ms", "body")) as Row[];
      return rows.map((r) => {
        const body = bodyOf(r);
        return {
          id: Number(r["id"]),
          name: text(r["name"] ?? ""),
          fromMs: Number(r["from_ms"]),
          toMs: Number(r["to_ms"]),
          rehearsal: body["rehearsal"] === true,
          by: String(body["by"] ?? ""),
        };
      });
    },
  };
}
