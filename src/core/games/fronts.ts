import type { GameFront } from "../module/game";
import { bossBattleFront } from "./boss-battle/front";
import { brimfulFront } from "./brimful/front";
import { clipsFront } from "./clips/front";
import { companionFront } from "./companion/front";
import { emoteWallFront } from "./emote-wall/front";
import { greetingFront } from "./greeting/front";
import { predictionFront } from "./prediction/front";
import { presentingFront } from "./presenting/front";
import { raffleFront } from "./raffle/front";
import { studioFront } from "./scene-changes/front";
import { voicesFront } from "./voices/front";
import { wheelFront } from "./wheel/front";

/** Kinds come from outside too, so they are keys of a map. */
const fronts = new Map<string, GameFront>();
for (const front of [
  emoteWallFront,
  bossBattleFront,
  wheelFront,
  raffleFront,
  predictionFront,
  brimfulFront,
  greetingFront,
  presentingFront,
  voicesFront,
  companionFront,
  clipsFront,
  studioFront,
])
  fronts.set(front.kind, front);

/**
 * What surfaces need of every kind of game while it runs, without its rules: `registry.ts` holds the games as a whole. A page
 * that only shows them imports this, and is half a megabyte lighter.
 */
export const frontOf = (kind: string): GameFront | null => fronts.get(kind) ?? null;
export const isGame = (kind: string): boolean => fronts.has(kind);
export const allFronts = (): readonly GameFront[] => [...fronts.values()];
/** Adds one that is not shipped. Gives back how it is taken out again, for tests. */
export function registerFront(front: GameFront): () => void {
  fronts.set(front.kind, front);
  return () => void fronts.delete(front.kind);
}
