import { clipsForViewers } from "./clips/for-viewers";
import type { GameForViewers } from "./for-viewers";
import { greetingForViewers } from "./greeting/for-viewers";
import { predictionForViewers } from "./prediction/for-viewers";
import { raffleForViewers } from "./raffle/for-viewers";
import { voicesForViewers } from "./voices/for-viewers";

/** What viewers can do in each kind of game: one line each, for those in which they do something on their page. */
const games = new Map<string, GameForViewers>([
  ["raffle", raffleForViewers],
  ["prediction", predictionForViewers],
  ["greeting", greetingForViewers],
  ["voices", voicesForViewers],
  ["clips", clipsForViewers],
]);
export const forViewersOf = (kind: string): GameForViewers | null => games.get(kind) ?? null;
