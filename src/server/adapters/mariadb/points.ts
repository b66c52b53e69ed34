import type { Knex } from "knex";
import type { ChannelId } from "../../../core/kernel/ids";
import { changesOf, isViewerAccount } from "../../../core/points/ledger";
import type { Sale } from "../../../core/rewards/desk";
import type { Booked, DeskRows } from "../../ports/engine-store";
import { type Database } from "./database";
import { type Row, text } from "./rows";

/** What a sale is made from, and how a row of it reads. */
export const saleOf = (r: Row): Sale => ({
  id: text(r["id"]),
  atMs: Number(r["at_ms"]),
  rewardId: text(r["reward_id"]),
  rewardName: text(r["reward_name"]),
  viewer: { id: text(r["viewer"]), name: text(r["viewer_name"]) },
  price: Number(r["price"]),
  text: text(r["text"]),
  state: text(r["state"]) as Sale["state"],
  showId: text(r["show_id"]),
  decidedBy: text(r["decided_by"]),
  times: Number(r["times"]),
  shown: Boolean(r["shown"]),
});
const saleRow = (id: ChannelId, s: Sale) => ({
  channel_id: id,
  id: s.id,
  at_ms: s.atMs,
  reward_id: s.rewardId,
  reward_name: s.rewardName.slice(0, 60),
  viewer: s.viewer.id,
  viewer_name: s.viewer.name.slice(0, 80),
  price: s.price,
  text: s.text.slice(0, 300),
  state: s.state,
  show_id: s.showId,
  decided_by: s.decidedBy.slice(0, 60),
  times: s.times,
  shown: s.shown,
});

function* chunks<T>(rows: readonly T[], size = 1_000): Generator<readonly T[]> {
  for (let from = 0; from < rows.length; from += size) yield rows.slice(from, from + size);
}

/**
 * Writes bookings within a transaction: entries, postings, balances, sales, prices. Balances change by
 * what the postings say, never to a value that was computed elsewhere, and the database itself refuses a
 * viewer below none.
 */
export async function book(trx: Knex.Transaction, id: ChannelId, booked: readonly Booked[]): Promise<void> {
  const placed = booked.flatMap(({ seq, booking }) => booking.entries.map((entry, n) => ({ seq, n, entry })));
  // Several bookings of one signal must not share a place.
  const next = new Map<number, number>();
  const numbered = placed.map((p) => {
    const n = next.get(p.seq) ?? 0;
    next.set(p.seq, n + 1);
    return { ...p, n };
  });
  for (const some of chunks(numbered))
    await trx("point_entries").insert(
      some.map(({ seq, n, entry }) => ({
        channel_id: id,
        seq,
        n,
        entry_key: entry.key.slice(0, 150),
        at_ms: entry.atMs,
        reason: entry.reason,
        about: entry.about.slice(0, 120),
        by: entry.by.slice(0, 60),
      })),
    );
  const postings = numbered.flatMap(({ seq, n, entry }) =>
    entry.postings.map((p) => ({ channel_id: id, seq, n, account: p.account, amount: p.amount })),
  );
  for (const some of chunks(postings, 2_000)) await trx("point_postings").insert([...some]);

  const names: Record<string, string> = Object.assign({}, ...booked.map((b) => b.booking.names));
  const earned: Booked["earned"] = Object.assign({}, ...booked.map((b) => b.earned));
  const changes = changesOf(numbered.map((p) => p.entry));
  const rows = changes.map(({ account, amount }) => {
    const viewer = isViewerAccount(account) ? account.slice(2) : "";
    const today = earned[viewer];
    return [account, names[viewer]?.slice(0, 80) ?? "", amount, today?.day ?? -1, today?.earned ?? 0] as const;
  });
  for (const some of chunks(rows)) {
    const list = JSON.stringify(some);
    const table = `json_table(?, '$[*]' columns (account varchar(66) character set utf8mb4 collate utf8mb4_bin path '$[0]',
      name varchar(80) character set utf8mb4 path '$[1]', amount bigint path '$[2]', day int path '$[3]', earned bigint path '$[4]')) as d`;
    await trx.raw(
      `insert into point_balances (channel_id, account, name) select ?, d.account, coalesce(d.name, '') from ${table}
       on duplicate key update name = if(coalesce(d.name, '') = '', point_balances.name, d.name)`,
      [id, list],
    );
    await trx.raw(
      `update point_balances b join ${table} on b.channel_id = ? and b.account = d.account
       set b.balance = b.balance + d.amount, b.earned = if(d.day >= 0, d.earned, b.earned), b.day = if(d.day >= 0, d.day, b.day)`,
      [list, id],
    );
  }

  // The newest state of each sale; one that is asked for and given back in one commit is one row.
  const sales = [...new Map(booked.flatMap((b) => b.booking.sales).map((s) => [s.id, s])).values()];
  for (const some of chunks(sales, 500))
    await trx("sales")
      .insert(
        some.map((s) => ({
          ...saleRow(id, s),
          decided_ms: s.state === "waiting" ? null : trx.raw("floor(unix_timestamp(now(3)) * 1000)"),
        })),
      )
      .onConflict()
      .merge(["state", "decided_by", "decided_ms", "shown", "times"]);
  const prices = [...new Map(booked.flatMap((b) => b.booking.prices).map((p) => [p.rewardId, p])).values()];
  if (prices.length > 0)
    await trx("moving_prices")
      .insert(prices.map((p) => ({ channel_id: id, reward_id: p.rewardId, thousandths: p.at.thousandths, at_ms: p.at.atMs })))
      .onConflict()
      .merge(["thousandths", "at_ms"]);
}

