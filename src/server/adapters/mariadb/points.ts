import type { Knex } from "knex";
import type { ChannelId } from "../../../core/kernel/ids";
import { changesOf, isViewerAccount, type Posting, type Reason } from "../../../core/points/ledger";
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
  code: text(r["code"]),
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
  code: s.code,
  shown: s.shown,
});

function* chunks<T>(rows: readonly T[], size = 1_000): Generator<readonly T[]> {
  for (let from = 0; from < rows.length; from += size) yield rows.slice(from, from + size);
}

const earning: ReadonlySet<Reason> = new Set(["presence", "signal"]);
const mostGroups = 12;

/** What each account gains or loses, and what of it counts as earned on which day. */
async function move(trx: Knex.Transaction, id: ChannelId, changes: readonly Posting[], booked: readonly Booked[]): Promise<void> {
  const earned = new Map<string, number>();
  const days = new Map<string, number>();
  for (const { booking, earned: after } of booked) {
    for (const [viewer, { day }] of Object.entries(after)) days.set(`v:${viewer}`, day);
    for (const entry of booking.entries)
      if (earning.has(entry.reason))
        for (const p of entry.postings) if (isViewerAccount(p.account)) earned.set(p.account, (earned.get(p.account) ?? 0) + p.amount);
  }
  const groups = new Map<string, string[]>();
  const rows = changes.map(({ account, amount }) => {
    const row = [amount, earned.get(account) ?? 0, days.get(account) ?? 0] as const;
    const key = row.join(" ");
    const group = groups.get(key);
    if (group === undefined) groups.set(key, [account]);
    else group.push(account);
    return [account, ...row] as const;
  });
  const all = (found: number, meant: number): void => {
    // Every account was opened before it moves; one that is not there must never pass unnoticed.
    if (found !== meant) throw new Error(`balances of ${meant - found} accounts are not there`);
  };
  if (groups.size <= mostGroups) {
    // A round of presence moves thousands by the same: one statement for all of them.
    for (const [key, accounts] of groups) {
      const [amount = 0, more = 0, day = 0] = key.split(" ").map(Number);
      for (const some of chunks(accounts)) {
        const [done] = (await trx.raw(
          `update point_balances set balance = balance + ?, earned = if(day < ?, ?, earned + ?), day = greatest(day, ?)
           where channel_id = ? and account in (${some.map(() => "?").join(", ")})`,
          [amount, day, more, more, day, id, ...some],
        )) as [{ affectedRows: number }];
        all(done.affectedRows, some.length);
      }
    }
    return;
  }
  for (const some of chunks(rows)) {
    const [done] = (await trx.raw(
      `insert into point_balances (channel_id, account, moved, earned, day) values ${some.map(() => "(?, ?, ?, ?, ?)").join(", ")}
       on duplicate key update balance = balance + values(moved), moved = values(moved),
         earned = if(day < values(day), values(earned), earned + values(earned)), day = greatest(day, values(day))`,
      some.flatMap((row) => [id, ...row]),
    )) as [{ info: string }];
    all(Number(/Duplicates: (\d+)/.exec(done.info)?.[1] ?? -1), some.length);
  }
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
  const changes = changesOf(numbered.map((p) => p.entry));
  // Accounts are opened with nothing in them; what they have they get by the postings, like all others.
  const fresh = [...new Set(booked.flatMap((b) => b.fresh))];
  for (const some of chunks(fresh))
    await trx("point_balances")
      .insert(some.map((account) => ({ channel_id: id, account, name: (names[account.slice(2)] ?? "").slice(0, 80) })))
      .onConflict()
      .merge(["name"]);
  await move(trx, id, changes, booked);

  // The newest state of each sale; one that is asked for and given back in one commit is one row.
  const sales = [...new Map(booked.flatMap((b) => b.booking.sales).map((s) => [s.id, s])).values()];
  const isNew = new Set(booked.flatMap((b) => b.booking.sales.filter((s) => s.id === `s${b.seq}`).map((s) => s.id)));
  for (const some of chunks(
    sales.filter((s) => isNew.has(s.id)),
    500,
  ))
    await trx("sales").insert(some.map((s) => ({ ...saleRow(id, s), decided_ms: s.state === "waiting" ? null : s.atMs })));
  for (const some of chunks(
    sales.filter((s) => !isNew.has(s.id)),
    500,
  ))
    await trx("sales")
      .insert(
        some.map((s) => ({
          ...saleRow(id, s),
          decided_ms: s.state === "waiting" ? null : trx.raw("floor(unix_timestamp(now(3)) * 1000)"),
        })),
      )
      .onConflict()
      .merge(["state", "decided_by", "decided_ms", "shown", "times", "code"]);
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
        .groupBy("reward_id")
        .select(
          "reward_id",
          trx.raw("sum(if(state <> 'refunded', 1, 0)) as count"),
          trx.raw("sum(if(code <> '', 1, 0)) as handed"),
        )) as Row[];
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
        sold: sold.map((r) => ({ rewardId: text(r["reward_id"]), count: Number(r["count"]), handed: Number(r["handed"]) })),
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
