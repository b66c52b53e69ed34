import type { GameDefinition } from "../../module/game";
import { counted } from "../../words/sentence";
import { raffleActions, raffleCommands } from "./actions";
import { raffleNoteInShort, raffleNoteInWords } from "./notes";
import type { RaffleTransient } from "./outcome";
import { raffleHandOvers, raffleRounds } from "./rounds";
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
import { raffleAsks, raffleFair, raffleMine, rafflePool, raffleStands, raffleView } from "./view";
import { raffleHints, raffleSentences, rulesForViewers } from "./words";

/** Raffles, giveaways, the nearest number: RULES section 7. */
export const raffle: GameDefinition<RaffleSettings, RaffleDurable, RaffleTransient, never> = {
  kind: "raffle",
  name: "draw",
  offer: {
    name: "a draw",
    about: "Viewers enter, by word or points; winners are drawn from a drum that viewers shake, and anybody can check it.",
  },
  newNames: ["A draw", "Another draw", "The small draw", "The late draw", "The weekly draw"],
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
  stands: raffleStands,
  fair: raffleFair,
  asks: raffleAsks,
  rounds: raffleRounds,
  roundSince: (view) => (view["phase"] === "" ? null : Number(view["openedMs"])),
  handOvers: raffleHandOvers,
  playable: (view) => view["on"] === true && view["phase"] === "open",
  told: {
    "raffle/opened": {
      words: "a draw is opened",
      logged: true,
      from: ["open"],
      example: "Last week’s mug",
      tape: ({ text }) => ({ tone: "moss", weight: 2, label: `${text} opened` }),
    },
    "raffle/entered": { words: "somebody enters a draw", unit: ["ticket", "tickets"], example: "Last week’s mug" },
    "raffle/locked": {
      words: "a draw is locked",
      unit: ["viewer", "viewers"],
      logged: true,
      from: ["lock"],
      example: "Last week’s mug",
      tape: ({ text, amount }) => ({ tone: "slate", weight: 2, label: `${text} locked: ${counted(amount, "viewer")}` }),
    },
    "raffle/drawn": {
      words: "a winner is drawn",
      logged: true,
      from: ["draw"],
      example: "quietferry",
      tape: ({ text }) => ({ tone: "ochre", weight: 3, label: `${text} was drawn` }),
    },
    "raffle/claimed": { words: "a winner claims a prize", logged: true, example: "Tall vase" },
    "raffle/closed": { words: "a draw is closed", unit: ["winner", "winners"], logged: true, from: ["close"], example: "Last week’s mug" },
    "raffle/cancelled": {
      words: "a draw is cancelled",
      unit: ["viewer", "viewers"],
      logged: true,
      from: ["cancel"],
      example: "Last week’s mug",
    },
  },
  actions: raffleActions,
  lab: raffleLab,
  samples: raffleSamples,
  place: { x: 0.46, y: 0.05, width: 0.5, height: 0.3 },
  previewPlace: { x: 0.12, y: 0.12, width: 0.76, height: 0.5 },
  unsaid: ["raffle/off"],
  striking: ["raffle/drawn", "raffle/claimed"],
  noteInWords: raffleNoteInWords,
  noteInShort: raffleNoteInShort,
};
