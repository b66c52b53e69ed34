import { gameOf } from "../../core/games/registry";
import { mix32 } from "../../core/kernel/chance";
import { type Room, rooms } from "../../core/lab/crowd";
import { type EveningRates, ratesOfRoom } from "../../core/lab/rates";
import type { Source } from "../../core/rehearsal/plan";
import type { Viewer } from "../../core/signals/names";
import type { Runner } from "../engine/runner";
import type { ChannelRow, LedgerRows, LogRow } from "../ports/engine-store";
import { type Coming, crowdOf, linesOf, replayed } from "./crowd";

export type Comings = Iterator<Coming> | AsyncIterator<Coming>;
/** The next rows of a log between two times, behind a place in it. */
export type Logged = (
  at: Readonly<{ fromMs: number; toMs: number; after: Readonly<{ atMs: number; seq: number }> | null }>,
) => Promise<readonly LogRow[]>;
export type SourceAt = Readonly<{
  row: ChannelRow;
  ledger: LedgerRows;
  runner: Runner;
  fromMs: number;
  /** From when on it is wanted, in the rehearsal's own time. */
  afterMs: number;
  nowMs: () => number;
}>;
const roomHours = 24;

/** What a rehearsal began with, from some moment of it on. */
export function comingsOf(source: Source, at: SourceAt, logged: Logged): Comings {
  switch (source.from) {
    case "nobody":
      return nobody();
    case "rates":
      return crowd(source.rates, at);
    case "lines":
      return behind(linesOf(source.lines), at.afterMs);
    case "log":
      return replay(source, at.afterMs, logged);
  }
}
/** A ready-made room; whoever is none of them is nobody. */
export const comingsOfRoom = (room: string, at: SourceAt): Comings =>
  Object.hasOwn(rooms, room) ? crowd(ratesOfRoom(room as Room, roomHours), at) : nobody();

const nobody = (): Comings => ([] as Coming[])[Symbol.iterator]();

function crowd(rates: EveningRates, { row, ledger, runner, fromMs, afterMs, nowMs }: SourceAt): Comings {
  const { modules, view } = runner;
  const people: Viewer[] = ledger.accounts
    .filter((a) => a.account.startsWith("v:") && a.name !== "")
    .map((a) => ({ id: a.account.slice(2), name: a.name, roles: ["viewer"] }));
  const isOn = (id: string): boolean => view.game(id)?.["on"] === true;
  const comes = crowdOf(mix32(row.salt, Math.floor(fromMs + afterMs)), rates, {
    people,
    emotes: row.words.map((w) => w.word),
    rewards: () => modules.list.flatMap((m) => m.rules.provides?.(m.settings, m.durable).sells ?? []),
    homeCurrency: modules.provided().money?.home ?? "EUR",
    sprites: row.sprites,
    games: () => modules.list.filter((m) => gameOf(m.kind) !== null && isOn(m.id)),
    nowMs,
  });
  return delayed(comes, afterMs);
}

async function* replay(source: Extract<Source, { from: "log" }>, skipMs: number, logged: Logged): AsyncGenerator<Coming, void> {
  const { fromMs, toMs, beginMs, hands } = source;
  let after: Readonly<{ atMs: number; seq: number }> | null = null;
  for (;;) {
    const rows = await logged({ fromMs: Math.max(fromMs, beginMs + skipMs), toMs, after });
    const last = rows.at(-1);
    if (last === undefined) return;
    for (const row of rows) {
      const coming = replayed(row, beginMs, hands);
      if (coming !== null) yield coming;
    }
    after = { atMs: last.atMs, seq: last.seq };
  }
}

function* delayed(coming: Iterable<Coming>, byMs: number): Generator<Coming, void> {
  for (const one of coming) yield { ...one, afterMs: one.afterMs + byMs };
}
function* behind(coming: Iterable<Coming>, afterMs: number): Generator<Coming, void> {
  for (const one of coming) if (one.afterMs >= afterMs) yield one;
}
