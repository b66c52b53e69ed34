import { z } from "zod";
import type { ChannelId } from "../../core/kernel/ids";
import { markOf } from "../../core/show/timeline";
import type { Signal } from "../../core/signals/signal";
import type { TalkItem } from "../../core/wire/messages";
import type { WebServices } from "../composition/web";
import { talkText } from "../engine/talk-text";
import type { LinesAsked, LogLine } from "../ports/review-store";

type Web = Pick<WebServices, "store">;
export const linesSchema = z.object({
  from: z.coerce.number().int().min(0),
  to: z.coerce.number().int().min(0),
  at: z.coerce.number().int().min(0).optional(),
  seq: z.coerce.number().int().min(0).optional(),
  only: z.enum(["all", "chat", "rest"]).default("all"),
  words: z.string().trim().max(80).default(""),
});
const linesAtOnce = 200;
/** What was said and what it led to, a page of it. */
export async function showLines(
  { store }: Web,
  channel: ChannelId,
  { from, to, at, seq, only, words }: z.infer<typeof linesSchema>,
): Promise<Readonly<{ lines: readonly TalkItem[]; more: boolean }>> {
  const after = at === undefined || seq === undefined ? null : { atMs: at, seq };
  const asked: LinesAsked = { fromMs: from, toMs: to, after, only, words, limit: linesAtOnce };
  let rows = await store.reviews.lines(channel, asked);
  let lines = rows.flatMap((row) => talkOf(row) ?? []);
  // A page of nothing but what says nothing would leave nowhere to go on from.
  for (let last = rows.at(-1); lines.length === 0 && rows.length >= linesAtOnce && last !== undefined; last = rows.at(-1)) {
    rows = await store.reviews.lines(channel, { ...asked, after: last });
    lines = rows.flatMap((row) => talkOf(row) ?? []);
  }
  return { lines, more: rows.length >= linesAtOnce };
}

/** A row of the log as a line of talk; null for what says nothing and led to nothing. */
function talkOf(row: LogLine): TalkItem | null {
  const body = (row.body ?? {}) as Readonly<Record<string, unknown>>;
  const notes = Array.isArray(body["notes"]) ? (body["notes"] as TalkItem["notes"]) : [];
  const said = row.kind === "message" ? row.text : saidBy(row);
  if (said === "" && notes.length === 0) return null;
  const by = typeof body["by"] === "string" ? body["by"] : "";
  const name = row.name === "" && (row.kind === "command" || row.kind === "cue") ? by : row.name;
  return { n: row.seq, seq: row.seq, atMs: row.atMs, kind: row.kind, name, viewer: null, text: said, notes };
}
/** What a row of a log says that is no message, in words. */
export function saidBy(row: Omit<LogLine, "text">): string {
  const body = (row.body ?? {}) as Readonly<Record<string, unknown>>;
  const mark = markOf(row);
  try {
    // Written by this engine or one before it: what it can't read any more it does not say.
    const told = talkText({ ...body, kind: row.kind, seq: row.seq, atMs: row.atMs, id: "" } as unknown as Signal);
    return told === "" ? (mark?.label ?? "") : told;
  } catch {
    return mark?.label ?? "";
  }
}
