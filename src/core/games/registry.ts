import type { AnyGame } from "../module/game";
import { bossBattle } from "./boss-battle/definition";
import { brimful } from "./brimful/definition";
import { clips } from "./clips/definition";
import { companion } from "./companion/definition";
import { emoteWall } from "./emote-wall/definition";
import { registerFront } from "./fronts";
import { greeting } from "./greeting/definition";
import { prediction } from "./prediction/definition";
import { presenting } from "./presenting/definition";
import { raffle } from "./raffle/definition";
import { studio } from "./scene-changes/definition";
import { voices } from "./voices/definition";
import { wheel } from "./wheel/definition";

/** Kinds come from outside too, so they are keys of a map. */
const games = new Map<string, AnyGame>();

/** Adds a kind of game. Gives back how it is taken out again, for tests. */
export function register(game: AnyGame): () => void {
  if (games.has(game.kind)) throw new Error(`${game.kind} is registered twice`);
  games.set(game.kind, game);
  const away = registerFront(game);
  return () => {
    games.delete(game.kind);
    away();
  };
}
// Every game there is: one line each.
register(emoteWall);
register(bossBattle);
register(wheel);
register(raffle);
register(prediction);
register(brimful);
register(greeting);
register(presenting);
register(voices);
register(companion);
register(clips);
register(studio);

export const gameOf = (kind: string): AnyGame | null => games.get(kind) ?? null;
export const allGames = (): readonly AnyGame[] => [...games.values()];
