import type { GameAction } from "./game";

/** Keeps the exact fields of each action, so that a game's step knows what its commands bring. */
export const actionsOf = <const A extends Readonly<Record<string, GameAction>>>(actions: A): A => actions;