/** How many sales the desk remembers beside those that wait. */
export const salesRemembered = 3_000;

export async function readDesk(db: Database, id: ChannelId, at: Readonly<{ showId: string; sinceMs: number }>): Promise<DeskRows> {
  return db.transaction(
    async (trx) => {
      const accounts = (await trx("point_balances")
        .where({ channel_id: id })
        .select("account", "name", "balance", "day", "earned")) as Row[];
      const sold = (await trx("sales")
        .where({ channel_id: id })
        .whereNot({ state: "refunded" })
        .groupBy("reward_id")
        .select("reward_id")
        .count("* as count")) as Row[];
      const soldInShow =
        at.showId === ""
          ? []
          : ((await trx("sales")
              .where({ channel_id: id, show_id: at.showId })
              .whereNot({ state: "refunded" })
              .groupBy("reward_id", "viewer")
              .select("reward_id", "viewer")
              .count("* as count")) as Row[]);
      const last = (await trx("sales")
        .where({ channel_id: id })
        .andWhere("at_ms", ">=", at.sinceMs)
        .andWhere((q) => q.whereNot({ state: "refunded" }).orWhere({ shown: true }))
        .groupBy("reward_id", "viewer")
        .select("reward_id", "viewer")
        .max("at_ms as at_ms")) as Row[];
      const prices = (await trx("moving_prices").where({ channel_id: id })) as Row[];
      const waiting = (await trx("sales").where({ channel_id: id, state: "waiting" }).orderBy("at_ms")) as Row[];
      const recent = (await trx("sales")
        .where({ channel_id: id })
        .whereNot({ state: "waiting" })
        .orderBy("at_ms", "desc")
        .limit(salesRemembered)) as Row[];
      return {
        accounts: accounts.map((r) => ({
          account: text(r["account"]),
          name: text(r["name"]),
          balance: Number(r["balance"]),
          day: Number(r["day"]),
          earned: Number(r["earned"]),
        })),
        sold: sold.map((r) => ({ rewardId: text(r["reward_id"]), count: Number(r["count"]) })),
        soldInShow: soldInShow.map((r) => ({ rewardId: text(r["reward_id"]), viewer: text(r["viewer"]), count: Number(r["count"]) })),
        last: last.map((r) => ({ rewardId: text(r["reward_id"]), viewer: text(r["viewer"]), atMs: Number(r["at_ms"]) })),
        prices: prices.map((r) => ({
          rewardId: text(r["reward_id"]),
          at: { thousandths: Number(r["thousandths"]), atMs: Number(r["at_ms"]) },
        })),
        sales: [...recent.reverse(), ...waiting].map(saleOf),
      };
    },
    { readOnly: true },
  );
}

/** Private details of what was done or given back go, ten minutes after: so long a slip can be undone. */
export const sweepDetails = async (db: Database): Promise<number> =>
  db("sales")
    .whereNotNull("detail_sealed")
    .whereNot({ state: "waiting" })
    .whereRaw("decided_ms < floor(unix_timestamp(now(3)) * 1000) - 600000")
    .update({ detail_sealed: null });
