import { allGames, gameOf } from "../../core/games/registry";
import type { ChannelId } from "../../core/kernel/ids";
import type { Row } from "../../core/module/game";
import { markOf } from "../../core/show/timeline";
import type { WebServices } from "../composition/web";

/** Something that was put before the audience in a show; `link` is an address of the web, or empty. */
export type AiredRow = Readonly<{ atMs: number; how: string; what: string; by: string; link: string }>;
const mostRows = 300;

const kinds = (): readonly string[] => [...new Set(allGames().flatMap((g) => Object.keys(g.aired ?? {})))];
const address = (link: string): string => (/^https?:\/\//i.test(link) ? link : "");

/** What was spoken, shown, presented and sounded in a stretch of time, newest first, from what was kept of it and from the tape. */
export async function airedIn(
  { store }: Pick<WebServices, "store">,
  channel: ChannelId,
  { fromMs, toMs }: Readonly<{ fromMs: number; toMs: number }>,
  most = mostRows,
): Promise<Readonly<{ rows: readonly AiredRow[]; more: boolean }>> {
  const [records, cues] = await Promise.all([
    store.events.rounds(channel, { kinds: kinds(), game: "", limit: most + 1, between: [fromMs, toMs] }),
    store.shows.tape(channel, fromMs, toMs, most + 1, ["cue"]),
  ]);
  const kept = records.flatMap((r): AiredRow[] => {
    const known = gameOf(r.gameKind)?.aired ?? {};
    const told = Object.hasOwn(known, r.kind) ? known[r.kind]?.(r.body as Row) : undefined;
    return told === undefined ? [] : [{ ...told, atMs: r.toMs, by: r.viewer?.name ?? "", link: address(told.link) }];
  });
  const fired = cues.flatMap((row): AiredRow[] => {
    const mark = markOf(row);
    const by = (row.body as Readonly<Record<string, unknown>>)["by"];
    // That it went off again is no second one.
    if (mark === null || mark.label.endsWith(" off")) return [];
    return [{ atMs: mark.atMs, how: "a cue", what: mark.label, by: typeof by === "string" ? by : "", link: "" }];
  });
  const rows = [...kept, ...fired].sort((a, b) => b.atMs - a.atMs);
  return { rows: rows.slice(0, most), more: rows.length > most };
}
