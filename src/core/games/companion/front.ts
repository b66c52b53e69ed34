import type { GameFront } from "../../module/game";
import { companionActions } from "./actions";
import { companionNoteInShort, companionNoteInWords } from "./notes";

/** What surfaces need of it while it runs: names, buttons, and what its view says. */
export const companionFront: GameFront = {
  kind: "companion",
  name: "companion",
  offer: {
    name: "a companion",
    about: "A figure that lives on the picture: it greets, answers words, cheers and jumps, is fed, and falls asleep when it is quiet.",
  },
  newNames: ["Grog", "Pinch", "Slip", "Cinder"],
  stands: (view) => (view["asleep"] === true ? `${String(view["name"])} sleeps` : `${String(view["name"])}, mood ${String(view["mood"])}`),
  told: { "companion/fed": { words: "a companion is fed", unit: ["mood", "mood"], from: ["feed"], example: "mossy_teapot" } },
  actions: companionActions,
  sampleAmount: { label: "Amount", start: 10 },
  place: { x: 0.7, y: 0.62, width: 0.28, height: 0.38 },
  previewPlace: { x: 0.2, y: 0.2, width: 0.6, height: 0.78 },
  unsaid: ["companion/off", "companion/busy"],
  noteInWords: companionNoteInWords,
  noteInShort: companionNoteInShort,
};
