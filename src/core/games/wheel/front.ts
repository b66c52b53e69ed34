import type { GameFront } from "../../module/game";
import { wheelActions } from "./actions";
import { wheelNoteInShort, wheelNoteInWords } from "./notes";
import { nameOfSegment, wheelFair, wheelStands } from "./stands";

/** What surfaces need of it while it runs: names, buttons, and what its view says. */
export const wheelFront: GameFront = {
  kind: "wheel",
  name: "wheel",
  offer: {
    name: "a wheel",
    about: "A decorated plate is spun; the rib comes to rest on a segment, and viewers can check that it was fair.",
  },
  newNames: ["The decorated plate", "The second plate", "The dotted plate", "The wide plate", "The small plate"],
  stands: wheelStands,
  playable: (view) => view["open"] === true,
  fair: wheelFair,
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
  place: { x: 0.03, y: 0.1, width: 0.38, height: 0.78 },
  previewPlace: { x: 0.2, y: 0.04, width: 0.6, height: 0.92 },
  unsaid: [],
  striking: ["wheel/spun", "wheel/drawn"],
  noteInWords: wheelNoteInWords,
  noteInShort: wheelNoteInShort,
};
