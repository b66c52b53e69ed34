import { use } from "react";
import type { GameShown } from "./shown";

/** What the operator's side shows of each kind of game: one line each, loaded when it is first asked for. */
const shown = new Map<string, () => Promise<GameShown>>([
  ["emote-wall", () => import("./emote-wall/shown").then((m) => m.wallShown)],
  ["boss-battle", () => import("./boss-battle/shown").then((m) => m.bossShown)],
  ["wheel", () => import("./wheel/shown").then((m) => m.wheelShown)],
  ["raffle", () => import("./raffle/shown").then((m) => m.raffleShown)],
  ["prediction", () => import("./prediction/shown").then((m) => m.predictionShown)],
  ["brimful", () => import("./brimful/shown").then((m) => m.brimfulShown)],
  ["greeting", () => import("./greeting/shown").then((m) => m.greetingShown)],
  ["presenting", () => import("./presenting/shown").then((m) => m.presentingShown)],
  ["voices", () => import("./voices/shown").then((m) => m.voicesShown)],
  ["clips", () => import("./clips/shown").then((m) => m.clipsShown)],
  ["companion", () => import("./companion/shown").then((m) => m.companionShown)],
  ["scene-changes", () => import("./scene-changes/shown").then((m) => m.studioShown)],
]);

/** One promise for each kind, since a component that waits for it asks again and again. */
const asked = new Map<string, Promise<GameShown | null>>();
export function shownOf(kind: string): Promise<GameShown | null> {
  const known = asked.get(kind);
  if (known !== undefined) return known;
  // What could not be loaded is asked for anew the next time: the page may have been without a network.
  const coming = (shown.get(kind)?.() ?? Promise.resolve(null)).catch((error: unknown) => {
    asked.delete(kind);
    throw error;
  });
  asked.set(kind, coming);
  return coming;
}
/** The same for a component, which waits until it is there. */
export const useShown = (kind: string): GameShown | null => use(shownOf(kind));
