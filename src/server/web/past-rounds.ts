import Papa from "papaparse";
import { allGames, gameOf } from "../../core/games/registry";
import type { ChannelId } from "../../core/kernel/ids";
import type { RoundWords, Row } from "../../core/module/game";
import type { GameRecord } from "../ports/event-store";
import type { WebServices } from "../composition/web";

export type PastRound = Omit<RoundWords, "round"> &
  Readonly<{ id: number; game: string; gameName: string; kind: string; atMs: number; check: string; entries: boolean }>;

/** Kinds of records that are rounds, of whichever game. */
const kinds = (): readonly string[] => [...new Set(allGames().flatMap((g) => Object.keys(g.rounds?.kept ?? {})))];

const winKinds = (): readonly string[] => [...new Set(allGames().flatMap((g) => g.rounds?.wins?.kind ?? []))];

function pastRound(record: GameRecord): PastRound[] {
  const rounds = gameOf(record.gameKind)?.rounds;
  const words =
    rounds !== undefined && Object.hasOwn(rounds.kept, record.kind) ? rounds.kept[record.kind]?.(record.body as Row) : undefined;
  if (words === undefined) return [];
  const { round, ...rest } = words;
  const { id, game, gameName, gameKind, toMs } = record;
  return [{ ...rest, id, game, gameName, kind: gameKind, atMs: toMs, check: round, entries: rounds?.entries !== undefined }];
}

/** Rounds that are over, newest first. */
export async function pastRounds(
  { store }: Pick<WebServices, "store">,
  channel: ChannelId,
  game = "",
  limit = 200,
  between?: readonly [fromMs: number, toMs: number],
): Promise<readonly PastRound[]> {
  const records = await store.events.rounds(channel, { kinds: kinds(), game, limit, ...(between === undefined ? {} : { between }) });
  return records.flatMap(pastRound);
}

/** All of them as a table. */
export async function roundsAsCsv(web: WebServices, channel: ChannelId): Promise<string> {
  const rounds = await pastRounds(web, channel, "", 50_000);
  return asCsv(
    rounds.map((r) => ({
      when: new Date(r.atMs).toISOString(),
      game: r.gameName,
      title: r.title,
      result: r.result,
      viewers: r.people ?? "",
      round: r.check,
    })),
  );
}

type Line = Readonly<Record<string, string | number>>;
export type RoundOut = Readonly<{ record: GameRecord; entries: readonly Line[] }>;
/** One round with everybody who was in it; null when there is none. */
export async function roundOut(web: WebServices, channel: ChannelId, id: number): Promise<RoundOut | null> {
  const record = await web.store.events.record(channel, id);
  return record === null || pastRound(record).length === 0 ? null : { record, entries: await entriesOf(web, record) };
}
async function entriesOf({ store }: Pick<WebServices, "store">, record: GameRecord): Promise<readonly Line[]> {
  const kept = gameOf(record.gameKind)?.rounds?.entries;
  if (kept === undefined) return [];
  const newest = new Map<string, Line>();
  const rows = await store.events.rowsBetween(record.game, kept.kind, { fromMs: record.fromMs, toMs: record.toMs, beforeId: record.id });
  for (const body of rows) {
    const entry = kept.of(body as Row);
    if (entry === null) continue;
    if (entry.line === null) newest.delete(entry.id);
    else newest.set(entry.id, entry.line);
  }
  return [...newest.values()];
}

export type Winner = Readonly<{ atMs: number; game: string; title: string; viewer: string; prize: string; check: string }>;
/** Who won what in a stretch of time, round by round, newest first. */
export async function winnersIn(
  web: Pick<WebServices, "store">,
  channel: ChannelId,
  between: readonly [fromMs: number, toMs: number],
): Promise<readonly Winner[]> {
  const [records, wins] = await Promise.all([
    web.store.events.rounds(channel, { kinds: kinds(), game: "", limit: 10_000, between }),
    web.store.events.rounds(channel, { kinds: winKinds(), game: "", limit: 10_000, between }),
  ]);
  const winners = winsOf(wins);
  for (const record of records) {
    const [round] = pastRound(record);
    if (round === undefined) continue;
    const head = { atMs: round.atMs, game: round.gameName, title: round.title, check: round.check };
    winners.push(...(round.winners ?? []).map((w) => ({ ...head, ...w })));
    const won = gameOf(record.gameKind)?.rounds?.entries?.won;
    if (won === undefined) continue;
    for (const line of await entriesOf(web, record)) {
      const prize = won(record.body as Row, line);
      if (prize !== null) winners.push({ ...head, viewer: String(line["name"] ?? ""), prize });
    }
  }
  return winners.sort((a, b) => b.atMs - a.atMs);
}
/** Rounds in which somebody won in a stretch of time and which were not closed in it: their winners belong to it all the same. */
export async function wonMeanwhile(
  web: Pick<WebServices, "store">,
  channel: ChannelId,
  between: readonly [fromMs: number, toMs: number],
  closed: readonly PastRound[],
): Promise<readonly PastRound[]> {
  const records = await web.store.events.rounds(channel, { kinds: winKinds(), game: "", limit: 10_000, between });
  const there = new Set(closed.map((r) => r.check));
  const of = new Map(records.map((r) => [(r.body as Row)["round"], r]));
  const open = new Map<string, PastRound>();
  for (const { atMs, title, viewer, prize, check } of winsOf(records)) {
    const record = of.get(check);
    if (record === undefined || there.has(check)) continue;
    const result = prize === "" ? viewer : `${viewer} (${prize})`;
    const before = open.get(check);
    const { game, gameName, gameKind: kind } = record;
    const head = { id: 0, game, gameName, kind, title, people: null, check, entries: false };
    open.set(check, { ...head, atMs: before?.atMs ?? atMs, result: before === undefined ? result : `${before.result}, ${result}` });
  }
  return [...open.values()];
}
/** Of each win the newest record, where it stands. */
function winsOf(records: readonly GameRecord[]): Winner[] {
  const newest = new Map<string, Readonly<{ id: number; winner: Winner | null }>>();
  for (const { id, game, gameName, gameKind, kind, toMs, body } of records) {
    const wins = gameOf(gameKind)?.rounds?.wins;
    if (wins?.kind !== kind) continue;
    const win = wins.of(body as Row);
    const key = `${game} ${win.id}`;
    if ((newest.get(key)?.id ?? -1) > id) continue;
    const { title, viewer, prize, round: check } = win;
    newest.set(key, { id, winner: prize === null ? null : { atMs: toMs, game: gameName, title, viewer, prize, check } });
  }
  return [...newest.values()].flatMap(({ winner }) => winner ?? []);
}

/** Names that begin like a formula stay words in every program that opens tables. */
export const asCsv = (rows: readonly Readonly<Record<string, string | number>>[]): string =>
  Papa.unparse([...rows], { escapeFormulae: true, newline: "\r\n" });
