"use client";
import { gamesByKind } from "../../../core/games/by-kind";
import type { AnyGame } from "../../../core/module/game";
import { partsBy, usePart } from "../../../ui/loaded";

const gameBy = partsBy(gamesByKind);
/**
 * A game with its rules: undefined until it is here, null for an unknown kind. The server draws nothing of it, since fields that
 * are on the screen must take what one types.
 */
export const useGame = (kind: string): AnyGame | null | undefined => usePart(kind, gameBy);
