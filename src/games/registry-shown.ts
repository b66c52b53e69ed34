import { bossShown } from "./boss-battle/shown";
import { brimfulShown } from "./brimful/shown";
import { clipsShown } from "./clips/shown";
import { companionShown } from "./companion/shown";
import { wallShown } from "./emote-wall/shown";
import { greetingShown } from "./greeting/shown";
import { predictionShown } from "./prediction/shown";
import { presentingShown } from "./presenting/shown";
import { raffleShown } from "./raffle/shown";
import { studioShown } from "./scene-changes/shown";
import { voicesShown } from "./voices/shown";
import { wheelShown } from "./wheel/shown";
import type { GameShown } from "./shown";

/** What the operator's side shows of each kind of game: one line each. */
const shown = new Map<string, GameShown>([
  ["emote-wall", wallShown],
  ["boss-battle", bossShown],
  ["wheel", wheelShown],
  ["raffle", raffleShown],
  ["prediction", predictionShown],
  ["brimful", brimfulShown],
  ["greeting", greetingShown],
  ["presenting", presentingShown],
  ["voices", voicesShown],
  ["clips", clipsShown],
  ["companion", companionShown],
  ["scene-changes", studioShown],
]);
export const shownOf = (kind: string): GameShown | null => shown.get(kind) ?? null;
