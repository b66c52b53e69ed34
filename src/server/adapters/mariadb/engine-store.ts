import { channelId, gameId, type ChannelId } from "../../../core/kernel/ids";
import { z } from "zod";
import { roles as allRoles } from "../../../core/signals/signal";
import { placeSchema } from "../../../core/wire/messages";
import type { Booked, Came, ChannelRow, EngineStore, KeptRow, LogRow, Outcome, OverlayRow } from "../../ports/engine-store";
import type { Knex } from "knex";
import { cut } from "../../../core/kernel/text";
import { type Database, fromJson, isAway } from "./database";
import { Keys, type Named, onceOf } from "./keys";
import { checkLedgerOf } from "./ledger-check";
import { chunks, marks } from "./chunks";
import { Pipeline } from "./pipeline";
import { countDays, writeLog, writeOnce } from "./log";
import { book, readDesk, saleOf, saleSeq, salesOf, sweepDetails } from "./points";
import { upkeep } from "./upkeep";
import { isDuplicate, propSound, propSprite, type Row, spriteOf, text } from "./rows";

const dbNow = "floor(unix_timestamp(now(3)) * 1000)";
const bumpSeq =
  "insert into leases (channel, owner, epoch, until_ms, last_seq) values (?, '', 0, 0, ?) on duplicate key update last_seq = greatest(last_seq, values(last_seq))";
class Lost extends Error {}
/** A lock of the database's own that lasts as long as a connection: whose is free, their process is gone. */
const lockOf = (owner: string): string => `izzam-owner-${owner}`.slice(0, 64);

/** Keeps a named lock of this process's own for as long as it lives. */
export type Alive = (lock: string) => Promise<void>;
const isGone = async (trx: Knex.Transaction, owner: string): Promise<boolean> => {
  const [rows] = (await trx.raw("select is_used_lock(?) as holder", [lockOf(owner)])) as [Row[]];
  return rows[0]?.["holder"] === null;
};

/** Everyone a commit speaks of; names and roles where it knows them. */
function* peopleOf(rows: readonly LogRow[], kept: readonly KeptRow[], booked: readonly Booked[]): Generator<Named> {
  for (const { booking } of booked) {
    for (const { postings } of booking.entries)
      for (const { account } of postings) if (account.startsWith("v:")) yield { id: account.slice(2), name: null, roles: null };
    for (const { viewer } of booking.sales) yield { id: viewer.id, name: viewer.name, roles: null };
    for (const { id, name } of booking.names) yield { id, name, roles: null };
  }
  for (const { viewer } of kept) if (viewer !== null) yield { id: viewer.id, name: viewer.name, roles: null };
  // Chat knows somebody's roles best; an event often names none.
  for (const { viewer, source } of rows) if (viewer !== null) yield source === "chat" ? viewer : { ...viewer, roles: null };
}

