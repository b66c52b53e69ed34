import type { ChannelId } from "../../../core/kernel/ids";
import type { ReviewStore } from "../../ports/review-store";
import { type Database, fromJson } from "./database";
import { type Row, text } from "./rows";
import { saleOf, salesOf } from "./sales";

export const givenKinds = ["follow", "membership", "gift", "tip", "reaction", "raid", "host"] as const;

/** What was sold in a show, and who was there, as tables. */
export function showTables(
  db: Database,
  numOf: (channel: ChannelId) => Promise<number>,
): Pick<ReviewStore, "faults" | "sales" | "sold" | "people"> {
  return {
    faults: async (channel, { fromMs, toMs }) => {
      const rows = (await db("records")
        .where({ channel: await numOf(channel), kind: "fault" })
        .where("to_ms", ">=", fromMs)
        .where("from_ms", "<=", toMs)
        .orderBy("from_ms")
        .limit(200)
        .select("id", "from_ms", "to_ms", "body")) as Row[];
      return rows.map((r) => {
        const body = fromJson(r["body"]) as Readonly<Record<string, unknown>>;
        const of = (key: string): string => (typeof body[key] === "string" ? body[key] : "");
        return {
          id: Number(r["id"]),
          name: of("name"),
          says: of("says"),
          means: of("means"),
          fromMs: Number(r["from_ms"]),
          toMs: Number(r["to_ms"]),
        };
      });
    },
    sales: async (channel, { fromMs, toMs, after, limit }) => {
      const rows = (await salesOf(db, await numOf(channel))
        .whereBetween("s.at_ms", [fromMs, toMs])
        .where("s.seq", ">", after)
        .orderBy("s.seq")
        .limit(limit)) as Row[];
      return rows.map((r) => ({ seq: Number(r["seq"]), sale: saleOf(r) }));
    },
    sold: async (channel, { fromMs, toMs }) => {
      const rows = (await db("sales")
        .where({ channel: await numOf(channel) })
        .whereBetween("at_ms", [fromMs, toMs])
        .groupBy("reward_id")
        .orderByRaw("count(*) desc, reward_id")
        .limit(300)
        .select(
          db.raw("max(reward_name) as reward, count(*) as n, coalesce(sum(state = 'refunded'), 0) as back"),
          db.raw("coalesce(sum(shown), 0) as shown, coalesce(sum(if(state = 'refunded', 0, price)), 0) as points"),
        )) as Row[];
      return rows.map((r) => ({
        reward: text(r["reward"]),
        count: Number(r["n"]),
        refunded: Number(r["back"]),
        shown: Number(r["shown"]),
        points: Number(r["points"]),
      }));
    },
    people: async (channel, { fromMs, toMs, limit }) => {
      const num = await numOf(channel);
      const of = (table: "chat_log" | "log", counts: string) =>
        db(table)
          .where({ channel: num })
          .whereBetween("at_ms", [fromMs, toMs])
          .whereNotNull("viewer")
          .groupBy("viewer")
          .select("viewer", db.raw(`${counts}, min(at_ms) as first_ms, max(at_ms) as last_ms`));
      const rows = (await db
        .from(
          db
            .unionAll(
              [
                of("chat_log", "count(*) as messages, 0 as given"),
                of("log", "0 as messages, count(*) as given").whereIn("kind", [...givenKinds]),
              ],
              true,
            )
            .as("u"),
        )
        .join("viewers as v", "v.id", "u.viewer")
        .groupBy("v.id", "v.ext", "v.name")
        .orderByRaw("sum(u.messages) + sum(u.given) desc, v.ext")
        .limit(limit)
        .select(
          "v.ext",
          "v.name",
          db.raw("sum(u.messages) as messages, sum(u.given) as given, min(u.first_ms) as first_ms, max(u.last_ms) as last_ms"),
        )) as Row[];
      return rows.map((r) => ({
        id: text(r["ext"]),
        name: text(r["name"]),
        messages: Number(r["messages"]),
        given: Number(r["given"]),
        firstMs: Number(r["first_ms"]),
        lastMs: Number(r["last_ms"]),
      }));
    },
  };
}
