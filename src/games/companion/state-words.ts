import type { Askable } from "../../core/games/companion/settings";

/** What each thing it can be asked for is called. */
export const stateWords: Readonly<Record<Askable, string>> = {
  cheer: "cheers",
  greet: "waves",
  dance: "dances a while",
  startle: "jumps",
  eat: "eats",
  speak: "speaks",
  sleep: "falls asleep",
};
