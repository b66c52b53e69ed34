import { gameId, type ChannelId } from "../../../core/kernel/ids";
import { placeSchema } from "../../../core/wire/messages";
import type { ChannelRow, OverlayRow } from "../../ports/engine-store";
import { type Database, fromJson } from "./database";
import { dressIn, isHeard, propSound, propSprite, spriteOf, text } from "./rows";

/** A channel with all that the engine runs it by. */
export async function channelRow(db: Database, id: ChannelId): Promise<ChannelRow | null> {
  // One transaction, so that a change in the middle can't show half of itself.
  return db.transaction(
    async (trx) => {
      const row = await trx("channels").where({ id }).first();
      if (row === undefined) return null;
      const games = await trx("games")
        .join("game_versions", (on) => on.on("game_versions.game_id", "games.id").andOn("game_versions.version", "games.version"))
        .leftJoin("game_states", "game_states.game_id", "games.id")
        .where("games.channel_id", id)
        .whereNull("games.removed_ms")
        .orderBy("games.created_ms")
        .select(
          "games.id",
          "games.kind",
          "games.name",
          "games.version",
          "game_versions.settings",
          "game_states.durable",
          "game_states.version as state_version",
        );
      const overlays = await trx("overlays").where({ channel_id: id }).whereNull("removed_ms").orderBy("created_ms");
      const placements = await trx("placements").whereIn(
        "overlay_id",
        overlays.map((o) => text(o["id"])),
      );
      const emotes = await trx("emotes").where({ channel_id: id }).whereNull("removed_ms").orderBy("created_ms").orderBy("id");
      const props = await trx("props").where({ channel_id: id }).whereNull("removed_ms").orderBy("created_ms").orderBy("id");
      const events = await trx("event_sources").where({ channel_id: id }).first();
      const triggers = await trx("triggers").where({ channel_id: id }).select("cue_id", "token_hash");
      const chat = await trx("chat_connections").where({ channel_id: id }).first();
      const studio = await trx("studio_connections").where({ channel_id: id }).first();
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
          dress: dressIn(o),
          places: placements
            .filter((p) => p["overlay_id"] === o["id"])
            .map((p) => ({
              gameId: gameId(text(p["game_id"])),
              place: placeSchema.parse(fromJson(p["place"])),
              order: Number(p["order"]),
            }))
            .sort((a, b) => a.order - b.order),
        })),
        sprites: [...emotes.map(spriteOf), ...props.filter((p) => p["kind"] !== "sound").map(propSprite)],
        sounds: props.filter(isHeard).map(propSound),
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
        studio:
          studio === undefined
            ? null
            : {
                enabled: Boolean(studio["enabled"]),
                settings: fromJson(studio["settings"]),
                secret: studio["secret_sealed"] === null ? null : text(studio["secret_sealed"]),
              },
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
}
