import type { ChannelId } from "../../core/kernel/ids";
import { readStored } from "../../core/kernel/stored";
import { moduleOf } from "../../core/modules";
import type { ChannelRow, EngineStore, GameRow } from "../ports/engine-store";

/** A channel as it is stored, with the rows that make states whole which are kept row by row. */
export async function readChannel(store: EngineStore, id: ChannelId): Promise<ChannelRow | null> {
  const row = await store.channel(id);
  if (row === null) return null;
  return { ...row, games: await Promise.all(row.games.map((game) => recalled(store, id, game))) };
}

async function recalled(store: EngineStore, id: ChannelId, game: GameRow): Promise<GameRow> {
  const rules = moduleOf(game.kind);
  if (rules?.rows === undefined || game.durable === null || game.durable === undefined) return game;
  const state = readStored<unknown>(rules.durable, rules.stateSteps, game.stateVersion ?? 1, game.durable);
  // What can't be read does not run; its rows are of no use then.
  const since = state.ok ? rules.rows.since(state.value) : null;
  return since === null ? game : { ...game, recalled: await store.kept(id, game.id, rules.rows.kinds, since) };
}
