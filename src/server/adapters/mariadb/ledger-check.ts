import type { ChannelId } from "../../../core/kernel/ids";
import type { LedgerFault } from "../../../core/points/ledger";
import type { Knex } from "knex";
import { readStored } from "../../../core/kernel/stored";
import { moduleOf } from "../../../core/modules";
import { type Database, fromJson } from "./database";
import { ownCodes } from "./lean-tables";
import { type Row, text } from "./rows";

export type LedgerReport = Readonly<{ entries: number; postings: number; accounts: number; faults: readonly LedgerFault[] }>;

/**
 * Every balance of a channel made anew from what was written. Each row has two sides, so that none can fail
 * to balance by itself. Six times the channel's number.
 */
export const balancesFromJournal = `
  select account, sum(amount) as balance from (
    select account, amount from transfers where channel = ?
    union all select against, -amount from transfers where channel = ?
    union all select viewer, -price from sales where channel = ?
    union all select if(held = 1, ${ownCodes.held}, ${ownCodes.spent}), price from sales where channel = ?
    union all select m.id, t.amount from transfers_to_many t
      join json_table(concat('[', t.viewers, ']'), '$[*]' columns (id int unsigned path '$')) m where t.channel = ?
    union all select ${ownCodes.issued}, -amount * many from transfers_to_many where channel = ?
  ) sides group by account`;

const nameOf = (account: number, ext: unknown): string =>
  account >= 100 ? `v:${text(ext)}` : (Object.entries(ownCodes).find(([, code]) => code === account)?.[0] ?? String(account));

/**
 * Rebuilds every balance of a channel from what was written, by the database itself, and says what differs.
 * Beside that: points on their way between viewers are none, and what is held is what waits, to the point.
 * Reads as of one moment, so that a sale that is written meanwhile is no fault.
 */
export async function checkLedgerOf(db: Database, id: ChannelId): Promise<LedgerReport> {
  return db.transaction(
    async (trx) => {
      const faults: LedgerFault[] = [];
      const channel = Number(((await trx("channels").where({ id }).first("num")) as Row | undefined)?.["num"] ?? 0);
      const six = Array<number>(6).fill(channel);
      const [differ] = (await trx.raw(
        `select b.account, v.ext, sum(b.kept) as kept, sum(b.rebuilt) as rebuilt from (
           select id as account, balance as kept, 0 as rebuilt from viewers where channel = ?
           union all select account, balance, 0 from own_accounts where channel = ?
           union all select account, 0, balance from (${balancesFromJournal}) j
         ) b left join viewers v on v.id = b.account group by b.account
         having sum(b.kept) <> sum(b.rebuilt) or (sum(b.kept) < 0 and b.account >= 100)`,
        [channel, channel, ...six],
      )) as [Row[]];
      for (const r of differ) {
        const [account, found, meant] = [Number(r["account"]), Number(r["kept"]), Number(r["rebuilt"])];
        // What passes between viewers is not kept: it sums to none, or something is wrong.
        const about = nameOf(account, r["ext"]);
        if (found !== meant) faults.push({ what: account === ownCodes.passed ? "unbalanced" : "balance", about, found, meant });
        if (found < 0 && account >= 100) faults.push({ what: "negative", about, found, meant: 0 });
      }
      const held = await balanceOf(trx, channel, ownCodes.held);
      const waits = (await trx("sales as s")
        .join("open_sales as o", (on) => on.on("o.channel", "s.channel").andOn("o.seq", "s.seq"))
        .where("s.channel", channel)
        .sum("s.price as sum")
        .first()) as Row | undefined;
      const [found, meant] = [held, Number(waits?.["sum"] ?? 0)];
      if (found !== meant) faults.push({ what: "balance", about: "held, against what waits", found, meant });
      const [lies, said] = [await balanceOf(trx, channel, ownCodes.pool), await pooled(trx, id)];
      if (said !== null && lies !== said)
        faults.push({ what: "balance", about: "pools, against what games hold", found: lies, meant: said });
      const stray = (await trx("sales as s")
        .leftJoin("open_sales as o", (on) => on.on("o.channel", "s.channel").andOn("o.seq", "s.seq"))
        .where("s.channel", channel)
        .whereRaw("(s.state = 'waiting') <> (o.seq is not null)")
        .count("* as n")
        .first()) as Row | undefined;
      if (Number(stray?.["n"] ?? 0) > 0) faults.push({ what: "balance", about: "sales that wait", found: Number(stray?.["n"]), meant: 0 });
      const counted = (await trx.raw(
        `select r.reward_id, coalesce(t.sold, 0) as kept, r.sold from (
           select reward_id, sum(state <> 'refunded') as sold from sales where channel = ? group by reward_id) r
         left join reward_totals t on t.channel = ? and t.reward_id = r.reward_id where coalesce(t.sold, 0) <> r.sold`,
        [channel, channel],
      )) as [Row[]];
      for (const r of counted[0])
        faults.push({ what: "balance", about: `sold of ${text(r["reward_id"])}`, found: Number(r["kept"]), meant: Number(r["sold"]) });
      const many = async (table: string): Promise<number> =>
        Number(((await trx(table).where({ channel }).count("* as n").first()) as Row | undefined)?.["n"] ?? 0);
      const [transfers, sales, sets] = [await many("transfers"), await many("sales"), await many("transfers_to_many")];
      const toMany = (await trx("transfers_to_many").where({ channel }).sum("many as n").first()) as Row | undefined;
      return {
        entries: transfers + sales + sets,
        postings: 2 * (transfers + sales) + Number(toMany?.["n"] ?? 0) + sets,
        accounts: Number(
          ((await trx("viewers").where({ channel, has_account: 1 }).count("* as n").first()) as Row | undefined)?.["n"] ?? 0,
        ),
        faults,
      };
    },
    { isolationLevel: "repeatable read" },
  );
}

