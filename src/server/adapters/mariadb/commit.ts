import type { ChannelId } from "../../../core/kernel/ids";
import { cut } from "../../../core/kernel/text";
import type { Booked, EngineStore, KeptRow, LogRow, Outcome } from "../../ports/engine-store";
import { chunks, marks } from "./chunks";
import { type Database, isAway, isInTheWay } from "./database";
import { type Keys, type Named, onceOf } from "./keys";
import { dbNow } from "./leases";
import { countDays, writeLog, writeOnce } from "./log";
import { Pipeline } from "./pipeline";
import { postEntries } from "./points";
import { isDuplicate } from "./rows";

const bumpSeq =
  "insert into leases (channel, owner, epoch, until_ms, last_seq) values (?, '', 0, 0, ?) on duplicate key update last_seq = greatest(last_seq, values(last_seq))";
/** Another process took the channel over meanwhile. */
class Lost extends Error {}

/** Everyone a commit speaks of; names and roles where it knows them. */
function* peopleOf(rows: readonly LogRow[], kept: readonly KeptRow[], booked: readonly Booked[]): Generator<Named> {
  for (const { booking } of booked) {
    for (const { postings } of booking.entries)
      for (const { account } of postings) if (account.startsWith("v:")) yield { id: account.slice(2), name: null, roles: null };
    for (const { viewer } of booking.sales) yield { id: viewer.id, name: viewer.name, roles: null };
    for (const { id, name } of booking.names) yield { id, name, roles: null };
    for (const { id, name } of booking.met ?? []) yield { id, name, roles: null };
  }
  for (const { viewer } of kept) if (viewer !== null) yield { id: viewer.id, name: viewer.name, roles: null };
  // Chat knows somebody's roles best; an event often names none.
  for (const { viewer, source } of rows) if (viewer !== null) yield source === "chat" ? viewer : { ...viewer, roles: null };
}

const onces = (rows: readonly LogRow[]) =>
  rows.flatMap((r) => (r.id === null ? [] : [{ source: r.source, id: r.id, seq: r.seq, atMs: r.atMs }]));

/** What the engine writes: commits that are whole or not at all, and rows of the log alone. */
export function writing(db: Database, keys: Keys, numOf: (id: ChannelId) => Promise<number>): Pick<EngineStore, "commit" | "append"> {
  return {
    commit: async (id, { rows, states, kept, booked = [] }, fence) => {
      const num = await numOf(id);
      const once = onces(rows);
      const within = new Set<string>();
      const again = once.filter((o) => within.size === within.add(`${o.source} ${o.id}`).size);
      if (again.length > 0) return { is: "twice", seqs: again.map((o) => o.seq) };
      const keyOf = await keys.of(num, peopleOf(rows, kept, booked));
      const lastSeq = [...rows, ...booked].reduce((most, r) => Math.max(most, r.seq), 0);
      // Once COMMIT is on its way, what came of it is only known from its answer.
      let isAsked = false;
      try {
        return await db.transaction(async (trx): Promise<Outcome> => {
          const to = new Pipeline(trx);
          let held = 1;
          if (fence === undefined) to.raw(bumpSeq, [num, lastSeq]);
          // Whoever took the channel over has written another epoch here; and nobody can, until this is committed.
          else
            to.raw(
              `update leases set last_seq = greatest(last_seq, ?), until_ms = greatest(until_ms, ${dbNow} + 5000) where channel = ? and owner = ? and epoch = ?`,
              [lastSeq, num, fence.owner, fence.epoch],
              (done) => (held = (done as [{ affectedRows: number }])[0].affectedRows),
            );
          if (once.length > 0) writeOnce(to, num, once);
          writeLog(to, num, rows, keyOf);
          for (const some of chunks(states, 200))
            to.raw(
              `insert into game_states (game_id, seq, durable, version) values ${marks(4, some.length)}
               on duplicate key update seq = values(seq), durable = values(durable), version = values(version)`,
              some.flatMap((s) => [s.gameId, s.seq, JSON.stringify(s.durable), s.version ?? 1]),
            );
          for (const some of chunks(kept, 500))
            to.raw(
              `insert into records (channel, game_id, seq, kind, viewer, from_ms, to_ms, body) values ${marks(8, some.length)}`,
              some.flatMap((k) => [
                num,
                k.gameId,
                k.seq,
                cut(k.kind, 24),
                k.viewer === null ? null : keyOf(k.viewer.id),
                k.fromMs,
                k.toMs,
                JSON.stringify(k.body),
              ]),
            );
          if (booked.length > 0) postEntries(to, num, booked, keyOf);
          countDays(to, num, rows);
          await to.done();
          // Thrown, so that what was sent behind it is taken back.
          if (held === 0) throw new Lost();
          isAsked = true;
          return { is: "committed" };
        });
      } catch (error) {
        if (error instanceof Lost) return { is: "lost" };
        if (!isAsked && isInTheWay(error)) return { is: "undone" };
        if (!isDuplicate(error)) throw error;
        const seen = (await db("once")
          .where({ channel: num })
          .whereIn(
            "id",
            once.map((o) => onceOf(o.source, o.id)),
          )
          .select("id")) as { id: Buffer }[];
        const hex = new Set(seen.map((r) => r.id.toString("hex")));
        const twice = once.filter((o) => hex.has(onceOf(o.source, o.id).toString("hex")));
        // Some other key that was there already is a defect, not a signal that came again.
        if (twice.length === 0) throw error;
        return { is: "twice", seqs: twice.map((o) => o.seq) };
      }
    },
    append: async (id, rows) => {
      const num = await numOf(id);
      const keyOf = await keys.of(num, peopleOf(rows, [], []));
      const last = rows.reduce((most, r) => Math.max(most, r.seq), 0);
      const write = (some: readonly LogRow[]): Promise<void> =>
        db.transaction(async (trx) => {
          const to = new Pipeline(trx);
          writeLog(to, num, some, keyOf, "ignore");
          countDays(to, num, some);
          await to.done();
        });
      let left = 0;
      /** A row at fault is found by halves, so that it costs its neighbours nothing. */
      const careful = async (some: readonly LogRow[]): Promise<void> => {
        try {
          await write(some);
        } catch (error) {
          if (isAway(error)) throw error;
          if (some.length === 1) left += 1;
          else {
            await careful(some.slice(0, some.length >> 1));
            await careful(some.slice(some.length >> 1));
          }
        }
      };
      for (const some of chunks(rows)) await careful(some);
      await db.raw(bumpSeq, [num, last]);
      return left;
    },
  };
}
