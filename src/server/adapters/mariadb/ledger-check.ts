import type { ChannelId } from "../../../core/kernel/ids";
import type { LedgerFault } from "../../../core/points/ledger";
import type { Database } from "./database";
import { type Row, text } from "./rows";

export type LedgerReport = Readonly<{ entries: number; postings: number; accounts: number; faults: readonly LedgerFault[] }>;

/**
 * Rebuilds every balance of a channel from its postings, by the database itself, and says what differs.
 * Beside the rules of the ledger it looks at the sales: what is held is what waits, to the point.
 */
export async function checkLedgerOf(db: Database, id: ChannelId): Promise<LedgerReport> {
  return db.transaction(
    async (trx) => {
      const faults: LedgerFault[] = [];
      const unbalanced = (await trx("point_entries as e")
        .join("point_postings as p", (on) => on.on("p.channel_id", "e.channel_id").andOn("p.seq", "e.seq").andOn("p.n", "e.n"))
        .where("e.channel_id", id)
        .groupBy("e.seq", "e.n", "e.entry_key")
        .havingRaw("sum(p.amount) <> 0")
        .select("e.entry_key")
        .sum("p.amount as sum")) as Row[];
      for (const r of unbalanced) faults.push({ what: "unbalanced", about: text(r["entry_key"]), found: Number(r["sum"]), meant: 0 });
      const [differ] = (await trx.raw(
        `select account, sum(kept) as kept, sum(rebuilt) as rebuilt from (
           select account, balance as kept, 0 as rebuilt from point_balances where channel_id = ?
           union all
           select account, 0, sum(amount) from point_postings where channel_id = ? group by account
         ) both_sides group by account having sum(kept) <> sum(rebuilt) or (sum(kept) < 0 and account like 'v:%')`,
        [id, id],
      )) as [Row[]];
      for (const r of differ) {
        const [found, meant] = [Number(r["kept"]), Number(r["rebuilt"])];
        if (found !== meant) faults.push({ what: "balance", about: text(r["account"]), found, meant });
        if (found < 0 && text(r["account"]).startsWith("v:")) faults.push({ what: "negative", about: text(r["account"]), found, meant: 0 });
      }
      const held = (await trx("point_balances").where({ channel_id: id, account: "held" }).first("balance")) as Row | undefined;
      const waits = (await trx("sales").where({ channel_id: id, state: "waiting" }).sum("price as sum").first()) as Row | undefined;
      const [found, meant] = [Number(held?.["balance"] ?? 0), Number(waits?.["sum"] ?? 0)];
      if (found !== meant) faults.push({ what: "balance", about: "held, against what waits", found, meant });
      const many = async (table: string): Promise<number> =>
        Number(((await trx(table).where({ channel_id: id }).count("* as n").first()) as Row | undefined)?.["n"] ?? 0);
      return {
        entries: await many("point_entries"),
        postings: await many("point_postings"),
        accounts: await many("point_balances"),
        faults,
      };
    },
    { readOnly: true },
  );
}

/** Sets balances to what the postings say. Touches no entry. */
export async function rebuildBalances(db: Database, id: ChannelId): Promise<number> {
  const [done] = (await db.raw(
    `update point_balances b
       left join (select account, sum(amount) as sum from point_postings where channel_id = ? group by account) p on p.account = b.account
       set b.balance = coalesce(p.sum, 0) where b.channel_id = ? and b.balance <> coalesce(p.sum, 0)`,
    [id, id],
  )) as [{ affectedRows: number }];
  return done.affectedRows;
}
