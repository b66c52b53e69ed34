import { type Entry, isViewerAccount, type OwnAccount } from "../../../core/points/ledger";
import { ownCodes } from "./lean-tables";
import { chunks } from "./chunks";
import type { Pipeline } from "./pipeline";
import { type KeyOf, mostGroups } from "./ledger-keys";

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

export type Sum = { balance: number; earned: number; day: number; earnedEver: number; spentEver: number };

/** What each account gains or loses, folded set by set: a round of presence moves thousands by the same. */
export function move(to: Pipeline, sums: ReadonlyMap<number, Sum>, atMs: number): void {
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

export type Flow = { made: number; spent: number; fromSeq: number };

export const flowInto = (map: Map<string, Flow>, key: string, made: number, spent: number, seq: number): void => {
  const flow = map.get(key);
  if (flow === undefined) map.set(key, { made, spent, fromSeq: seq });
  else Object.assign(flow, { made: flow.made + made, spent: flow.spent + spent, fromSeq: Math.min(flow.fromSeq, seq) });
};
