import type { GameFront } from "../../module/game";
import { counted } from "../../words/sentence";
import { raffleActions } from "./actions";
import { raffleNoteInShort, raffleNoteInWords } from "./notes";
import { raffleHandOvers } from "./rounds";
import { raffleAsks, raffleFair, raffleStands, raffleUnfinished } from "./stands";

/** What surfaces need of it while it runs: names, buttons, and what its view says. */
export const raffleFront: GameFront = {
  kind: "raffle",
  name: "draw",
  offer: {
    name: "a draw",
    about: "Viewers enter, by word or points; winners are drawn from a drum that viewers shake, and anybody can check it.",
  },
  newNames: ["A draw", "Another draw", "The small draw", "The late draw", "The weekly draw"],
  stands: raffleStands,
  fair: raffleFair,
  asks: raffleAsks,
  roundSince: (view) => (view["phase"] === "" ? null : Number(view["openedMs"])),
  handOvers: raffleHandOvers,
  unfinished: raffleUnfinished,
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
  place: { x: 0.46, y: 0.05, width: 0.5, height: 0.3 },
  previewPlace: { x: 0.12, y: 0.12, width: 0.76, height: 0.5 },
  unsaid: ["raffle/off"],
  striking: ["raffle/drawn", "raffle/claimed"],
  noteInWords: raffleNoteInWords,
  noteInShort: raffleNoteInShort,
};
