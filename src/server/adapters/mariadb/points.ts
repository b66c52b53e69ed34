import type { Knex } from "knex";
import { type Entry, isViewerAccount, type OwnAccount, type Reason } from "../../../core/points/ledger";
import type { Booked } from "../../ports/engine-store";
import { cut } from "../../../core/kernel/text";
import type { Database } from "./database";
import { ownCodes } from "./lean-tables";
import { chunks, marks } from "./chunks";
import { writeOnce } from "./log";
import type { Pipeline } from "./pipeline";
import { saleId, saleSeq, writeSales } from "./sales";
import { transfersOf, type Sum, move, type Flow, flowInto } from "./transfers";
import { type KeyOf, dayMs } from "./ledger-keys";

const earning: ReadonlySet<Reason> = new Set(["presence", "signal"]);
const earningEver: ReadonlySet<Reason> = new Set(["presence", "signal", "opening"]);
const spending: ReadonlySet<Reason> = new Set(["bought", "asked", "refunded"]);
/** From so many on an entry is one row for all of them. */
const many = 4;

/** Keys that the number of the signal already makes unique; all others are kept, so that nothing is paid twice. */
const ownKey = (key: string, seq: number): boolean => key.endsWith(`:${seq}`) || key.endsWith(`:s${seq}`);

/**
 * Writes bookings within a transaction: transfers, sales, balances, totals. A purchase is one row with its
 * sale. Balances change by what is written, never to a value that was computed elsewhere, and the database
 * itself refuses a viewer below none.
 */
