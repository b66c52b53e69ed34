import type { GameDefinition } from "../../module/game";
import { wheelActions } from "./actions";
import { wheelNoteInShort, wheelNoteInWords } from "./notes";
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
import { nameOfSegment, wheelFair, wheelHints, wheelRulesInWords, wheelSentences, wheelStands } from "./words";

const numbers: WheelSettings = {
  ...wheelDefaults,
  segments: Array.from({ length: 20 }, (_, i) => newSegment(`n${i + 1}`, String(i + 1), i % glazes.length)),
};

/** The wheel, RULES section 6. What comes is drawn from a secret that was promised before. */
export const wheel: GameDefinition<WheelSettings, WheelDurable, null, WheelEffect> = {
  kind: "wheel",
  name: "wheel",
  offer: {
    name: "a wheel",
    about: "A decorated plate is spun; the rib comes to rest on a segment, and viewers can check that it was fair.",
  },
  newNames: ["The decorated plate", "The second plate", "The dotted plate", "The wide plate", "The small plate"],
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
  stands: wheelStands,
  playable: (view) => view["open"] === true,
  fair: wheelFair,
  rounds: wheelRounds,
  told: {
    "wheel/spun": { words: "a wheel is spun", unit: ["spin", "spins"], from: ["spin"] },
    "wheel/drawn": {
      words: "a wheel comes to rest",
      unit: ["spin", "spins"],
      logged: true,
      example: "Celadon",
      from: ["spin"],
      tape: ({ text }) => ({ tone: "ochre", weight: 3, label: nameOfSegment(text) }),
    },
  },
  actions: wheelActions,
  lab: wheelLab,
  samples: wheelSamples,
  place: { x: 0.03, y: 0.1, width: 0.38, height: 0.78 },
  previewPlace: { x: 0.2, y: 0.04, width: 0.6, height: 0.92 },
  unsaid: [],
  striking: ["wheel/spun", "wheel/drawn"],
  noteInWords: wheelNoteInWords,
  noteInShort: wheelNoteInShort,
};