/** `patient`: a pool whose statements may take as long as they need, for what nobody waits for. */
export function mariadbEngineStore(
  db: Database,
  { alive, patient = db }: Readonly<{ alive?: Alive; patient?: Database }> = {},
): EngineStore {
  const keys = new Keys(db);
  const numOf = async (id: ChannelId): Promise<number> => {
    const num = await keys.channel(id);
    if (num === null) throw new Error(`there is no channel ${id}`);
    return num;
  };
  const onces = (rows: readonly LogRow[]) =>
    rows.flatMap((r) => (r.id === null ? [] : [{ source: r.source, id: r.id, seq: r.seq, atMs: r.atMs }]));
  const channel = async (id: ChannelId): Promise<ChannelRow | null> => {
    // One transaction, so that a change in the middle can't show half of itself.
    return db.transaction(
      async (trx) => {
        const row = (await trx("channels").where({ id }).first()) as Row | undefined;
        if (row === undefined) return null;
        const games = (await trx("games")
          .join("game_versions", (on) => on.on("game_versions.game_id", "games.id").andOn("game_versions.version", "games.version"))
          .leftJoin("game_states", "game_states.game_id", "games.id")
          .where("games.channel_id", id)
          .orderBy("games.created_ms")
          .select(
            "games.id",
            "games.kind",
            "games.name",
            "games.version",
            "game_versions.settings",
            "game_states.durable",
            "game_states.version as state_version",
          )) as Row[];
        const overlays = (await trx("overlays").where({ channel_id: id }).orderBy("created_ms")) as Row[];
        const placements = (await trx("placements").whereIn(
          "overlay_id",
          overlays.map((o) => text(o["id"])),
        )) as Row[];
        const emotes = (await trx("emotes").where({ channel_id: id }).whereNull("removed_ms").orderBy("created_ms").orderBy("id")) as Row[];
        const props = (await trx("props").where({ channel_id: id }).whereNull("removed_ms").orderBy("created_ms").orderBy("id")) as Row[];
        const events = (await trx("event_sources").where({ channel_id: id }).first()) as Row | undefined;
        const triggers = (await trx("triggers").where({ channel_id: id }).select("cue_id", "token_hash")) as Row[];
        const chat = (await trx("chat_connections").where({ channel_id: id }).first()) as Row | undefined;
        return {
          id,
          name: text(row["name"]),
          salt: Number(row["salt"]),
          revision: Number(row["revision"]),
          hushed: Boolean(row["hushed"]),
          games: games.map((g) => ({
            id: gameId(text(g["id"])),
            kind: text(g["kind"]),
            name: text(g["name"]),
            version: Number(g["version"]),
            settings: fromJson(g["settings"]),
            durable: g["durable"] === null ? null : fromJson(g["durable"]),
            stateVersion: Number(g["state_version"] ?? 1),
          })),
          overlays: overlays.map((o): OverlayRow => ({
            id: text(o["id"]),
            name: text(o["name"]),
            tokenHash: o["token_hash"] === null ? null : text(o["token_hash"]),
            shows: Boolean(o["shows"]),
            sounds: Boolean(o["sounds"]),
            css: o["css"] === null ? "" : text(o["css"]),
            width: Number(o["width"]),
            height: Number(o["height"]),
            backdrop: text(o["backdrop"]),
            places: placements
              .filter((p) => p["overlay_id"] === o["id"])
              .map((p) => ({
                gameId: gameId(text(p["game_id"])),
                place: placeSchema.parse(fromJson(p["place"])),
                order: Number(p["order"]),
              }))
              .sort((a, b) => a.order - b.order),
          })),
          sprites: [...emotes.map(spriteOf), ...props.filter((p) => p["kind"] === "picture").map(propSprite)],
          sounds: props.filter((p) => p["kind"] === "sound").map(propSound),
          events:
            events === undefined
              ? null
              : {
                  secret: text(events["secret_sealed"]),
                  oldSecret: events["old_secret_sealed"] === null ? null : text(events["old_secret_sealed"]),
                  oldUntilMs: Number(events["old_until_ms"]),
                },
          triggers: triggers.map((t) => ({ cueId: text(t["cue_id"]), tokenHash: text(t["token_hash"]) })),
          words: emotes.map((e) => ({ id: text(e["id"]), word: text(e["word"]) })),
          chat:
            chat === undefined
              ? null
              : {
                  enabled: Boolean(chat["enabled"]),
                  settings: fromJson(chat["settings"]),
                  secret: chat["secret_sealed"] === null ? null : text(chat["secret_sealed"]),
                },
        };
      },
      { isolationLevel: "repeatable read" },
    );
  };

  return {
    channel,
    channels: async () => ((await db("channels").select("id").orderBy("created_ms")) as Row[]).map((r) => channelId(text(r["id"]))),
    revisions: async () =>
      new Map(((await db("channels").select("id", "revision")) as Row[]).map((r) => [channelId(text(r["id"])), Number(r["revision"])])),
    isAway,
    lastSeq: async (id) => {
      const num = await keys.channel(id);
      const row = num === null ? undefined : ((await db("leases").where({ channel: num }).first("last_seq")) as Row | undefined);
      return Number(row?.["last_seq"] ?? 0);
    },
    came: async (id, source, ids) => {
      const found = new Map<string, Came>();
      const num = await keys.channel(id);
      if (num === null) return found;
      for (const some of chunks(ids)) {
        const hashes = new Map(some.map((one) => [onceOf(source, one).toString("hex"), one]));
        const rows = (await db("once as o")
          .leftJoin("log as l", (on) => on.on("l.channel", "o.channel").andOn("l.at_ms", "o.at_ms").andOn("l.seq", "o.seq"))
          .where("o.channel", num)
          .whereIn(
            "o.id",
            [...hashes.keys()].map((h) => Buffer.from(h, "hex")),
          )
          .select("o.id", "o.seq", "l.body")) as { id: Buffer; seq: number; body: string | null }[];
        for (const r of rows) {
          const notes = r.body === null ? undefined : (fromJson(r.body) as Came | null)?.notes;
          // What the engine wrote there itself.
          found.set(hashes.get(r.id.toString("hex")) ?? "", {
            seq: Number(r.seq),
            notes: Array.isArray(notes) ? (notes as Came["notes"]) : [],
          });
        }
      }
      return found;
    },
    commit: async (id, { rows, states, kept, booked = [] }, fence) => {
      const num = await numOf(id);
      const once = onces(rows);
      const within = new Set<string>();
      const again = once.filter((o) => within.size === within.add(`${o.source} ${o.id}`).size);
      if (again.length > 0) return { is: "twice", seqs: again.map((o) => o.seq) };
      const keyOf = await keys.of(num, peopleOf(rows, kept, booked));
      const lastSeq = [...rows, ...booked].reduce((most, r) => Math.max(most, r.seq), 0);
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
          if (booked.length > 0) book(to, num, booked, keyOf);
          countDays(to, num, rows);
          await to.done();
          // Thrown, so that what was sent behind it is taken back.
          if (held === 0) throw new Lost();
          return { is: "committed" };
        });
      } catch (error) {
        if (error instanceof Lost) return { is: "lost" };
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
    desk: async (id, at) => {
      const num = await numOf(id);
      return readDesk(db, num, id, at, (people) =>
        keys.remember(
          num,
          people.map((r) => ({ key: Number(r["id"]), id: text(r["ext"]), name: text(r["name"]), roles: Number(r["roles"]) })),
        ),
      );
    },
    delivered: async (id, sales) => {
      const seqs = sales.map(saleSeq).filter((seq) => seq !== null);
      if (seqs.length > 0)
        await db("deliveries")
          .where({ channel: await numOf(id) })
          .whereIn("seq", seqs)
          .delete();
    },
    sale: async (id, sale) => {
      const seq = saleSeq(sale);
      if (seq === null) return null;
      const row = (await salesOf(db, await numOf(id))
        .andWhere("s.seq", seq)
        .first()) as Row | undefined;
      return row === undefined ? null : saleOf(row);
    },
    ledgerFaults: async (id) => (await checkLedgerOf(patient, id)).faults.map((f) => `${f.what} ${f.about}: ${f.found}, meant ${f.meant}`),
    sweepDetails: async () => void (await sweepDetails(patient)),
    addViewerSession: async (id, { tokenHash, viewer, nowMs, untilMs }) => {
      const keyOf = await keys.of(await numOf(id), [viewer]);
      await db("viewer_sessions").where("expires_ms", "<", nowMs).delete();
      await db("viewer_sessions")
        .insert({
          token_hash: tokenHash,
          channel_id: id,
          viewer_key: keyOf(viewer.id),
          roles: JSON.stringify(viewer.roles),
          since_ms: nowMs,
          expires_ms: untilMs,
        })
        .onConflict("token_hash")
        .merge();
    },
    viewerSession: async (tokenHash, nowMs) => {
      const row = (await db("viewer_sessions as s")
        .join("viewers as v", "v.id", "s.viewer_key")
        .where("s.token_hash", tokenHash)
        .andWhere("s.expires_ms", ">", nowMs)
        .first("s.channel_id", "s.roles", "v.ext", "v.name")) as Row | undefined;
      if (row === undefined) return null;
      const roles = z.array(z.enum(allRoles)).safeParse(fromJson(row["roles"]));
      return {
        channelId: channelId(text(row["channel_id"])),
        viewer: { id: text(row["ext"]), name: text(row["name"]), roles: roles.success ? roles.data : [] },
      };
    },
    endViewerSession: async (tokenHash) => void (await db("viewer_sessions").where({ token_hash: tokenHash }).delete()),
    audit: async (id, operator, action, detail, nowMs) =>
      void (await db("audit").insert({ channel_id: id, operator_id: operator, action, detail: JSON.stringify(detail), at_ms: nowMs })),
    setHushed: async (id, on) => void (await db("channels").where({ id }).update({ hushed: on })),
    lease: async (id, owner, forMs) => {
      const num = await keys.channel(id);
      if (num === null) return null;
      if (alive !== undefined) await alive(lockOf(owner));
      await db.raw("insert ignore into leases (channel, owner, epoch, until_ms, last_seq) values (?, '', 0, 0, 0)", [num]);
      return db.transaction(async (trx) => {
        const row = (await trx("leases")
          .where({ channel: num })
          .forUpdate()
          .first("owner", "epoch", trx.raw(`until_ms > ${dbNow} as holds`))) as Row;
        const before = text(row["owner"]);
        if (before !== owner) {
          // One that still holds it gives way only when the process behind it is gone.
          if (before !== "" && Number(row["holds"]) === 1 && !(await isGone(trx, before))) return null;
          await trx("leases")
            .where({ channel: num })
            .update({ owner, epoch: trx.raw("epoch + 1"), until_ms: trx.raw(`${dbNow} + ?`, [forMs]) });
          return { owner, epoch: Number(row["epoch"]) + 1 };
        }
        await trx("leases")
          .where({ channel: num })
          .update({ until_ms: trx.raw(`${dbNow} + ?`, [forMs]) });
        return { owner, epoch: Number(row["epoch"]) };
      });
    },
    release: async (id, owner) =>
      void (await db("leases")
        .where({ channel: await numOf(id), owner })
        .update({ owner: "", until_ms: 0 })),
    prop: async (sha) => {
      const row = (await db("prop_files").where({ sha }).first("mime", "bytes")) as { mime: string; bytes: Buffer } | undefined;
      return row ?? null;
    },
    session: async (tokenHash, nowMs) => {
      const row = (await db("sessions")
        .join("memberships", (on) =>
          on.on("memberships.operator_id", "sessions.operator_id").andOn("memberships.channel_id", "sessions.channel_id"),
        )
        .join("operators", "operators.id", "sessions.operator_id")
        .where("sessions.token_hash", tokenHash)
        .where("sessions.expires_ms", ">", nowMs)
        .first("sessions.channel_id", "operators.id", "operators.login", "memberships.role")) as Row | undefined;
      if (row === undefined) return null;
      return {
        channelId: channelId(text(row["channel_id"])),
        operator: text(row["login"]),
        operatorId: text(row["id"]),
        role: row["role"] === "owner" ? "owner" : "moderator",
      };
    },
    upkeep: (nowMs) => upkeep(patient, nowMs),
    ping: async () => void (await db.raw("select 1")),
  };
}
