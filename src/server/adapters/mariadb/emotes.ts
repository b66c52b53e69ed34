import { fold } from "../../../core/kernel/fold";
import type { ChannelId } from "../../../core/kernel/ids";
import { ok, refused, type Result } from "../../../core/kernel/refusal";
import type { EmoteStore } from "../../ports/operator-store";
import type { Database } from "./database";
import { bump, spriteOf, text } from "./rows";

/** More words than this make a palette nobody can read, and a stage too many pictures to hold. */
export const mostEmotes = 500;

export function mariadbEmotes(db: Database): EmoteStore {
  const here = (trx: Database, channel: ChannelId) => trx("emotes").where({ channel_id: channel }).whereNull("removed_ms");
  /** Why a word, or a picture, can't join what is there; one look under a lock on the channel. */
  const clash = async (
    trx: Database,
    channel: ChannelId,
    word: string,
    pixelsSha: string | null,
    except: string,
  ): Promise<Result<null>> => {
    await trx("channels").where({ id: channel }).forUpdate().first("id");
    const others = await here(trx, channel).whereNot({ id: except }).select("word", "word_key", "pixels_sha");
    const sameWord = others.find((o) => o["word_key"] === fold(word));
    if (sameWord !== undefined) return refused("emote/word-taken", { word: text(sameWord["word"]) });
    const samePicture = others.find((o) => pixelsSha !== null && o["pixels_sha"] === pixelsSha);
    if (samePicture !== undefined) return refused("emote/same-picture", { word: text(samePicture["word"]) });
    if (others.length >= mostEmotes) return refused("emote/too-many", { most: mostEmotes });
    return ok(null);
  };
  return {
    emotes: async (channel) =>
      (await here(db, channel).orderBy("created_ms").orderBy("id")).map((r) => ({
        id: text(r["id"]),
        word: text(r["word"]),
        sprite: spriteOf(r),
        kind: text(r["source_kind"]),
        createdMs: Number(r["created_ms"]),
      })),
    add: (channel, emote, nowMs) =>
      db.transaction(async (raw) => {
        const trx = raw as unknown as Database;
        const free = await clash(trx, channel, emote.word, emote.pixelsSha, "");
        if (!free.ok) return free;
        await trx("prop_files")
          .insert({ sha: emote.sheet.sha, mime: emote.sheet.mime, bytes: emote.sheet.bytes, created_ms: nowMs })
          .onConflict("sha")
          .ignore();
        await trx("emotes").insert({
          id: emote.id,
          channel_id: channel,
          word: emote.word,
          word_key: fold(emote.word),
          source_sha: emote.sourceSha,
          pixels_sha: emote.pixelsSha,
          source_kind: emote.kind,
          sheet_sha: emote.sheet.sha,
          frames: emote.frames,
          columns: emote.columns,
          frame_width: emote.frameWidth,
          frame_height: emote.frameHeight,
          frame_ms: emote.frameMs,
          created_ms: nowMs,
        });
        await bump(trx, channel);
        return ok(null);
      }),
    rename: (channel, emote, word) =>
      db.transaction(async (raw) => {
        const trx = raw as unknown as Database;
        const free = await clash(trx, channel, word, null, emote);
        if (!free.ok) return free;
        const changed = await here(trx, channel)
          .where({ id: emote })
          .update({ word, word_key: fold(word) });
        if (changed === 0) return refused("emote/unknown");
        await bump(trx, channel);
        return ok(null);
      }),
    remove: async (channel, emote, nowMs) => {
      const changed = await here(db, channel).where({ id: emote }).update({ removed_ms: nowMs });
      if (changed > 0) await bump(db, channel);
      return changed > 0;
    },
    restore: (channel, emote) =>
      db.transaction(async (raw) => {
        const trx = raw as unknown as Database;
        const row = await trx("emotes").where({ channel_id: channel, id: emote }).first("word", "pixels_sha");
        if (row === undefined) return refused("emote/unknown");
        const free = await clash(trx, channel, text(row["word"]), text(row["pixels_sha"]), emote);
        if (!free.ok) return free;
        await trx("emotes").where({ id: emote }).update({ removed_ms: null });
        await bump(trx, channel);
        return ok(null);
      }),
  };
}
