import { fold } from "../../../core/kernel/fold";
import { forgetInChatFiles } from "./chat-logs";
import { forgetInOutsideShows } from "./outside-shows";
import { forgetInMoments, forgetInRecords } from "./forget-records";
import type { Reason } from "../../../core/points/ledger";
import type { PointsStore } from "../../ports/points-store";
import type { ChannelId } from "../../../core/kernel/ids";
import { viewerId } from "../../../core/kernel/text";
import { type Database, fromJson } from "./database";
import { Keys } from "./keys";
import { chunks } from "./chunks";
import { saleOf, saleSeq, salesOf } from "./sales";
import { type Row, text } from "./rows";

const holdings = [0, 100, 500, 1_000, 5_000, 20_000, null] as const;
const likeText = (words: string): string => words.replace(/[\\%_]/g, (c) => `\\${c}`);

const dayMs = 86_400_000;
/** How many rounds of presence and the like are looked through for one person's history. */
const roundsLooked = 300;
const shownRows = 60;

/** What operators read of points and sales. */
export function mariadbPoints(db: Database): PointsStore {
  const keys = new Keys(db);
  const numOf = async (channel: ChannelId): Promise<number> => (await keys.channel(channel)) ?? 0;
  /** Everybody who was ever heard of; `viewers` are those with an account. */
  const known = (num: number) => db("viewers as v").where({ "v.channel": num }).whereNot("v.name", "");
  const viewers = (num: number) => db("viewers as v").where({ "v.channel": num, "v.has_account": 1 });
  const columns = ["v.id", "v.ext", "v.name", "v.balance", "v.moved_ms", "v.earned_ever", "v.spent_ever"] as const;
  const personOf = (r: Row) => ({
    id: text(r["ext"]),
    name: text(r["name"]),
    balance: Number(r["balance"]),
    lastMs: r["moved_ms"] === null || r["moved_ms"] === undefined ? null : Number(r["moved_ms"]),
  });
  return {
    people: async (channel, like, limit) => {
      // Somebody who is looked for is found, with points or without.
      const query = (like === "" ? viewers : known)(await numOf(channel))
        .orderBy("v.balance", "desc")
        .orderBy("v.ext")
        .limit(limit);
      if (like !== "") void query.andWhere((q) => q.where("v.name", "like", `%${likeText(like)}%`).orWhere("v.ext", viewerId(like)));
      return ((await query.select(...columns)) as Row[]).map(personOf);
    },
    everybody: async (channel) =>
      (
        (await viewers(await numOf(channel))
          .orderBy("v.ext")
          .select(...columns)) as Row[]
      ).map(personOf),
    known: async (channel) => {
      const rows = (await known(await numOf(channel)).select("v.ext", "v.name")) as Row[];
      return rows.map((r) => ({ id: text(r["ext"]), name: text(r["name"]) }));
    },
    person: async (channel, id) => {
      const num = await numOf(channel);
      const row = (await known(num)
        .andWhere("v.ext", id)
        .first(...columns)) as Row | undefined;
      if (row === undefined) return null;
      const key = Number(row["id"]);
      const moved = (await db("transfers")
        .where({ account: key })
        .orderBy("seq", "desc")
        .limit(shownRows)
        .select("at_ms", "seq", "reason", "about", "by", "amount")) as Row[];
      const bought = (await db("sales")
        .where({ viewer: key })
        .andWhere("price", ">", 0)
        .orderBy("seq", "desc")
        .limit(shownRows)
        .select(
          "at_ms",
          "seq",
          db.raw("if(held = 1, 'asked', 'bought') as reason"),
          "reward_name as about",
          db.raw("'' as `by`"),
          db.raw("-price as amount"),
        )) as Row[];
      const rounds = (await db
        .from(db("transfers_to_many").where({ channel: num }).orderBy("seq", "desc").limit(roundsLooked).as("t"))
        .whereRaw("find_in_set(?, t.viewers) > 0", [key])
        .select("t.at_ms", "t.seq", "t.reason", "t.about", "t.by", "t.amount")) as Row[];
      const history = [...moved, ...bought, ...rounds]
        .sort((a, b) => Number(b["at_ms"]) - Number(a["at_ms"]) || Number(b["seq"]) - Number(a["seq"]))
        .slice(0, shownRows);
      const sales = (await salesOf(db, num).andWhere("s.viewer", key).orderBy("s.seq", "desc").limit(30)) as Row[];
      return {
        ...personOf(row),
        earned: Number(row["earned_ever"]),
        spent: Number(row["spent_ever"]),
        history: history.map((r) => ({
          atMs: Number(r["at_ms"]),
          reason: text(r["reason"]) as Reason,
          about: text(r["about"]),
          by: text(r["by"]),
          amount: Number(r["amount"]),
        })),
        sales: sales.map(saleOf),
      };
    },
    sales: async (channel, { state, reward, limit }) => {
      const query = salesOf(db, await numOf(channel))
        .leftJoin("sale_details as d", (on) => on.on("d.channel", "s.channel").andOn("d.seq", "s.seq"))
        .select(db.raw("d.sealed is not null as has_detail"))
        .orderBy("s.seq", state === "waiting" ? "asc" : "desc")
        .limit(limit);
      if (state === "waiting") void query.join("open_sales as o", (on) => on.on("o.channel", "s.channel").andOn("o.seq", "s.seq"));
      else if (state !== "all") void query.andWhere("s.state", state);
      if (reward !== "") void query.andWhere("s.reward_id", reward);
      return ((await query) as Row[]).map((r) => ({ ...saleOf(r), hasDetail: Boolean(r["has_detail"]) }));
    },
    keepDetail: async (channel, sale, sealed) => {
      const num = await numOf(channel);
      await db.raw(
        `insert into sale_details (channel, seq, sealed) select channel, seq, ? from sales where channel = ? and seq = ? and state = 'waiting'
         on duplicate key update sealed = values(sealed)`,
        [sealed, num, saleSeq(sale) ?? 0],
      );
    },
    detail: async (channel, sale) => {
      const row = (await db("sale_details")
        .where({ channel: await numOf(channel), seq: saleSeq(sale) ?? 0 })
        .first("sealed")) as Row | undefined;
      return row === undefined ? null : text(row["sealed"]);
    },
    prices: async (channel, reward, limit) => {
      const rows = (await db("sales")
        .where({ channel: await numOf(channel), reward_id: reward })
        .orderBy("seq", "desc")
        .limit(limit)
        .select("at_ms", "price")) as Row[];
      return rows.reverse().map((r) => ({ atMs: Number(r["at_ms"]), price: Number(r["price"]) }));
    },
    charts: async (channel) => {
      const num = await numOf(channel);
      const days = (await db("daily_points").where({ channel: num }).orderBy("day").select("day", "made", "spent")) as Row[];
      const byMonth = new Map<string, { made: number; spent: number }>();
      for (const r of days) {
        const month = new Date(Number(r["day"]) * dayMs).toISOString().slice(0, 7);
        const sum = byMonth.get(month) ?? { made: 0, spent: 0 };
        byMonth.set(month, { made: sum.made + Number(r["made"]), spent: sum.spent + Number(r["spent"]) });
      }
      let there = 0;
      const months = [...byMonth].map(([month, { made, spent }]) => {
        there += made - spent;
        return { month, made, spent, there };
      });
      const showRows = (await db("records as r")
        .leftJoin("show_points as p", (on) =>
          on.on("p.channel", "r.channel").andOn("p.show_id", db.raw("coalesce(json_value(r.body, '$.id'), concat('at-', r.from_ms))")),
        )
        .where({ "r.channel": num, "r.kind": "show" })
        .orderBy("r.to_ms", "desc")
        .limit(24)
        .select("r.from_ms", "r.to_ms", "r.body", "p.made", "p.spent")) as Row[];
      const shows = showRows
        .reverse()
        .filter((r) => (fromJson(r["body"]) as { rehearsal?: boolean }).rehearsal !== true)
        .map((r) => ({
          fromMs: Number(r["from_ms"]),
          toMs: Number(r["to_ms"]),
          made: Number(r["made"] ?? 0),
          spent: Number(r["spent"] ?? 0),
        }));
      const rewards = (await db("reward_totals")
        .where({ channel: num })
        .andWhere("sold", ">", 0)
        .orderBy("points", "desc")
        .limit(12)
        .select("reward_id", "name", "sold as count", "points")) as Row[];
      const holders = [];
      for (const [i, most] of holdings.entries()) {
        const least = i === 0 ? null : holdings[i - 1];
        const query = viewers(num);
        if (least !== null && least !== undefined) void query.andWhere("v.balance", ">", least);
        if (most !== null) void query.andWhere("v.balance", "<=", most);
        const row = (await query.first(db.raw("count(*) as viewers"), db.raw("coalesce(sum(v.balance), 0) as points"))) as Row;
        holders.push({ most, viewers: Number(row["viewers"]), points: Number(row["points"]) });
      }
      return {
        months,
        shows,
        rewards: rewards.map((r) => ({
          id: text(r["reward_id"]),
          name: text(r["name"]),
          count: Number(r["count"]),
          points: Number(r["points"]),
        })),
        holders,
      };
    },
    forget: async (channel, id, as) => {
      await db.transaction(async (trx) => {
        const num = await numOf(channel);
        const row = (await trx("viewers").where({ channel: num, ext: id }).forUpdate().first("id", "name")) as Row | undefined;
        if (row === undefined) return;
        const [key, name] = [Number(row["id"]), text(row["name"])];
        // All else knows them by a key only: they get a name that says nothing, and the ledger still balances.
        await trx("viewers")
          .where({ id: key })
          .update({ ext: as, name: "somebody", roles: 0, shows: 0, first_ms: null, last_ms: null, last_show: "" });
        await trx("sales").where({ viewer: key }).update({ text: "" });
        await trx("sale_details")
          .where({ channel: num })
          .whereIn("seq", trx("sales").where({ viewer: key }).select("seq"))
          .delete();
        await trx("viewer_sessions").where({ viewer_key: key }).delete();
        await trx("chat_log").where({ viewer: key }).update({ body: "" });
        await trx("log")
          .where({ viewer: key })
          .update({ body: JSON.stringify({ forgotten: true }) });
        await trx("faces")
          .where({ channel: num, name_key: Buffer.from(fold(name)) })
          .delete();
        await forgetInRecords(trx as unknown as Database, num, key, id, name);
        await forgetInMoments(trx as unknown as Database, num, name);
        await forgetInChatFiles(trx as unknown as Database, num, name);
        await forgetInOutsideShows(trx as unknown as Database, num, name);
        // What was given to them names them in the giver's history.
        const given = (await trx("transfers").where({ account: key, reason: "gift" }).select("seq")) as Row[];
        for (const some of chunks(given.map((g) => Number(g["seq"]))))
          await trx("transfers")
            .where({ channel: num, reason: "gift" })
            .whereIn("seq", [...some])
            .update({ about: "somebody" });
      });
      keys.forgetAll(await numOf(channel));
    },
  };
}
