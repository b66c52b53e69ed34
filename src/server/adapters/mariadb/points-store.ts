import type { Reason } from "../../../core/points/ledger";
import type { PointsStore } from "../../ports/points-store";
import { type Database, fromJson } from "./database";
import { saleOf } from "./points";
import { type Row, text } from "./rows";

const holdings = [0, 100, 500, 1_000, 5_000, 20_000, null] as const;
const likeText = (words: string): string => words.replace(/[\\%_]/g, (c) => `\\${c}`);

/** What operators read of points and sales. */
export function mariadbPoints(db: Database): PointsStore {
  const viewers = (channel: string) => db("point_balances as b").where("b.channel_id", channel).where("b.account", "like", "v:%");
  const lastOf = db.raw(
    "(select max(e.at_ms) from point_postings p join point_entries e on e.channel_id = p.channel_id and e.seq = p.seq and e.n = p.n where p.channel_id = b.channel_id and p.account = b.account) as last_ms",
  );
  const personOf = (r: Row) => ({
    id: text(r["account"]).slice(2),
    name: text(r["name"]),
    balance: Number(r["balance"]),
    lastMs: r["last_ms"] === null || r["last_ms"] === undefined ? null : Number(r["last_ms"]),
  });
  return {
    people: async (channel, like, limit) => {
      const query = viewers(channel).orderBy("b.balance", "desc").orderBy("b.account").limit(limit);
      if (like !== "") void query.andWhere((q) => q.where("b.name", "like", `%${likeText(like)}%`).orWhere("b.account", `v:${like}`));
      return ((await query.select("b.account", "b.name", "b.balance", lastOf)) as Row[]).map(personOf);
    },
    everybody: async (channel) =>
      ((await viewers(channel).orderBy("b.account").select("b.account", "b.name", "b.balance")) as Row[]).map(personOf),
    person: async (channel, id) => {
      const account = `v:${id}`;
      const row = (await viewers(channel).andWhere("b.account", account).first("b.account", "b.name", "b.balance", lastOf)) as
        Row | undefined;
      if (row === undefined) return null;
      const postings = () =>
        db("point_postings as p")
          .join("point_entries as e", (on) => on.on("e.channel_id", "p.channel_id").andOn("e.seq", "p.seq").andOn("e.n", "p.n"))
          .where("p.channel_id", channel)
          .where("p.account", account);
      const history = (await postings()
        .orderBy("e.at_ms", "desc")
        .orderBy("e.seq", "desc")
        .limit(60)
        .select("e.at_ms", "e.reason", "e.about", "e.by", "p.amount")) as Row[];
      const sums = (await postings().first(
        db.raw("coalesce(sum(if(p.amount > 0 and e.reason in ('presence','signal','opening'), p.amount, 0)), 0) as earned"),
        db.raw("coalesce(sum(if(e.reason in ('bought','asked','refunded'), -p.amount, 0)), 0) as spent"),
      )) as Row;
      const sales = (await db("sales").where({ channel_id: channel, viewer: id }).orderBy("at_ms", "desc").limit(30)) as Row[];
      return {
        ...personOf(row),
        earned: Number(sums["earned"]),
        spent: Number(sums["spent"]),
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
      const query = db("sales")
        .where({ channel_id: channel })
        .orderBy("at_ms", state === "waiting" ? "asc" : "desc")
        .limit(limit);
      if (state !== "all") void query.andWhere({ state });
      if (reward !== "") void query.andWhere({ reward_id: reward });
      return ((await query) as Row[]).map((r) => ({ ...saleOf(r), hasDetail: r["detail_sealed"] !== null }));
    },
    keepDetail: async (channel, sale, sealed) =>
      void (await db("sales").where({ channel_id: channel, id: sale, state: "waiting" }).update({ detail_sealed: sealed })),
    detail: async (channel, sale) => {
      const row = (await db("sales").where({ channel_id: channel, id: sale }).first("detail_sealed")) as Row | undefined;
      return row === undefined || row["detail_sealed"] === null ? null : text(row["detail_sealed"]);
    },
    prices: async (channel, reward, limit) => {
      const rows = (await db("sales")
        .where({ channel_id: channel, reward_id: reward })
        .orderBy("at_ms", "desc")
        .limit(limit)
        .select("at_ms", "price")) as Row[];
      return rows.reverse().map((r) => ({ atMs: Number(r["at_ms"]), price: Number(r["price"]) }));
    },
    charts: async (channel) => {
      const monthRows = (await db("point_entries as e")
        .join("point_postings as p", (on) => on.on("p.channel_id", "e.channel_id").andOn("p.seq", "e.seq").andOn("p.n", "e.n"))
        .where("e.channel_id", channel)
        .whereIn("p.account", ["issued", "spent"])
        .groupByRaw("date_format(from_unixtime(e.at_ms / 1000), '%Y-%m')")
        .orderBy("month")
        .select(
          db.raw("date_format(from_unixtime(e.at_ms / 1000), '%Y-%m') as month"),
          db.raw("sum(if(p.account = 'issued', -p.amount, 0)) as made"),
          db.raw("sum(if(p.account = 'spent', p.amount, 0)) as spent"),
        )) as Row[];
      let there = 0;
      const months = monthRows.map((r) => {
        const [made, spent] = [Number(r["made"]), Number(r["spent"])];
        there += made - spent;
        return { month: text(r["month"]), made, spent, there };
      });
      const showRows = (await db("game_records")
        .where({ channel_id: channel, kind: "show" })
        .orderBy("to_ms", "desc")
        .limit(24)
        .select("from_ms", "to_ms", "body")) as Row[];
      const shows = [];
      for (const r of showRows.reverse()) {
        if ((fromJson(r["body"]) as { rehearsal?: boolean }).rehearsal === true) continue;
        const [fromMs, toMs] = [Number(r["from_ms"]), Number(r["to_ms"])];
        const sums = (await db("point_entries as e")
          .join("point_postings as p", (on) => on.on("p.channel_id", "e.channel_id").andOn("p.seq", "e.seq").andOn("p.n", "e.n"))
          .where("e.channel_id", channel)
          .whereBetween("e.at_ms", [fromMs, toMs])
          .whereIn("p.account", ["issued", "spent"])
          .first(
            db.raw("coalesce(sum(if(p.account = 'issued', -p.amount, 0)), 0) as made"),
            db.raw("coalesce(sum(if(p.account = 'spent', p.amount, 0)), 0) as spent"),
          )) as Row;
        shows.push({ fromMs, toMs, made: Number(sums["made"]), spent: Number(sums["spent"]) });
      }
      const rewards = (await db("sales")
        .where({ channel_id: channel })
        .whereNot({ state: "refunded" })
        .groupBy("reward_id")
        .orderBy("points", "desc")
        .limit(12)
        .select("reward_id", db.raw("max(reward_name) as name"), db.raw("count(*) as count"), db.raw("sum(price) as points"))) as Row[];
      const holders = [];
      for (const [i, most] of holdings.entries()) {
        const least = i === 0 ? null : holdings[i - 1];
        const query = viewers(channel);
        if (least !== null && least !== undefined) void query.andWhere("b.balance", ">", least);
        if (most !== null) void query.andWhere("b.balance", "<=", most);
        const row = (await query.first(db.raw("count(*) as viewers"), db.raw("coalesce(sum(b.balance), 0) as points"))) as Row;
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
        const account = `v:${id}`;
        // The account's own rows move to a name that says nothing; its sums stay, so the ledger still balances.
        await trx("point_balances")
          .where({ channel_id: channel, account })
          .update({ account: `v:${as}`, name: "somebody" });
        await trx("point_postings")
          .where({ channel_id: channel, account })
          .update({ account: `v:${as}` });
        await trx("sales")
          .where({ channel_id: channel, viewer: id })
          .update({ viewer: as, viewer_name: "somebody", text: "", detail_sealed: null });
        await trx("viewer_sessions").where({ channel_id: channel, viewer: id }).delete();
        await trx("game_records").where({ channel_id: channel, viewer: id }).update({ viewer: as, viewer_name: "somebody" });
        await trx("signals")
          .where({ channel_id: channel, viewer: id })
          .update({ viewer: as, body: JSON.stringify({ forgotten: true }) });
      });
    },
  };
}
