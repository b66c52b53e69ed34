import type { Knex } from "knex";
import { type Entry, isViewerAccount, type OwnAccount, type Reason } from "../../../core/points/ledger";
import type { Sale } from "../../../core/rewards/desk";
import type { Booked, DeskRows } from "../../ports/engine-store";
import { cut } from "../../../core/kernel/text";
import type { Database } from "./database";
import { ownCodes } from "./lean-tables";
import { chunks, marks } from "./chunks";
import { writeOnce } from "./log";
import type { Pipeline } from "./pipeline";
import { type Row, text } from "./rows";

type KeyOf = (id: string) => number;
type Trx = Knex.Transaction;
const dayMs = 86_400_000;

/** A sale is known by the number of the signal that asked for it. */
export const saleId = (seq: unknown): string => `s${String(seq)}`;
export const saleSeq = (id: string): number | null => (/^s-?\d{1,15}$/.test(id) ? Number(id.slice(1)) : null);

/** What a sale is made from, and how a row of it reads. */
export const saleOf = (r: Row): Sale => ({
  id: saleId(r["seq"]),
  atMs: Number(r["at_ms"]),
  rewardId: text(r["reward_id"]),
  rewardName: text(r["reward_name"]),
  viewer: { id: text(r["ext"]), name: text(r["name"]) },
  price: Number(r["price"]),
  text: text(r["text"]),
  state: text(r["state"]) as Sale["state"],
  showId: text(r["show_id"]),
  decidedBy: text(r["decided_by"]),
  times: Number(r["times"]),
  code: text(r["code"]),
  shown: Boolean(r["shown"]),
});
/** Sales with the people they are of. */
export const salesOf = (db: Database | Trx, channel: number): Knex.QueryBuilder =>
  db("sales as s").join("viewers as v", "v.id", "s.viewer").where("s.channel", channel).select("s.*", "v.ext", "v.name");

const earning: ReadonlySet<Reason> = new Set(["presence", "signal"]);
const earningEver: ReadonlySet<Reason> = new Set(["presence", "signal", "opening"]);
const spending: ReadonlySet<Reason> = new Set(["bought", "asked", "refunded"]);
/** From so many on an entry is one row for all of them. */
const many = 4;
const mostGroups = 12;

type Transfer = Readonly<{ account: number; against: OwnAccount | "passed"; amount: number }>;
/** An entry as rows of two sides each, so that no row can fail to balance; what passes between viewers goes by an account of its own. */
export function transfersOf(entry: Entry, keyOf: KeyOf): readonly Transfer[] {
  const people = entry.postings.filter((p) => isViewerAccount(p.account));
  const own = entry.postings.filter((p) => !isViewerAccount(p.account));
  const [first, second] = own;
  if (people.length === 0) {
    if (first === undefined || second === undefined) return [];
    // Both are the channel's own: the accounts are so by the filter.
    const [from, to] = first.amount < 0 ? [first, second] : [second, first];
    return [{ account: ownCodes[from.account as OwnAccount], against: to.account as OwnAccount, amount: from.amount }];
  }
  const against =
    own.length === 1 && (people.length === 1 || people.every((p) => p.amount >= 0)) ? (first?.account as OwnAccount) : "passed";
  const rows: Transfer[] = people.map((p) => ({ account: keyOf(p.account.slice(2)), against, amount: p.amount }));
  if (against === "passed")
    for (const p of own) rows.push({ account: ownCodes.passed, against: p.account as OwnAccount, amount: -p.amount });
  return rows;
}

type Sum = { balance: number; earned: number; day: number; earnedEver: number; spentEver: number };
/** What each account gains or loses, folded set by set: a round of presence moves thousands by the same. */
function move(to: Pipeline, sums: ReadonlyMap<number, Sum>, atMs: number): void {
  const groups = new Map<string, number[]>();
  for (const [key, s] of sums) {
    const kind = `${s.balance} ${s.earned} ${s.day} ${s.earnedEver} ${s.spentEver}`;
    const group = groups.get(kind);
    if (group === undefined) groups.set(kind, [key]);
    else group.push(key);
  }
  const all =
    (meant: number) =>
    (done: unknown): void => {
      const found = (done as [{ affectedRows: number }])[0].affectedRows;
      // Every account was opened before it moves; one that is not there must never pass unnoticed.
      if (found !== meant) throw new Error(`balances of ${meant - found} accounts are not there`);
    };
  if (groups.size <= mostGroups) {
    for (const [kind, keys] of groups) {
      const [balance = 0, earned = 0, day = 0, earnedEver = 0, spentEver = 0] = kind.split(" ").map(Number);
      for (const some of chunks(keys, 5_000))
        to.raw(
          `update viewers set balance = balance + ?, earned = if(day < ?, ?, earned + ?), day = greatest(day, ?),
             earned_ever = earned_ever + ?, spent_ever = spent_ever + ?, moved_ms = ?, has_account = 1
           where id in (${some.join(",")})`,
          [balance, day, earned, earned, day, earnedEver, spentEver, atMs],
          all(some.length),
        );
    }
    return;
  }
  for (const some of chunks([...sums], 256)) {
    // All of these are numbers of our own making.
    const rows = some.map(([key, s]) => `(${key},${s.balance},${s.earned},${s.day},${s.earnedEver},${s.spentEver})`);
    to.raw(
      `update viewers v join (with m (id, b, e, d, ee, se) as (values ${rows.join(",")}) select * from m) m on m.id = v.id
       set v.earned = if(v.day < m.d, 0, v.earned) + m.e, v.day = greatest(v.day, m.d), v.balance = v.balance + m.b,
         v.earned_ever = v.earned_ever + m.ee, v.spent_ever = v.spent_ever + m.se, v.moved_ms = ?, v.has_account = 1`,
      [atMs],
      all(some.length),
    );
  }
}

