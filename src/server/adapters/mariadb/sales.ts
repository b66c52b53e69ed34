import type { Knex } from "knex";
import { type Entry } from "../../../core/points/ledger";
import type { Sale } from "../../../core/rewards/ledger-view";
import { cut } from "../../../core/kernel/text";
import type { Database } from "./database";
import { chunks, marks } from "./chunks";
import type { Pipeline } from "./pipeline";
import { type Row, text } from "./rows";
import { type KeyOf, type Trx } from "./ledger-keys";

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

export function writeSales(
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
        .where("channel", channel)
        .where("seq", saleSeq(s.id))
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
