import type { GameFront } from "../../module/game";
import { counted } from "../../words/sentence";
import { predictionActions } from "./actions";
import { predictionNoteInShort, predictionNoteInWords } from "./notes";
import { predictionAsks, predictionChoices, predictionStands, predictionUnfinished } from "./stands";

/** What surfaces need of it while it runs: names, buttons, and what its view says. */
export const predictionFront: GameFront = {
  kind: "prediction",
  name: "prediction",
  offer: {
    name: "a prediction",
    about: "Viewers back what they think will happen, with points or just with their vote; who was right shares what lies in the jars.",
  },
  newNames: ["A prediction", "Another prediction", "The small prediction", "The late prediction", "The long prediction"],
  stands: predictionStands,
  playable: (view) => view["on"] === true && view["phase"] === "open",
  asks: predictionAsks,
  roundSince: (view) => (["", "done", "cancelled"].includes(String(view["phase"])) ? null : Number(view["openedMs"])),
  choices: predictionChoices,
  unfinished: predictionUnfinished,
  told: {
    "prediction/opened": {
      words: "a prediction is opened",
      logged: true,
      from: ["open"],
      example: "Will it survive the firing?",
      tape: ({ text }) => ({ tone: "moss", weight: 2, label: text }),
    },
    "prediction/backed": { words: "somebody takes part in a prediction", unit: ["point", "points"], example: "It survives" },
    "prediction/locked": {
      words: "a prediction locks",
      unit: ["viewer", "viewers"],
      logged: true,
      from: ["lock"],
      example: "Will it survive the firing?",
      tape: ({ text, amount }) => ({ tone: "slate", weight: 2, label: `${text} locked: ${counted(amount, "viewer")}` }),
    },
    "prediction/resulted": {
      words: "the result of a prediction is told",
      unit: ["viewer", "viewers"],
      logged: true,
      from: ["result"],
      example: "It survives",
      tape: ({ text }) => ({ tone: "ochre", weight: 3, label: text }),
    },
    "prediction/won": { words: "somebody was right", unit: ["point", "points"], from: ["result"], example: "It survives" },
    "prediction/lost": { words: "somebody was wrong", unit: ["point", "points"], from: ["result"], example: "It survives" },
    "prediction/taken-back": {
      words: "a result is taken back",
      unit: ["viewer", "viewers"],
      logged: true,
      example: "Will it survive the firing?",
      tape: ({ text }) => ({ tone: "brick", weight: 2, label: `taken back: ${text}` }),
    },
    "prediction/cancelled": {
      words: "a prediction is cancelled",
      unit: ["viewer", "viewers"],
      logged: true,
      example: "Will it survive the firing?",
      tape: ({ text }) => ({ tone: "soft", weight: 2, label: `cancelled: ${text}` }),
    },
  },
  actions: predictionActions,
  place: { x: 0.6, y: 0.55, width: 0.38, height: 0.4 },
  previewPlace: { x: 0.14, y: 0.2, width: 0.72, height: 0.6 },
  unsaid: ["prediction/not-open"],
  striking: ["prediction/resulted", "prediction/backed"],
  noteInWords: predictionNoteInWords,
  noteInShort: predictionNoteInShort,
};
