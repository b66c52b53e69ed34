import type { GameDefinition } from "../../module/game";
import { predictionCommands } from "./commands";
import { predictionRounds } from "./rounds";
import { predictionRows } from "./rows";
import { predictionDue, predictionStep } from "./rules";
import { predictionSamples } from "./samples";
import {
  freshPrediction,
  predictionDefaults,
  type PredictionDurable,
  predictionDurableSchema,
  type PredictionSettings,
  predictionSettingsSchema,
} from "./settings";
import { predictionMine, predictionPool, predictionView } from "./view";
import { predictionHints, predictionSentences, rulesForViewers } from "./words";
import { predictionFront } from "./front";

/** Predictions, with points or as a poll with streaks: RULES section 8. */
export const prediction: GameDefinition<PredictionSettings, PredictionDurable, null, never> = {
  ...predictionFront,
  setUps: [
    {
      id: "poll",
      name: "A poll with streaks",
      about: "No points are staked: everybody has one vote, and who is right again and again has a streak.",
      settings: { ...predictionDefaults, title: "Which comes next?", outcomes: ["A bowl", "A mug", "A vase"], stakes: false },
    },
  ],
  settings: predictionSettingsSchema,
  defaults: predictionDefaults,
  durable: predictionDurableSchema,
  freshDurable: freshPrediction,
  freshDust: () => null,
  rows: predictionRows,
  step: predictionStep,
  view: predictionView,
  hears: ["message", "forecast"],
  dueMs: predictionDue,
  pool: predictionPool,
  chatWords: ({ word }) => [word],
  wordsForViewers: ({ word, stakes }, points) => [
    { word, what: stakes ? `stakes ${points} on an outcome: ${word} A 100, or all, or half` : `votes for an outcome: ${word} A` },
  ],
  commands: predictionCommands,
  viewerCommands: ["back"],
  mine: predictionMine,
  sentences: (settings, { points }) => predictionSentences(settings, points),
  toldToViewers: (settings, { points }) => rulesForViewers(settings, points),
  hints: (settings) => predictionHints(settings),
  rounds: predictionRounds,
  samples: predictionSamples,
};
