import type { AnyGame } from "../module/game";

/** Loads one game as a whole: an editor needs the rules of the game it edits, and not of twelve. */
export const gamesByKind: ReadonlyMap<string, () => Promise<AnyGame>> = new Map<string, () => Promise<AnyGame>>([
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
