import type { GameFront, Row } from "../../module/game";
import { studioActions } from "./actions";
import { studioNoteInShort, studioNoteInWords } from "./notes";

const scenesOf = (view: Row): readonly string[] => (view["scenes"] ?? []) as readonly string[];

/** What surfaces need of it while it runs: names, buttons, and what its view says. */
export const studioFront: GameFront = {
  kind: "scene-changes",
  name: "studio scenes",
  offer: {
    name: "studio scenes",
    about:
      "What happens changes the scene of your broadcast software, for a while and back: for raids and tips, by rule, cue, reward or hand.",
  },
  newNames: ["Scenes", "The director", "Camera work"],
  bodiless: true,
  told: {
    "scenes/switched": {
      words: "the scene changes",
      from: ["go", "back"],
      logged: true,
      example: "Kiln door",
      tape: ({ text }) => ({ tone: "slate", weight: 1, label: `Scene: ${text}` }),
    },
    "scenes/left-out": {
      words: "a scene change is left out",
      from: ["go", "back"],
      logged: true,
      example: "Kiln door: “Shelf” holds",
      tape: ({ text }) => ({ tone: "soft", weight: 1, label: `Scene stays: ${text}` }),
    },
  },
  stands: (view) =>
    view["connected"] === false
      ? "no studio answers"
      : typeof view["current"] === "string"
        ? `on: ${view["current"]}`
        : "follows what happens",
  // Nothing is sold that could not be shown.
  playable: (view) => view["on"] === true && view["connected"] === true,
  listsNow: (view) => ({ scenes: scenesOf(view) }),
  choices: (view) =>
    view["connected"] !== true
      ? []
      : scenesOf(view)
          .slice(0, 12)
          .map((scene, i) => ({ id: `scene-${i}`, label: scene, command: { do: "switch-to", scene }, sure: false })),
  actions: studioActions,
  place: { x: 0, y: 0, width: 1, height: 1 },
  previewPlace: { x: 0.04, y: 0.08, width: 0.92, height: 0.84 },
  striking: ["scenes/went"],
  noteInWords: studioNoteInWords,
  noteInShort: studioNoteInShort,
};
