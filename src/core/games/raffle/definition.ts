import type { GameDefinition } from "../../module/game";
import { raffleCommands } from "./commands";
import type { RaffleTransient } from "./outcome";
import { raffleRounds } from "./rounds";
import { raffleRows } from "./rows";
import { raffleDue, raffleStep, freshTransient } from "./rules";
import { raffleLab } from "./lab";
import { raffleSamples } from "./samples";
import {
  raffleDefaults,
  type RaffleDurable,
  raffleDurableSchema,
  type RaffleSettings,
  raffleSettingsSchema,
  freshRaffle,
} from "./settings";
import { raffleMine, rafflePool, raffleView } from "./view";
import { raffleHints, raffleSentences, rulesForViewers } from "./words";
import { raffleFront } from "./front";

/** Raffles, giveaways, the nearest number: RULES section 7. */
export const raffle: GameDefinition<RaffleSettings, RaffleDurable, RaffleTransient, never> = {
  ...raffleFront,
  setUps: [
    {
      id: "points",
      name: "A raffle for points",
      about: "Up to ten tickets each, at a price in points; the more tickets, the better the chance.",
      settings: { ...raffleDefaults, title: "The raffle", price: 100, most: 10 },
    },
    {
      id: "giveaway",
      name: "A giveaway with three prizes",
      about: "Three winners, each with a prize of their own; each answers in chat within a minute, or the next is drawn.",
      settings: {
        ...raffleDefaults,
        title: "The giveaway",
        winners: 3,
        prizes: [
          { id: "p1", name: "First prize", count: 1, how: "" },
          { id: "p2", name: "Second prize", count: 1, how: "" },
          { id: "p3", name: "Third prize", count: 1, how: "" },
        ],
      },
    },
    {
      id: "number",
      name: "The nearest number",
      about: "Everybody names a number; one is drawn, and whoever is nearest wins.",
      settings: { ...raffleDefaults, title: "Guess the number", by: "number" },
    },
  ],
  settings: raffleSettingsSchema,
  defaults: raffleDefaults,
  durable: raffleDurableSchema,
  freshDurable: freshRaffle,
  freshDust: freshTransient,
  rows: raffleRows,
  step: raffleStep,
  view: raffleView,
  hears: ["message", "here", "live"],
  dueMs: raffleDue,
  chatWords: ({ word, chanceWord }) => (chanceWord === "" ? [word] : [word, chanceWord]),
  wordsForViewers: ({ word, chanceWord, title }) => [
    { word, what: `enters ${title} while it is open` },
    ...(chanceWord === "" ? [] : [{ word: chanceWord, what: `tells your chance in ${title}` }]),
  ],
  commands: raffleCommands,
  pool: rafflePool,
  viewerCommands: ["join"],
  mine: raffleMine,
  sentences: (settings, { points }) => raffleSentences(settings, points),
  toldToViewers: (settings, { points }) => rulesForViewers(settings, points),
  hints: (settings) => raffleHints(settings),
  lacks: ({ prizes }) =>
    prizes.length === 0
      ? [{ id: "no-prize", text: "It draws without a prize: whoever wins is named, and gets nothing.", path: "prizes" }]
      : [],
  rounds: raffleRounds,
  lab: raffleLab,
  samples: raffleSamples,
};
