import type { GameFront } from "../../module/game";
import { presentingActions } from "./actions";
import { presentingNoteInShort, presentingNoteInWords } from "./notes";

/** What surfaces need of it while it runs: names, buttons, and what its view says. */
export const presentingFront: GameFront = {
  kind: "presenting",
  name: "presenting",
  offer: {
    name: "presenting people",
    about: "A name, and a card shows who that is: picture, page, what they were about last; chat is told too.",
  },
  newNames: ["Worth a visit", "Neighbours", "Do you know"],
  stands: (view) => (view["on"] === false ? "off" : "waits for a name"),
  told: {
    "presenting/presented": {
      words: "somebody is presented",
      from: ["present"],
      logged: true,
      example: "seaglass_sia",
      tape: ({ text }) => ({ tone: "moss", weight: 2, label: `Presented: ${text}` }),
    },
  },
  actions: presentingActions,
  place: { x: 0.27, y: 0.78, width: 0.44, height: 0.19 },
  previewPlace: { x: 0.1, y: 0.36, width: 0.8, height: 0.34 },
  striking: ["presenting/presented"],
  takeBack: ({ did }) =>
    did === "presenting/presented" ? [{ label: "End this card", did: "The card was ended.", command: { do: "skip" } }] : [],
  noteInWords: presentingNoteInWords,
  noteInShort: presentingNoteInShort,
};
