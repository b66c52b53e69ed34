import type { GameFront } from "../../module/game";
import { counted } from "../../words/sentence";
import { greetingActions } from "./actions";
import { greetingNoteInShort, greetingNoteInWords } from "./notes";

/** What surfaces need of it while it runs: names, buttons, and what its view says. */
export const greetingFront: GameFront = {
  kind: "greeting",
  name: "greeting",
  offer: {
    name: "greetings",
    about: "Whoever writes for the first time in a show is greeted by name and face, one after another, in words of yours.",
  },
  newNames: ["Come in", "At the door", "Hello there"],
  stands: (view) => `${counted(Number(view["greeted"] ?? 0), "viewer")} greeted`,
  told: {
    "greeting/greeted": { words: "somebody is greeted", unit: ["show", "shows"], from: ["greet"], example: "pulls up a chair" },
  },
  actions: greetingActions,
  place: { x: 0.27, y: 0.04, width: 0.4, height: 0.17 },
  previewPlace: { x: 0.14, y: 0.34, width: 0.72, height: 0.3 },
  unsaid: ["greeting/off", "greeting/ignored", "greeting/streamer"],
  striking: ["greeting/greeted"],
  takeBack: ({ did, subject = "" }) =>
    did === "greeting/greeted"
      ? [
          { label: "End this greeting", did: "The greeting was ended.", command: { do: "skip" } },
          {
            label: `Greet ${subject} again`,
            did: `${subject} is greeted again with their next word.`,
            command: { do: "forget", name: subject },
          },
        ]
      : [],
  noteInWords: greetingNoteInWords,
  noteInShort: greetingNoteInShort,
};
