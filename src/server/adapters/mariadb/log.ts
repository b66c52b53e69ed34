import type { LogRow } from "../../ports/engine-store";
import { cut } from "../../../core/kernel/text";
import { chunks, marks } from "./chunks";
import type { Pipeline } from "./pipeline";
import { onceOf, rolesBits } from "./keys";

type KeyOf = (id: string) => number;
const dayMs = 86_400_000;
const isChat = (row: LogRow): boolean => row.kind === "message" && row.source === "chat";
const textOf = (row: LogRow): string => {
  const body = row.body as Readonly<{ text?: unknown }> | null;
  return typeof body?.text === "string" ? body.text : "";
};

/** Rows of one commit or batch, oldest first; with `again` those that are there already are passed over. What chat said has a leaner table than what happened. */
export function writeLog(to: Pipeline, channel: number, rows: readonly LogRow[], keyOf: KeyOf, again: "ignore" | "" = ""): void {
  const chat = rows.filter(isChat);
  for (const some of chunks(chat))
    to.raw(
      `insert ${again} into chat_log (channel, at_ms, seq, viewer, roles, body) values ${marks(6, some.length)}`,
      some.flatMap((r) => [
        channel,
        r.atMs,
        r.seq,
        r.viewer === null ? 0 : keyOf(r.viewer.id),
        rolesBits(r.viewer?.roles ?? []),
        textOf(r),
      ]),
    );
  const other = rows.filter((r) => !isChat(r));
  for (const some of chunks(other))
    to.raw(
      `insert ${again} into log (channel, at_ms, seq, viewer, kind, source, body) values ${marks(7, some.length)}`,
      some.flatMap((r) => [
        channel,
        r.atMs,
        r.seq,
        r.viewer === null ? null : keyOf(r.viewer.id),
        cut(r.kind, 24),
        cut(r.source, 24),
        JSON.stringify(r.body),
      ]),
    );
}

/** How much of what happened on which day: kept when the rows themselves have gone. */
export function countDays(to: Pipeline, channel: number, rows: readonly LogRow[]): void {
  const counts = new Map<string, number>();
  for (const r of rows) {
    const key = `${Math.floor(r.atMs / dayMs)} ${r.kind}`;
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  const daily = [...counts].sort((a, b) => (a[0] < b[0] ? -1 : 1)).map(([key, n]) => [channel, ...key.split(" "), n]);
  if (daily.length > 0)
    to.raw(
      `insert into daily_counts (channel, day, kind, n) values ${marks(4, daily.length)} on duplicate key update n = n + values(n)`,
      daily.flat(),
    );
}

/** Ids that may come only once; a duplicate makes the statement fail (ER_DUP_ENTRY). */
export function writeOnce(
  to: Pipeline,
  channel: number,
  ids: readonly Readonly<{ source: string; id: string; seq: number; atMs: number }>[],
): void {
  for (const some of chunks(ids))
    to.raw(
      `insert into once (channel, id, seq, at_ms) values ${marks(4, some.length)}`,
      some.flatMap((o) => [channel, onceOf(o.source, o.id), o.seq, o.atMs]),
    );
}
