import { useEffect, useState } from "react";
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
/**
 * The same for a component: undefined while it is on its way, so that the rest of the page works meanwhile; null for a
 * kind that this version does not show.
 */
export function useShown(kind: string): GameShown | null | undefined {
  const [known, setKnown] = useState<Readonly<{ kind: string; shown: GameShown | null }> | null>(null);
  useEffect(() => {
    let gone = false;
    const load = (): void =>
      void shownOf(kind).then(
        (of) => void (gone || setKnown({ kind, shown: of })),
        () => void (gone || setTimeout(load, 2_000)),
      );
    load();
    return () => void (gone = true);
  }, [kind]);
  return known?.kind === kind ? known.shown : undefined;
}
