import { moduleOf, readSettings } from "../../../core/modules";
import { ok, refused } from "../../../core/kernel/refusal";
import { readStored, storedInWords } from "../../../core/kernel/stored";
import type { GameStore } from "../../ports/operator-store";
import { type Database, fromJson } from "./database";
import { bump, type Row, text } from "./rows";

export function mariadbGames(db: Database): GameStore {
  return {
    games: async (channel) => {
      const rows = await db("games")
        .leftJoin("game_versions", (on) => on.on("game_versions.game_id", "games.id").andOn("game_versions.version", "games.version"))
        .where("games.channel_id", channel)
        .whereNull("games.removed_ms")
        .orderBy("games.created_ms")
        .orderBy("games.id")
        .select("games.*", "game_versions.settings as published");
      return rows.map((r) => ({
        id: text(r["id"]),
        kind: text(r["kind"]),
        name: text(r["name"]),
        version: Number(r["version"]),
        draftRevision: Number(r["draft_revision"]),
        changed: JSON.stringify(fromJson(r["draft"])) !== JSON.stringify(r["published"] === null ? null : fromJson(r["published"])),
      }));
    },
    draft: async (channel, game) => {
      const row = await db("games")
        .leftJoin("game_versions", (on) => on.on("game_versions.game_id", "games.id").andOn("game_versions.version", "games.version"))
        .where("games.id", game)
        .where("games.channel_id", channel)
        .whereNull("games.removed_ms")
        .first("games.*", "game_versions.settings as published");
      if (row === undefined) return null;
      const kind = text(row["kind"]);
      const draft = readSettings(kind, fromJson(row["draft"]));
      const published = row["published"] === null ? null : readSettings(kind, fromJson(row["published"]));
      return {
        id: game,
        kind,
        name: text(row["name"]),
        settings: draft.settings,
        revision: Number(row["draft_revision"]),
        by: text(row["draft_by"]),
        version: Number(row["version"]),
        published: published === null || published.why !== null ? null : published.settings,
        unreadable: draft.why === null ? null : storedInWords(draft.why),
      };
    },
    create: async (channel, { id, kind, name, settings, by, nowMs }) => {
      await db("games").insert({ id, channel_id: channel, kind, name, draft: JSON.stringify(settings), draft_by: by, created_ms: nowMs });
    },
    saveDraft: async (channel, game, { revision, settings, by }) => {
      const changed = await db("games")
        .where({ id: game, channel_id: channel, draft_revision: revision })
        .update({ draft: JSON.stringify(settings), draft_revision: revision + 1, draft_by: by });
      if (changed > 0) return ok({ revision: revision + 1 });
      const row = await db("games").where({ id: game, channel_id: channel }).first("draft_revision", "draft_by");
      if (row === undefined) return refused("game/unknown");
      return refused("draft/changed-elsewhere", { by: text(row["draft_by"]), revision: Number(row["draft_revision"]) });
    },
    rename: async (channel, game, name) => {
      const changed = await db("games").where({ id: game, channel_id: channel }).update({ name });
      if (changed > 0) await bump(db, channel);
      return changed > 0;
    },
    removed: async (channel) => {
      const rows = await db("games").where({ channel_id: channel }).whereNotNull("removed_ms").orderBy("removed_ms", "desc").limit(50);
      return rows.map((r) => ({ id: text(r["id"]), kind: text(r["kind"]), name: text(r["name"]), removedMs: Number(r["removed_ms"]) }));
    },
    pool: async (channel, game) => {
      const [row] = (await db("games as g")
        .leftJoin("game_states as s", "s.game_id", "g.id")
        .where({ "g.channel_id": channel, "g.id": game })
        .select("g.kind", "s.durable", "s.version")) as Row[];
      const rules = row === undefined ? null : moduleOf(text(row["kind"]));
      if (row === undefined || rules?.pool === undefined || row["durable"] === null) return 0;
      const state = readStored<unknown>(rules.durable, rules.stateSteps, Number(row["version"]), fromJson(row["durable"]));
      return state.ok ? rules.pool(state.value) : 0;
    },
    setRemoved: async (channel, game, removedMs) => {
      const changed = await db("games").where({ id: game, channel_id: channel }).update({ removed_ms: removedMs });
      if (changed > 0) await bump(db, channel);
      return changed > 0;
    },
    publish: (channel, game, { revision, by, nowMs }) =>
      db.transaction(async (trx) => {
        const row = await trx("games").where({ id: game, channel_id: channel, removed_ms: null }).forUpdate().first();
        if (row === undefined) return refused("game/unknown");
        if (Number(row["draft_revision"]) !== revision)
          return refused("draft/changed-elsewhere", { by: text(row["draft_by"]), revision: Number(row["draft_revision"]) });
        const version = Number(row["version"]) + 1;
        await trx("game_versions").insert({ game_id: game, version, settings: JSON.stringify(fromJson(row["draft"])), by, at_ms: nowMs });
        await trx("games").where({ id: game }).update({ version });
        await bump(trx as unknown as Database, channel);
        return ok({ version });
      }),
    versions: async (channel, game) => {
      const rows = await db("game_versions")
        .join("games", "games.id", "game_versions.game_id")
        .where("games.id", game)
        .where("games.channel_id", channel)
        .orderBy("game_versions.version", "desc")
        .limit(50)
        .select("game_versions.*");
      return rows.map((r) => ({ version: Number(r["version"]), by: text(r["by"]), atMs: Number(r["at_ms"]), note: text(r["note"]) }));
    },
    versionSettings: async (channel, game, version) => {
      const row = await db("game_versions")
        .join("games", "games.id", "game_versions.game_id")
        .where("games.id", game)
        .where("games.channel_id", channel)
        .where("game_versions.version", version)
        .first("game_versions.settings", "games.kind");
      if (row === undefined) return refused("version/unknown");
      const { settings, why } = readSettings(text(row["kind"]), fromJson(row["settings"]));
      return why === null ? ok(settings) : refused("version/unreadable", { why: storedInWords(why) });
    },
  };
}
