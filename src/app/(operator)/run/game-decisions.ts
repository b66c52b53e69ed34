import { frontOf } from "../../../core/games/fronts";
import { commandAndTell } from "../../_frame/show";
import type { Decision } from "./decision";

type Game = Readonly<{ id: string; kind: string; name: string; view: Record<string, unknown> }>;
/** What games ask of a person, by their definitions. */
export const gameDecisions = (games: readonly Game[]): readonly Decision[] =>
  games.flatMap((game) =>
    (frontOf(game.kind)?.asks?.(game.view) ?? []).map(({ id, sinceMs, words, about, strip, main, other }): Decision => ({
      id: `game.${id}`,
      sinceMs,
      words,
      about,
      ...(strip === undefined ? {} : { strip }),
      main: main.label,
      other: other?.label ?? "",
      decide: async (yes) => void (await commandAndTell(game, (yes ? main : (other ?? main)).command)),
    })),
  );
