import { type ChannelId, gameId } from "../../core/kernel/ids";
import type { Kept } from "../../core/module/module";
import type { Database } from "../adapters/mariadb/database";

const dayMs = 86_400_000;
const beginsMs = 19 * 3_600_000;
/** The channel is on air from seven on Tuesdays, Fridays and Saturdays; the last time was two days ago or more. */
export const isShowDay = (dayStartMs: number): boolean => [2, 5, 6].includes(new Date(dayStartMs).getUTCDay());
export const newestShowDay = 2;
/** When the show of so many days ago began, or the one before it. Each lasts 110 minutes at least. */
export function eveningMs(nowMs: number, daysAgo: number): number {
  const midnight = Math.floor(nowMs / dayMs) * dayMs;
  let day = midnight - Math.max(newestShowDay, Math.round(daysAgo)) * dayMs;
  while (!isShowDay(day)) day -= dayMs;
  return day + beginsMs;
}

/** When the last show began, the one before it, and so on: 0 is the last. */
export function lastEveningMs(nowMs: number, nth: number): number {
  const today = Math.floor(nowMs / dayMs) * dayMs + beginsMs;
  let at = eveningMs(nowMs, newestShowDay);
  for (let i = 0; i < nth; i += 1) at = eveningMs(nowMs, (today - at) / dayMs + 1);
  return at;
}

/** Viewers of the demo who have points, the oldest first. */
export const someViewers = async (db: Database, channel: ChannelId, most: number) =>
  db("viewers")
    .whereIn("channel", db("channels").where({ id: channel }).select("num"))
    .where("balance", ">", 0)
    .orderBy("id")
    .limit(most)
    .select("id", "channel", "ext", "name");

/** What a game kept over the months, as the engine would have written it. */
export async function addRecords(db: Database, channel: ChannelId, game: string, kept: readonly Kept[]): Promise<void> {
  const [{ num }] = (await db("channels").where({ id: channel }).select("num")) as [{ num: number }];
  const viewers = await db("viewers").where({ channel: num }).select("id", "ext");
  const keyOf = new Map(viewers.map((v) => [v.ext, v.id]));
  const rows = kept.map((one, i) => ({
    channel: num,
    game_id: gameId(game),
    seq: i + 1,
    kind: one.kind,
    viewer: one.viewer === null ? null : (keyOf.get(one.viewer.id) ?? null),
    from_ms: one.fromMs,
    to_ms: one.toMs,
    body: JSON.stringify(one.body),
  }));
  for (let from = 0; from < rows.length; from += 1_000) await db("records").insert(rows.slice(from, from + 1_000));
}
