import type { ChannelId } from "../../../core/kernel/ids";
import type { FigureFacts } from "../../../core/props/figure";
import { beatSchema } from "../../../core/props/settings";
import { videoFactsSchema } from "../../../core/props/video";
import type { Sound, Sprite } from "../../../core/wire/messages";
import { type Dress, dressOf } from "../../../core/dress/dress";
import { jsonOrNull } from "../../../core/kernel/text";
import { videoSprite } from "../../props/sprites";
import type { Database } from "./database";

export type Row = Record<string, unknown>;
export const text = (value: unknown): string => String(value);

export const spriteOf = (row: Row): Sprite => ({
  key: `own:${text(row["id"])}`,
  word: text(row["word"]),
  url: `/props/${text(row["sheet_sha"])}`,
  frames: Number(row["frames"]),
  columns: Number(row["columns"]),
  frameWidth: Number(row["frame_width"]),
  frameHeight: Number(row["frame_height"]),
  frameMs: Number(row["frame_ms"]),
});

/** How an overlay is dressed, by its column. */
export const dressIn = (row: Row): Dress => dressOf(jsonOrNull(text(row["dress"] ?? "null")));

const fromText = (value: unknown): Record<string, unknown> =>
  (typeof value === "string" ? JSON.parse(value) : value) as Record<string, unknown>;

/** A picture prop as the overlay draws it. */
export function propSprite(row: Row): Sprite {
  const facts = fromText(row["facts"]);
  if (row["kind"] === "video") {
    const { success, data } = videoFactsSchema.safeParse(facts);
    if (success) return videoSprite({ id: text(row["id"]), name: text(row["name"]), settings: fromText(row["settings"]) }, data);
  }
  return {
    key: `prop:${text(row["id"])}`,
    word: text(row["name"]).slice(0, 64),
    url: `/props/${text(row["made_sha"])}`,
    frames: Number(facts["frames"]),
    columns: Number(facts["columns"]),
    frameWidth: Number(facts["frameWidth"]),
    frameHeight: Number(facts["frameHeight"]),
    frameMs: Number(facts["frameMs"]),
    // Written by ourselves, from what was checked.
    ...(facts["figure"] === undefined ? {} : { figure: facts["figure"] as FigureFacts }),
  };
}
/** Whether there is something to hear in a prop. */
export const isHeard = (row: Row): boolean =>
  row["kind"] === "sound" || (row["kind"] === "video" && fromText(row["facts"])["audible"] === true);

export function propSound(row: Row): Sound {
  const facts = fromText(row["facts"]);
  const settings = fromText(row["settings"]);
  if (row["kind"] === "video") {
    const { sound, ms } = videoFactsSchema.parse(facts);
    const volume = Number(settings["volume"]) / 100;
    return { id: text(row["id"]), url: sound, ms, volume, name: text(row["name"]), beat: null, long: true };
  }
  return {
    id: text(row["id"]),
    url: `/props/${text(row["made_sha"])}`,
    ms: Number(facts["ms"]),
    volume: Number(settings["volume"]) / 100,
    name: text(row["name"]),
    beat: beatSchema
      .nullable()
      .catch(null)
      .parse(facts["beat"] ?? null),
    long: false,
  };
}

/** Whatever the engine reads of a channel changed: it sees that by the revision. */
export const bump = async (db: Database, channel: ChannelId): Promise<void> =>
  void (await db("channels").where({ id: channel }).increment("revision", 1));

export const isDuplicate = (error: unknown): boolean => (error as { code?: string }).code === "ER_DUP_ENTRY";
