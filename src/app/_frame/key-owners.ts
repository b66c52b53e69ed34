import { buttonsOf } from "../../core/games/buttons";
import { frontOf } from "../../core/games/fronts";
import { fixedKeys } from "./fixed-keys";

type Facts = Readonly<{
  /** What was chosen in this browser, by the id of the action; null where a key was turned off. */
  chosen: Readonly<Record<string, string | null>>;
  games: readonly Readonly<{ kind: string }>[];
}>;
/** What a key is used for beside cues, in the booth or everywhere; null when it is free. */
export function keyUse(key: string, { chosen, games }: Facts): string | null {
  const has = (id: string, usual: string | undefined): boolean => (Object.hasOwn(chosen, id) ? chosen[id] : usual) === key;
  for (const [id, { key: usual, by }] of Object.entries(fixedKeys)) if (has(id, usual)) return by;
  for (const kind of new Set(games.map((g) => g.kind)))
    for (const [name, action] of buttonsOf(kind))
      if (has(`game.${kind}.${name}`, action.key)) return `${frontOf(kind)?.name ?? kind}: ${action.label.toLowerCase()}`;
  return null;
}
