"use client";
import { useEffect, useState } from "react";
import { gameByKind } from "../../../core/games/by-kind";
import type { AnyGame } from "../../../core/module/game";

const here = new Map<string, AnyGame>();

/**
 * A game as a whole, with its rules: undefined until it is here, null where there is no such kind. Nothing of it is drawn by the
 * server: what one can type into must be alive.
 */
export function useGame(kind: string): AnyGame | null | undefined {
  const [game, setGame] = useState<AnyGame | null | undefined>(() => here.get(kind));
  useEffect(() => {
    let gone = false;
    let timer = 0;
    const ask = (): void => {
      const coming = gameByKind(kind);
      if (coming === null) return setGame(null);
      coming.then(
        (found) => {
          here.set(kind, found);
          if (!gone) setGame(found);
        },
        // The server is away, or starts anew: it comes by itself.
        () => (timer = window.setTimeout(ask, 2_000)),
      );
    };
    ask();
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [kind]);
  return game;
}
