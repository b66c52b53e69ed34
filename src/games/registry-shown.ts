import { partsBy, usePart } from "../ui/loaded";
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

export const shownOf = partsBy(shown);
/** Undefined until it is here; null for a kind that this version does not show. */
export const useShown = (kind: string): GameShown | null | undefined => usePart(kind, shownOf);