export function postEntries(to: Pipeline, channel: number, booked: readonly Booked[], keyOf: KeyOf): void {
  // The newest state of each sale; one that is asked for and given back in one commit is one row.
  const sales = [...new Map(booked.flatMap((b) => b.booking.sales).map((s) => [s.id, s])).values()];
  const isNew = new Set(booked.flatMap((b) => b.booking.sales.filter((s) => s.id === saleId(b.seq)).map((s) => s.id)));
  const purchases = new Map<string, Entry>();
  const sums = new Map<number, Sum>();
  const own = new Map<number, number>();
  const days = new Map<string, Flow>();
  const shows = new Map<string, Flow>();
  const rows: unknown[][] = [];
  const toMany: unknown[][] = [];
  const once: { source: string; id: string; seq: number; atMs: number }[] = [];
  const next = new Map<number, number>();
  const place = (seq: number): number => {
    const n = next.get(seq) ?? 0;
    next.set(seq, n + 1);
    return n;
  };
  let atMs = 0;
  for (const { seq, booking, earned, showId } of booked) {
    const dayOf = new Map(earned.map((e) => [e.viewer, e.day]));
    for (const entry of booking.entries) {
      const { reason, postings } = entry;
      atMs = Math.max(atMs, entry.atMs);
      let made = 0;
      let spent = 0;
      for (const { account, amount } of postings) {
        if (!isViewerAccount(account)) {
          // Narrowed to the channel's own by the line before.
          const code = ownCodes[account as OwnAccount];
          own.set(code, (own.get(code) ?? 0) + amount);
          if (account === "issued") made -= amount;
          if (account === "spent") spent += amount;
          continue;
        }
        const key = keyOf(account.slice(2));
        const sum = sums.get(key) ?? { balance: 0, earned: 0, day: 0, earnedEver: 0, spentEver: 0 };
        sum.balance += amount;
        if (earning.has(reason)) {
          sum.earned += amount;
          sum.day = Math.max(sum.day, dayOf.get(account.slice(2)) ?? 0);
        }
        if (earningEver.has(reason)) sum.earnedEver += Math.max(0, amount);
        if (spending.has(reason)) sum.spentEver -= amount;
        sums.set(key, sum);
      }
      flowInto(days, String(Math.floor(entry.atMs / dayMs)), made, spent, seq);
      if (showId !== "") flowInto(shows, showId, made, spent, seq);
      const bought = isNew.has(entry.key.slice(4)) && entry.key === `buy:${saleId(seq)}`;
      if (bought) {
        purchases.set(saleId(seq), entry);
        continue;
      }
      if (!ownKey(entry.key, seq)) once.push({ source: "entry", id: entry.key, seq, atMs: entry.atMs });
      const head = [reason, cut(entry.about, 120), cut(entry.by, 60)] as const;
      const people = postings.filter((p) => isViewerAccount(p.account));
      if (people.length >= many && people.every((p) => p.amount >= 0) && postings.some((p) => p.account === "issued")) {
        const groups = new Map<number, number[]>();
        for (const p of people) {
          const group = groups.get(p.amount);
          if (group === undefined) groups.set(p.amount, [keyOf(p.account.slice(2))]);
          else group.push(keyOf(p.account.slice(2)));
        }
        for (const [amount, keys] of groups)
          toMany.push([channel, seq, place(seq), entry.atMs, head[0], amount, keys.join(","), keys.length, head[1], head[2]]);
        continue;
      }
      for (const t of transfersOf(entry, keyOf))
        rows.push([channel, seq, place(seq), entry.atMs, head[0], t.account, ownCodes[t.against], t.amount, head[1], head[2]]);
    }
    for (const s of booking.sales) flowInto(days, String(Math.floor(s.atMs / dayMs)), 0, 0, seq);
    if (showId !== "" && booking.sales.length > 0) flowInto(shows, showId, 0, 0, seq);
  }
  if (once.length > 0) writeOnce(to, channel, once);
  for (const some of chunks(rows, 500))
    to.raw(
      `insert into transfers (channel, seq, n, at_ms, reason, account, against, amount, about, \`by\`) values ${marks(10, some.length)}`,
      some.flat() as Knex.RawBinding[],
    );
  for (const some of chunks(toMany, 50))
    to.raw(
      `insert into transfers_to_many (channel, seq, n, at_ms, reason, amount, viewers, many, about, \`by\`) values ${marks(10, some.length)}`,
      some.flat() as Knex.RawBinding[],
    );
  if (sums.size > 0) move(to, sums, atMs);
  const opened = [...new Set(booked.flatMap((b) => b.fresh))].filter(isViewerAccount).map((a) => keyOf(a.slice(2)));
  const unmoved = opened.filter((key) => !sums.has(key));
  for (const some of chunks(unmoved))
    to.send(
      to
        .table("viewers")
        .whereIn("id", [...some])
        .update({ has_account: 1 }),
    );
  if (own.size > 0)
    to.raw(
      `insert into own_accounts (channel, account, balance) values ${marks(3, own.size)} on duplicate key update balance = balance + values(balance)`,
      [...own].flatMap(([code, amount]) => [channel, code, amount]),
    );
  const met = new Map(booked.flatMap((b) => b.met ?? []).map((m) => [keyOf(m.viewer), m]));
  for (const some of chunks([...met], 500))
    to.raw(
      `update viewers v join (${some.map((_, i) => (i === 0 ? "select ? as id, ? as shows, ? as first_ms, ? as last_ms, ? as last_show" : "select ?, ?, ?, ?, ?")).join(" union all ")}) m
       on v.id = m.id set v.shows = m.shows, v.first_ms = m.first_ms, v.last_ms = m.last_ms, v.last_show = m.last_show`,
      some.flatMap(([key, m]) => [key, m.shows, m.firstMs, m.lastMs, m.showId]),
    );
  writeSales(to, channel, sales, isNew, purchases, keyOf);
  const totals = new Map<string, { name: string; sold: number; handed: number; points: number }>();
  for (const c of booked.flatMap((b) => b.counted)) {
    const t = totals.get(c.rewardId) ?? { name: c.name, sold: 0, handed: 0, points: 0 };
    totals.set(c.rewardId, { name: c.name, sold: t.sold + c.sold, handed: t.handed + c.handed, points: t.points + c.points });
  }
  if (totals.size > 0)
    to.raw(
      `insert into reward_totals (channel, reward_id, name, sold, handed, points) values ${marks(6, totals.size)}
       on duplicate key update name = values(name), sold = sold + values(sold), handed = handed + values(handed), points = points + values(points)`,
      [...totals].flatMap(([id, t]) => [channel, id, cut(t.name, 60), t.sold, t.handed, t.points]),
    );
  for (const [table, column, flows] of [
    ["daily_points", "day", days],
    ["show_points", "show_id", shows],
  ] as const)
    if (flows.size > 0)
      to.raw(
        `insert into ${table} (channel, ${column}, made, spent, from_seq) values ${marks(5, flows.size)}
         on duplicate key update made = made + values(made), spent = spent + values(spent), from_seq = least(from_seq, values(from_seq))`,
        [...flows].flatMap(([key, f]) => [channel, key, f.made, f.spent, f.fromSeq]),
      );
  const due = new Map(booked.flatMap((b) => b.booking.due ?? []).map((d) => [saleSeq(d.sale), d.untilMs]));
  if (due.size > 0)
    to.raw(
      `insert into deliveries (channel, seq, until_ms) values ${marks(3, due.size)} on duplicate key update until_ms = values(until_ms)`,
      [...due].flatMap(([seq, untilMs]) => [channel, seq, untilMs]),
    );
  const returned = sales.filter((s) => s.state === "refunded").map((s) => saleSeq(s.id) ?? 0);
  if (returned.length > 0) to.send(to.table("deliveries").where({ channel }).whereIn("seq", returned).delete());
  const prices = [...new Map(booked.flatMap((b) => b.booking.prices).map((p) => [p.rewardId, p])).values()];
  if (prices.length > 0)
    to.raw(
      `insert into moving_prices (channel_id, reward_id, thousandths, at_ms)
       select c.id, p.r, p.t, p.a from channels c join (${prices.map(() => "select ? as r, ? as t, ? as a").join(" union all ")}) p where c.num = ?
       on duplicate key update thousandths = values(thousandths), at_ms = values(at_ms)`,
      [...prices.flatMap((p) => [p.rewardId, p.at.thousandths, p.at.atMs]), channel],
    );
}

/** How many sales the ledger’s cache remembers beside those that wait. */
export const salesRemembered = 3_000;

/** Private details whose time has come. */
export const sweepDetails = async (db: Database): Promise<number> =>
  db("sale_details").whereRaw("gone_ms < floor(unix_timestamp(now(3)) * 1000)").delete();