async function balanceOf(db: Knex, channel: number, account: number): Promise<number> {
  const row = (await db("own_accounts").where({ channel, account }).first("balance")) as Row | undefined;
  return Number(row?.["balance"] ?? 0);
}

/** What games say that lies in them; null while one of them pays, or a rehearsal runs, so that nobody can say. */
async function pooled(db: Knex, channel: ChannelId): Promise<number | null> {
  const rows = (await db("game_states as s")
    .join("games as g", "g.id", "s.game_id")
    .where("g.channel_id", channel)
    .select("g.kind", "s.durable", "s.version")) as Row[];
  let sum = 0;
  for (const row of rows) {
    const rules = moduleOf(text(row["kind"]));
    if (rules === null || (rules.pool === undefined && rules.snapshot === undefined)) continue;
    const state = readStored<unknown>(rules.durable, rules.stateSteps, Number(row["version"]), fromJson(row["durable"]));
    if (!state.ok) return null;
    if ((rules.snapshot?.of(state.value) ?? null) !== null) return null;
    const lies = rules.pool?.(state.value) ?? (rules.pool === undefined ? 0 : null);
    if (lies === null) return null;
    sum += lies;
  }
  return sum;
}

/** Sets balances to what was written. Touches no row of the journal. */
export async function rebuildBalances(db: Database, id: ChannelId): Promise<number> {
  const channel = Number(((await db("channels").where({ id }).first("num")) as Row | undefined)?.["num"] ?? 0);
  const six = Array<number>(6).fill(channel);
  let rebuilt = 0;
  for (const [table, key] of [
    ["viewers", "id"],
    ["own_accounts", "account"],
  ] as const) {
    const [done] = (await db.raw(
      `update ${table} b left join (${balancesFromJournal}) j on j.account = b.${key}
         set b.balance = coalesce(j.balance, 0) where b.channel = ? and b.balance <> coalesce(j.balance, 0)`,
      [...six, channel],
    )) as [{ affectedRows: number }];
    rebuilt += done.affectedRows;
  }
  return rebuilt;
}
