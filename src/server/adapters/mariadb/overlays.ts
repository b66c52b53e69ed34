import type { OverlayStore } from "../../ports/operator-store";
import { z } from "zod";
import { placeSchema } from "../../../core/wire/messages";
import { type Database, fromJson } from "./database";
import { bump, dressIn, text } from "./rows";

const layoutSchema = z.array(z.object({ game: z.string(), place: placeSchema }));

export function mariadbOverlays(db: Database): OverlayStore {
  return {
    overlays: async (channel) => {
      const rows = await db("overlays").where({ channel_id: channel, removed_ms: null }).orderBy("created_ms").orderBy("id");
      const places = await db("placements")
        .join("games", "games.id", "placements.game_id")
        .whereNull("games.removed_ms")
        .whereIn(
          "overlay_id",
          rows.map((r) => text(r["id"])),
        )
        .orderBy("placements.order")
        .select("placements.*");
      return rows.map((r) => ({
        id: text(r["id"]),
        name: text(r["name"]),
        width: Number(r["width"]),
        height: Number(r["height"]),
        linked: r["token_hash"] !== null,
        sinceMs: r["token_since_ms"] === null ? null : Number(r["token_since_ms"]),
        games: places.filter((p) => p["overlay_id"] === r["id"]).map((p) => text(p["game_id"])),
        shows: Boolean(r["shows"]),
        sounds: Boolean(r["sounds"]),
        dress: dressIn(r),
        note: text(r["note"]),
      }));
    },
    create: async (channel, { id, name, width, height, nowMs }) => {
      await db("overlays").insert({ id, channel_id: channel, name, width, height, created_ms: nowMs });
      await bump(db, channel);
    },
    resize: async (channel, overlay, width, height) =>
      (await db("overlays").where({ id: overlay, channel_id: channel }).update({ width, height })) > 0,
    rename: async (channel, overlay, name) => {
      const changed = await db("overlays").where({ id: overlay, channel_id: channel }).update({ name });
      if (changed > 0) await bump(db, channel);
      return changed > 0;
    },
    removed: async (channel) => {
      const rows = await db("overlays").where({ channel_id: channel }).whereNotNull("removed_ms").orderBy("removed_ms", "desc").limit(50);
      return rows.map((r) => ({ id: text(r["id"]), name: text(r["name"]), removedMs: Number(r["removed_ms"]) }));
    },
    setRemoved: async (channel, overlay, removedMs) => {
      const changed = await db("overlays").where({ id: overlay, channel_id: channel }).update({ removed_ms: removedMs });
      if (changed > 0) await bump(db, channel);
      return changed > 0;
    },
    sealedToken: async (channel, overlay) => {
      const row = await db("overlays").where({ id: overlay, channel_id: channel }).first("token_sealed");
      return row === undefined || row["token_sealed"] === null ? null : text(row["token_sealed"]);
    },
    setToken: (channel, overlay, token, nowMs) =>
      db.transaction(async (trx) => {
        const changed = await trx("overlays")
          .where({ id: overlay, channel_id: channel })
          .update({ token_hash: token?.hash ?? null, token_sealed: token?.sealed ?? null, token_since_ms: token === null ? null : nowMs });
        if (changed > 0) await bump(trx as unknown as Database, channel);
        return changed > 0;
      }),
    place: (channel, overlay, game, place) =>
      db.transaction(async (trx) => {
        const both = await trx("overlays")
          .join("games", "games.channel_id", "overlays.channel_id")
          .where("overlays.id", overlay)
          .where("games.id", game)
          .where("overlays.channel_id", channel)
          .whereNull("games.removed_ms")
          .first("games.id");
        if (both === undefined) return false;
        if (place !== null)
          await trx("placements")
            .insert({ overlay_id: overlay, game_id: game, place: JSON.stringify(place), order: 99 })
            .onConflict()
            .ignore();
        else await trx("placements").where({ overlay_id: overlay, game_id: game }).delete();
        await bump(trx as unknown as Database, channel);
        return true;
      }),
    layout: async (channel, overlay) => {
      const r = await db("overlays").where({ id: overlay, channel_id: channel, removed_ms: null }).first();
      if (r === undefined) return null;
      const places = await db("placements")
        .join("games", "games.id", "placements.game_id")
        .where("overlay_id", overlay)
        .whereNull("games.removed_ms")
        .orderBy("placements.order")
        .select("placements.*");
      return {
        id: overlay,
        name: text(r["name"]),
        width: Number(r["width"]),
        height: Number(r["height"]),
        places: places.map((p) => ({ game: text(p["game_id"]), place: placeSchema.parse(fromJson(p["place"])) })),
        draft: r["layout_draft"] === null ? null : layoutSchema.parse(fromJson(r["layout_draft"])),
        atOnce: Boolean(r["at_once"]),
        shows: Boolean(r["shows"]),
        sounds: Boolean(r["sounds"]),
        css: r["css"] === null ? "" : text(r["css"]),
        backdrop: text(r["backdrop"]),
        dress: dressIn(r),
        note: text(r["note"]),
      };
    },
    saveLayout: (channel, overlay, places, onAir) =>
      db.transaction(async (trx) => {
        const r = await trx("overlays").where({ id: overlay, channel_id: channel }).forUpdate().first("id");
        if (r === undefined) return false;
        const games = await trx("games").where({ channel_id: channel }).select("id", "removed_ms");
        const own = new Set(games.filter((g) => g["removed_ms"] === null).map((g) => text(g["id"])));
        // What was removed keeps its place, for when it is brought back.
        const removed = games.filter((g) => g["removed_ms"] !== null).map((g) => text(g["id"]));
        const kept = places.filter((p) => own.has(p.game));
        if (!onAir) {
          await trx("overlays")
            .where({ id: overlay })
            .update({ layout_draft: JSON.stringify(kept) });
          return true;
        }
        await trx("placements").where({ overlay_id: overlay }).whereNotIn("game_id", removed).delete();
        if (kept.length > 0)
          await trx("placements").insert(
            kept.map((p, order) => ({ overlay_id: overlay, game_id: p.game, place: JSON.stringify(p.place), order })),
          );
        await trx("overlays").where({ id: overlay }).update({ layout_draft: null });
        await bump(trx as unknown as Database, channel);
        return true;
      }),
    placeOnAir: (channel, overlay, places) =>
      db.transaction(async (trx) => {
        const r = await trx("overlays").where({ id: overlay, channel_id: channel }).forUpdate().first("id");
        if (r === undefined) return false;
        for (const [order, p] of places.entries())
          await trx("placements")
            .where({ overlay_id: overlay, game_id: p.game })
            .update({ place: JSON.stringify(p.place), order });
        await bump(trx as unknown as Database, channel);
        return true;
      }),
    keepFont: async ({ sha, bytes }, nowMs) =>
      void (await db("prop_files").insert({ sha, mime: "font/woff2", bytes, created_ms: nowMs }).onConflict("sha").ignore()),
    setUp: async (channel, overlay, { atOnce, dress, ...part }) => {
      const row = {
        ...part,
        ...(atOnce === undefined ? {} : { at_once: atOnce }),
        ...(dress === undefined ? {} : { dress: JSON.stringify(dress) }),
      };
      const there = await db("overlays").where({ id: overlay, channel_id: channel }).first("id");
      if (there === undefined) return false;
      if (Object.keys(row).length > 0) await db("overlays").where({ id: overlay, channel_id: channel }).update(row);
      await bump(db, channel);
      return true;
    },
  };
}
