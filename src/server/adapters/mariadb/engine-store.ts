import { channelId, gameId, type ChannelId } from "../../../core/kernel/ids";
import { z } from "zod";
import { roles as allRoles } from "../../../core/signals/signal";
import { placeSchema } from "../../../core/wire/messages";
import type { ChannelRow, EngineStore, LogRow, OverlayRow } from "../../ports/engine-store";
import { type Database, fromJson } from "./database";
import { checkLedgerOf } from "./ledger-check";
import { book, readDesk, saleOf, sweepDetails } from "./points";
import { isDuplicate, propSound, propSprite, type Row, spriteOf, text } from "./rows";

const logColumns = (id: ChannelId, row: LogRow) => ({
  channel_id: id,
  seq: row.seq,
  at_ms: row.atMs,
  kind: row.kind,
  source: row.source,
  signal_id: row.id.slice(0, 100),
  viewer: row.viewer,
  body: JSON.stringify(row.body),
});

/** A statement stays well under the server's largest packet. */
function* chunks<T>(rows: readonly T[]): Generator<readonly T[]> {
  for (let from = 0; from < rows.length; from += 1_000) yield rows.slice(from, from + 1_000);
}

export function mariadbEngineStore(db: Database): EngineStore {
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
          .select("games.id", "games.kind", "games.name", "games.version", "game_versions.settings", "game_states.durable")) as Row[];
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
      { readOnly: true },
    );
  };

  return {
    channel,
    channels: async () => ((await db("channels").select("id").orderBy("created_ms")) as Row[]).map((r) => channelId(text(r["id"]))),
    revisions: async () =>
      new Map(((await db("channels").select("id", "revision")) as Row[]).map((r) => [channelId(text(r["id"])), Number(r["revision"])])),
    lastSeq: async (id) =>
      Number(((await db("signals").where({ channel_id: id }).max("seq as seq").first()) as Row | undefined)?.["seq"] ?? 0),
    seen: async (id, source, ids) => {
      if (ids.length === 0) return new Set();
      const rows = (await db("signals")
        .where({ channel_id: id, source })
        .whereIn("signal_id", [...ids])
        .select("signal_id")) as Row[];
      return new Set(rows.map((r) => text(r["signal_id"])));
    },
    commit: async (id, { rows, states, kept, booked = [] }) => {
      try {
        await db.transaction(async (trx) => {
          for (const some of chunks(rows)) await trx("signals").insert(some.map((row) => logColumns(id, row)));
          if (states.length > 0) {
            await trx("game_states")
              .insert(states.map((s) => ({ game_id: s.gameId, seq: s.seq, durable: JSON.stringify(s.durable) })))
              .onConflict("game_id")
              .merge();
          }
          for (const some of chunks(kept))
            await trx("game_records").insert(
              some.map((k) => ({
                channel_id: id,
                game_id: k.gameId,
                seq: k.seq,
                kind: k.kind,
                viewer: k.viewer?.id.slice(0, 64) ?? null,
                viewer_name: k.viewer?.name.slice(0, 80) ?? null,
                from_ms: k.fromMs,
                to_ms: k.toMs,
                body: JSON.stringify(k.body),
              })),
            );
          if (booked.length > 0) await book(trx, id, booked);
        });
        return "committed";
      } catch (error) {
        if (isDuplicate(error)) return "duplicate";
        throw error;
      }
    },
    append: async (id, rows) => {
      for (const some of chunks(rows))
        await db("signals")
          .insert(some.map((row) => logColumns(id, row)))
          .onConflict()
          .ignore();
    },
    desk: (id, at) => readDesk(db, id, at),
    sale: async (id, sale) => {
      const row = (await db("sales").where({ channel_id: id, id: sale }).first()) as Row | undefined;
      return row === undefined ? null : saleOf(row);
    },
    ledgerFaults: async (id) => (await checkLedgerOf(db, id)).faults.map((f) => `${f.what} ${f.about}: ${f.found}, meant ${f.meant}`),
    sweepDetails: async () => void (await sweepDetails(db)),
    addViewerSession: async (id, { tokenHash, viewer, nowMs, untilMs }) => {
      await db("viewer_sessions").where("expires_ms", "<", nowMs).delete();
      await db("viewer_sessions")
        .insert({
          token_hash: tokenHash,
          channel_id: id,
          viewer: viewer.id,
          viewer_name: viewer.name.slice(0, 80),
          roles: JSON.stringify(viewer.roles),
          since_ms: nowMs,
          expires_ms: untilMs,
        })
        .onConflict("token_hash")
        .merge();
    },
    viewerSession: async (tokenHash, nowMs) => {
      const row = (await db("viewer_sessions").where({ token_hash: tokenHash }).andWhere("expires_ms", ">", nowMs).first()) as
        Row | undefined;
      if (row === undefined) return null;
      const roles = z.array(z.enum(allRoles)).safeParse(fromJson(row["roles"]));
      return {
        channelId: channelId(text(row["channel_id"])),
        viewer: { id: text(row["viewer"]), name: text(row["viewer_name"]), roles: roles.success ? roles.data : [] },
      };
    },
    setHushed: async (id, on) => void (await db("channels").where({ id }).update({ hushed: on })),
    lease: async (id, owner, nowMs, untilMs) => {
      await db("leases").insert({ channel_id: id, owner, until_ms: untilMs }).onConflict("channel_id").ignore();
      const taken = await db("leases")
        .where({ channel_id: id })
        .andWhere((q) => q.where({ owner }).orWhere("until_ms", "<=", nowMs))
        .update({ owner, until_ms: untilMs });
      // An update that changes nothing counts zero rows for MariaDB, so ask who holds it.
      if (taken > 0) return true;
      const row = (await db("leases").where({ channel_id: id }).first()) as Row | undefined;
      return row?.["owner"] === owner;
    },
    release: async (id, owner) => void (await db("leases").where({ channel_id: id, owner }).delete()),
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
        .first("sessions.channel_id", "operators.login", "memberships.role")) as Row | undefined;
      if (row === undefined) return null;
      return {
        channelId: channelId(text(row["channel_id"])),
        operator: text(row["login"]),
        role: row["role"] === "owner" ? "owner" : "moderator",
      };
    },
    ping: async () => void (await db.raw("select 1")),
  };
}
