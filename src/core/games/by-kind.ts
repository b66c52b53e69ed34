import type { AnyGame } from "../module/game";

/** Each game as a whole, when one of its kind is asked for: an editor brings the rules of one game, and not of twelve. */
const load: ReadonlyMap<string, () => Promise<AnyGame>> = new Map<string, () => Promise<AnyGame>>([
  ["boss-battle", async () => (await import("./boss-battle/definition")).bossBattle],
  ["brimful", async () => (await import("./brimful/definition")).brimful],
  ["clips", async () => (await import("./clips/definition")).clips],
  ["companion", async () => (await import("./companion/definition")).companion],
  ["emote-wall", async () => (await import("./emote-wall/definition")).emoteWall],
  ["greeting", async () => (await import("./greeting/definition")).greeting],
  ["prediction", async () => (await import("./prediction/definition")).prediction],
  ["presenting", async () => (await import("./presenting/definition")).presenting],
  ["raffle", async () => (await import("./raffle/definition")).raffle],
  ["scene-changes", async () => (await import("./scene-changes/definition")).studio],
  ["voices", async () => (await import("./voices/definition")).voices],
  ["wheel", async () => (await import("./wheel/definition")).wheel],
]);
const asked = new Map<string, Promise<AnyGame>>();

/** The same promise for the same kind, so that a component can wait for it; null for a kind there is not. */
export function gameByKind(kind: string): Promise<AnyGame> | null {
  const known = asked.get(kind);
  if (known !== undefined) return known;
  const begin = load.get(kind);
  if (begin === undefined) return null;
  const game = begin();
  asked.set(kind, game);
  // What did not come, since the connection broke, is asked for anew the next time.
  game.catch(() => asked.delete(kind));
  return game;
}
