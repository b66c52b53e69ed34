import type { LedgerRows } from "../../ports/engine-store";
import type { Database } from "./database";
import { ownCodes } from "./lean-tables";
import { type Row, text } from "./rows";
import { salesRemembered } from "./points";
import { dayMs } from "./ledger-keys";
import { saleId, saleOf, salesOf } from "./sales";

/** Of those without points the newest are known by name. */
const mostOthers = 200_000;

/**
 * All that the ledger’s cache keeps in memory, as of one moment. What it costs depends on how many people and rewards
 * there are and on what was sold lately, not on all that ever was.
 */
export async function ledgerRows(
  db: Database,
  channel: number,
  id: string,
  at: Readonly<{ showId: string; sinceMs: number }>,
  people: (rows: readonly Row[]) => void,
): Promise<LedgerRows> {
  return db.transaction(
    async (trx) => {
      const accounts = (await trx("viewers")
        .where({ channel, has_account: 1 })
        .select("id", "ext", "name", "roles", "balance", "day", "earned")) as Row[];
      people(accounts);
      const others = (await trx("viewers")
        .where({ channel, has_account: 0 })
        .orderBy("id", "desc")
        .limit(mostOthers)
        .select("ext", "name")) as Row[];
      const attended = (await trx("viewers")
        .where({ channel })
        .andWhere("shows", ">", 0)
        .select("ext", "shows", "first_ms", "last_ms", "last_show")) as Row[];
      const own = (await trx("own_accounts").where({ channel })) as Row[];
      const sold = (await trx("reward_totals").where({ channel }).select("reward_id", "sold", "handed")) as Row[];
      const show = (await trx("show_points").where({ channel, show_id: at.showId }).first("from_seq")) as Row | undefined;
      const soldInShow =
        at.showId === "" || show === undefined
          ? []
          : ((await trx("sales as s")
              .join("viewers as v", "v.id", "s.viewer")
              .where("s.channel", channel)
              .andWhere("s.seq", ">=", Number(show["from_seq"]))
              .andWhere("s.show_id", at.showId)
              .whereNot("s.state", "refunded")
              .groupBy("s.reward_id", "v.ext")
              .select("s.reward_id", "v.ext")
              .count("* as count")) as Row[]);
      const day = (await trx("daily_points")
        .where({ channel })
        .andWhere("day", ">=", Math.floor(at.sinceMs / dayMs))
        .min("from_seq as seq")
        .first()) as Row | undefined;
      const last =
        day?.["seq"] === null || day === undefined
          ? []
          : ((await trx("sales as s")
              .join("viewers as v", "v.id", "s.viewer")
              .where("s.channel", channel)
              .andWhere("s.seq", ">=", Number(day["seq"]))
              .andWhere("s.at_ms", ">=", at.sinceMs)
              .andWhere((q) => q.whereNot("s.state", "refunded").orWhere("s.shown", true))
              .groupBy("s.reward_id", "v.ext")
              .select("s.reward_id", "v.ext")
              .max("s.at_ms as at_ms")) as Row[]);
      const prices = (await trx("moving_prices").where({ channel_id: id })) as Row[];
      const waiting = (await salesOf(trx, channel)
        .join("open_sales as o", (on) => on.on("o.channel", "s.channel").andOn("o.seq", "s.seq"))
        .orderBy("s.at_ms")
        .orderBy("s.seq")) as Row[];
      const due = (await salesOf(trx, channel)
        .join("deliveries as d", (on) => on.on("d.channel", "s.channel").andOn("d.seq", "s.seq"))
        .select("d.until_ms")
        .orderBy("s.seq")) as Row[];
      const recent = (await salesOf(trx, channel).whereNot("s.state", "waiting").orderBy("s.seq", "desc").limit(salesRemembered)) as Row[];
      const named = Object.entries(ownCodes);
      return {
        accounts: [
          ...accounts.map((r) => ({
            account: `v:${text(r["ext"])}`,
            name: text(r["name"]),
            balance: Number(r["balance"]),
            day: Number(r["day"]),
            earned: Number(r["earned"]),
          })),
          ...own.flatMap((r) => {
            const name = named.find(([, code]) => code === Number(r["account"]))?.[0];
            return name === undefined || name === "passed"
              ? []
              : [{ account: name, name: "", balance: Number(r["balance"]), day: 0, earned: 0 }];
          }),
        ],
        others: others.reverse().map((r) => ({ id: text(r["ext"]), name: text(r["name"]) })),
        sold: sold.map((r) => ({ rewardId: text(r["reward_id"]), count: Number(r["sold"]), handed: Number(r["handed"]) })),
        soldInShow: soldInShow.map((r) => ({ rewardId: text(r["reward_id"]), viewer: text(r["ext"]), count: Number(r["count"]) })),
        last: last.map((r) => ({ rewardId: text(r["reward_id"]), viewer: text(r["ext"]), atMs: Number(r["at_ms"]) })),
        prices: prices.map((r) => ({
          rewardId: text(r["reward_id"]),
          at: { thousandths: Number(r["thousandths"]), atMs: Number(r["at_ms"]) },
        })),
        sales: [...due, ...recent.reverse(), ...waiting].map(saleOf),
        attended: attended.map((r) => ({
          viewer: text(r["ext"]),
          shows: Number(r["shows"]),
          firstMs: Number(r["first_ms"]),
          lastMs: Number(r["last_ms"]),
          showId: text(r["last_show"]),
        })),
        due: due.map((r) => ({ sale: saleId(r["seq"]), untilMs: Number(r["until_ms"]) })),
      };
    },
    { isolationLevel: "repeatable read" },
  );
}