type Flow = { made: number; spent: number; fromSeq: number };
const flowInto = (map: Map<string, Flow>, key: string, made: number, spent: number, seq: number): void => {
  const flow = map.get(key);
  if (flow === undefined) map.set(key, { made, spent, fromSeq: seq });
  else Object.assign(flow, { made: flow.made + made, spent: flow.spent + spent, fromSeq: Math.min(flow.fromSeq, seq) });
};

/** Keys that the number of the signal already makes unique; all others are kept, so that nothing is paid twice. */
const ownKey = (key: string, seq: number): boolean => key.endsWith(`:${seq}`) || key.endsWith(`:s${seq}`);

/**
 * Writes bookings within a transaction: transfers, sales, balances, totals. A purchase is one row with its
 * sale. Balances change by what is written, never to a value that was computed elsewhere, and the database
 * itself refuses a viewer below none.
 */
export function book(to: Pipeline, channel: number, booked: readonly Booked[], keyOf: KeyOf): void {
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
      if (people.length >= many && people.every((p) => p.amount >= 0)) {
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

function writeSales(
  to: Pipeline,
  channel: number,
  sales: readonly Sale[],
  isNew: ReadonlySet<string>,
  purchases: ReadonlyMap<string, Entry>,
  keyOf: KeyOf,
): void {
  for (const some of chunks(
    sales.filter((s) => isNew.has(s.id)),
    500,
  ))
    to.raw(
      `insert into sales (channel, seq, at_ms, reward_id, reward_name, viewer, price, held, text, state, show_id, decided_by, times, shown, code)
       values ${marks(15, some.length)}`,
      some.flatMap((s) => [
        channel,
        saleSeq(s.id),
        s.atMs,
        s.rewardId,
        cut(s.rewardName, 60),
        keyOf(s.viewer.id),
        s.price,
        purchases.get(s.id)?.reason === "asked" ? 1 : 0,
        cut(s.text, 300),
        s.state,
        s.showId,
        cut(s.decidedBy, 60),
        s.times,
        s.shown,
        s.code,
      ]),
    );
  const changed = sales.filter((s) => !isNew.has(s.id));
  for (const s of changed)
    to.send(
      to
        .table("sales")
        .where({ channel, seq: saleSeq(s.id) })
        .update({ state: s.state, decided_by: cut(s.decidedBy, 60), times: s.times, shown: s.shown, code: s.code }),
    );
  const waiting = sales.filter((s) => s.state === "waiting").map((s) => saleSeq(s.id));
  if (waiting.length > 0)
    to.raw(
      `insert ignore into open_sales (channel, seq) values ${marks(2, waiting.length)}`,
      waiting.flatMap((seq) => [channel, seq]),
    );
  const settled = changed.filter((s) => s.state !== "waiting").map((s) => saleSeq(s.id));
  if (settled.length > 0)
    to.send(
      to
        .table("open_sales")
        .where({ channel })
        .whereIn("seq", settled as number[])
        .delete(),
    );
  // A private detail goes ten minutes after its sale was decided: so long a slip can be undone.
  for (const [list, gone] of [
    [settled, to.table.raw("floor(unix_timestamp(now(3)) * 1000) + 600000")],
    [changed.filter((s) => s.state === "waiting").map((s) => saleSeq(s.id)), null],
  ] as const)
    if (list.length > 0)
      to.send(
        to
          .table("sale_details")
          .where({ channel })
          .whereIn("seq", list as number[])
          .update({ gone_ms: gone }),
      );
}

/** How many sales the desk remembers beside those that wait. */
export const salesRemembered = 3_000;

/**
 * All that the desk keeps in memory, as of one moment. What it costs depends on how many people and rewards
 * there are and on what was sold lately, not on all that ever was.
 */
export async function readDesk(
  db: Database,
  channel: number,
  id: string,
  at: Readonly<{ showId: string; sinceMs: number }>,
  people: (rows: readonly Row[]) => void,
): Promise<DeskRows> {
  return db.transaction(
    async (trx) => {
      const accounts = (await trx("viewers")
        .where({ channel, has_account: 1 })
        .select("id", "ext", "name", "roles", "balance", "day", "earned")) as Row[];
      people(accounts);
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
        sold: sold.map((r) => ({ rewardId: text(r["reward_id"]), count: Number(r["sold"]), handed: Number(r["handed"]) })),
        soldInShow: soldInShow.map((r) => ({ rewardId: text(r["reward_id"]), viewer: text(r["ext"]), count: Number(r["count"]) })),
        last: last.map((r) => ({ rewardId: text(r["reward_id"]), viewer: text(r["ext"]), atMs: Number(r["at_ms"]) })),
        prices: prices.map((r) => ({
          rewardId: text(r["reward_id"]),
          at: { thousandths: Number(r["thousandths"]), atMs: Number(r["at_ms"]) },
        })),
        sales: [...due, ...recent.reverse(), ...waiting].map(saleOf),
        due: due.map((r) => ({ sale: saleId(r["seq"]), untilMs: Number(r["until_ms"]) })),
      };
    },
    { isolationLevel: "repeatable read" },
  );
}

/** Private details whose time has come. */
export const sweepDetails = async (db: Database): Promise<number> =>
  db("sale_details").whereRaw("gone_ms < floor(unix_timestamp(now(3)) * 1000)").delete();
