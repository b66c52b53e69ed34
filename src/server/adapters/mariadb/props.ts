import type { ChannelId } from "../../../core/kernel/ids";
import { ok, refused } from "../../../core/kernel/refusal";
import { type PropKind, propKinds } from "../../../core/props/kinds";
import type { StoredFile } from "../../ports/media-store";
import type { PropRow, PropStore } from "../../ports/prop-store";
import { type Database, fromJson } from "./database";
import { putFile } from "./media";
import { bump, type Row, text } from "./rows";

export const mostProps = 400;

const kindOf = (r: Row): PropKind => propKinds.find((k) => k === r["kind"]) ?? "picture";
const rowOf = (r: Row): PropRow => ({
  id: text(r["id"]),
  name: text(r["name"]),
  kind: kindOf(r),
  sourceKind: text(r["source_kind"]),
  url: `/props/${text(r["made_sha"])}`,
  settings: fromJson(r["settings"]),
  facts: fromJson(r["facts"]),
  createdMs: Number(r["created_ms"]),
});

export function mariadbProps(db: Database): PropStore {
  const here = (trx: Database, channel: ChannelId) => trx("props").where({ channel_id: channel }).whereNull("removed_ms");
  const keep = async (trx: Database, file: StoredFile | Readonly<{ sha: string }>, nowMs: number): Promise<void> => {
    if ("bytes" in file) await putFile(trx, file, nowMs);
  };
  return {
    props: async (channel) => (await here(db, channel).orderBy("created_ms").orderBy("id")).map(rowOf),
    add: (channel, prop, nowMs) =>
      db.transaction(async (raw) => {
        const trx = raw as unknown as Database;
        await trx("channels").where({ id: channel }).forUpdate().first("id");
        const others = await here(trx, channel).select("name", "source_sha");
        const same = others.find((o) => o["source_sha"] === prop.source.sha);
        if (same !== undefined) return refused("prop/same", { name: text(same["name"]) });
        if (others.length >= mostProps) return refused("prop/too-many", { most: mostProps });
        await keep(trx, prop.source, nowMs);
        await keep(trx, prop.made, nowMs);
        await trx("props").insert({
          id: prop.id,
          channel_id: channel,
          name: prop.name,
          kind: prop.kind,
          source_sha: prop.source.sha,
          source_kind: prop.sourceKind,
          made_sha: prop.made.sha,
          settings: JSON.stringify(prop.settings),
          facts: JSON.stringify(prop.facts),
          created_ms: nowMs,
        });
        await bump(trx, channel);
        return ok(null);
      }),
    sameSource: async (channel, sha) => {
      const row = await here(db, channel).where({ source_sha: sha }).first("name");
      return row === undefined ? null : text(row["name"]);
    },
    source: async (channel, id) => {
      const row = await here(db, channel)
        .join("prop_files", "prop_files.sha", "props.source_sha")
        .where("props.id", id)
        .first("props.kind", "props.settings", "props.source_sha", "prop_files.bytes", "prop_files.mime");
      if (row === undefined) return null;
      return {
        kind: kindOf(row),
        settings: fromJson(row["settings"]),
        sha: text(row["source_sha"]),
        mime: text(row["mime"]),
        // The driver hands a MEDIUMBLOB over as a Buffer.
        bytes: row["bytes"] as Buffer,
      };
    },
    remake: (channel, id, prop, nowMs) =>
      db.transaction(async (raw) => {
        const trx = raw as unknown as Database;
        await keep(trx, prop.made, nowMs);
        if (prop.source !== null) await keep(trx, prop.source, nowMs);
        const changed = await here(trx, channel)
          .where({ id })
          .update({
            made_sha: prop.made.sha,
            settings: JSON.stringify(prop.settings),
            facts: JSON.stringify(prop.facts),
            ...(prop.source === null ? {} : { source_sha: prop.source.sha, source_kind: prop.sourceKind }),
          });
        if (changed === 0) return refused("prop/unknown");
        await bump(trx, channel);
        return ok(null);
      }),
    rename: async (channel, id, name) => {
      const changed = await here(db, channel).where({ id }).update({ name });
      if (changed > 0) await bump(db, channel);
      return changed > 0;
    },
    remove: async (channel, id, nowMs) => {
      const changed = await here(db, channel).where({ id }).update({ removed_ms: nowMs });
      if (changed > 0) await bump(db, channel);
      return changed > 0;
    },
    restore: async (channel, id) => {
      const changed = await db("props").where({ channel_id: channel, id }).update({ removed_ms: null });
      if (changed > 0) await bump(db, channel);
      return changed > 0;
    },
    uses: async (channel) => {
      const rows = await db("games")
        .leftJoin("game_versions", (on) => on.on("game_versions.game_id", "games.id").andOn("game_versions.version", "games.version"))
        .where("games.channel_id", channel)
        .select("games.id", "games.name", "games.draft", "game_versions.settings as published");
      return rows.map((r) => ({
        game: text(r["id"]),
        name: text(r["name"]),
        text: `${JSON.stringify(fromJson(r["draft"]))} ${r["published"] === null ? "" : JSON.stringify(fromJson(r["published"]))}`,
      }));
    },
  };
}
