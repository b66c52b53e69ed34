import type { GameDefinition } from "../../module/game";
import { freshWheel, wheelDue, wheelStep } from "./rules";
import { wheelRounds } from "./rounds";
import { wheelLab } from "./lab";
import { wheelSamples } from "./samples";
import {
  glazes,
  newSegment,
  wheelDefaults,
  type WheelDurable,
  wheelDurableSchema,
  type WheelEffect,
  type WheelSettings,
  wheelSettingsSchema,
} from "./settings";
import { wheelView } from "./view";
import { wheelHints, wheelRulesInWords, wheelSentences } from "./words";
import { wheelFront } from "./front";

const numbers: WheelSettings = {
  ...wheelDefaults,
  segments: Array.from({ length: 20 }, (_, i) => newSegment(`n${i + 1}`, String(i + 1), i % glazes.length)),
};

/** The wheel, RULES section 6. What comes is drawn from a secret that was promised before. */
export const wheel: GameDefinition<WheelSettings, WheelDurable, null, WheelEffect> = {
  ...wheelFront,
  setUps: [
    {
      id: "once",
      name: "Each comes once",
      about: "A segment that was drawn leaves the wheel, until all are brought back: for a list that is worked through.",
      settings: { ...wheelDefaults, leaves: true },
    },
    { id: "numbers", name: "Numbers 1 to 20", about: "Twenty segments of one size, to be written over.", settings: numbers },
  ],
  settings: wheelSettingsSchema,
  defaults: wheelDefaults,
  durable: wheelDurableSchema,
  freshDurable: freshWheel,
  freshDust: () => null,
  step: wheelStep,
  view: wheelView,
  // Nothing that viewers send moves it by itself: it is spun by commands, and woken by its own timer.
  hears: [],
  dueMs: wheelDue,
  sentences: (settings) => wheelSentences(settings),
  toldToViewers: (settings) => wheelRulesInWords(settings),
  hints: (settings) => wheelHints(settings),
  rounds: wheelRounds,
  lab: wheelLab,
  samples: wheelSamples,
};
