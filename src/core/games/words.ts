import type { GameFront, GameAction, Told } from "../module/game";
import { counted } from "../words/sentence";
import { allFronts, frontOf } from "./fronts";

/** How a game stands, from what viewers may see of it. */
export const standsInWords = (kind: string, view: Readonly<Record<string, unknown>>): string =>
  view["on"] === false ? "is stopped" : (frontOf(kind)?.stands?.(view) ?? "is on");

/** What a game tells, by its name: whichever game it is of. */
export function toldOf(what: string): Readonly<{ game: GameFront; told: Told }> | null {
  for (const game of allFronts()) {
    const told = Object.hasOwn(game.told ?? {}, what) ? game.told?.[what] : undefined;
    if (told !== undefined) return { game, told };
  }
  return null;
}
/** All that games can tell, to choose from. */
export const allTold = (): readonly Readonly<{ what: string; told: Told; game: GameFront }>[] =>
  allFronts().flatMap((game) => Object.entries(game.told ?? {}).map(([what, told]) => ({ what, told, game })));

/** An action of a game; of any game that has one of the name where the kind is not known any more. */
export function actionOf(kind: string, name: string): GameAction | null {
  const own = (game: GameFront | null): GameAction | null =>
    game !== null && Object.hasOwn(game.actions ?? {}, name) ? (game.actions?.[name] ?? null) : null;
  const found = own(frontOf(kind));
  if (found !== null || kind !== "") return found;
  for (const game of allFronts()) {
    const any = own(game);
    if (any !== null) return any;
  }
  return null;
}
export const amountOfUnit = (amount: number, [single, many]: readonly [string, string]): string => counted(amount, single, many);
