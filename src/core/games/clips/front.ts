import type { GameFront } from "../../module/game";
import { counted } from "../../words/sentence";
import { clipsActions } from "./actions";
import { isOwed, waitsForYes } from "./view";
import { clipsNoteInShort, clipsNoteInWords } from "./notes";

/** What surfaces need of it while it runs: names, buttons, and what its view says. */
export const clipsFront: GameFront = {
  kind: "clips",
  name: "clips",
  offer: {
    name: "clips",
    about:
      "Viewers send a few seconds of a film, by points or a tip; a moderator sees its stills, and it plays in a window with a curtain.",
  },
  newNames: ["Clips", "The little window", "Lantern show"],
  stands: (view) => (view["held"] === true ? "held" : `${counted(Number(view["waiting"] ?? 0), "clip")} waiting`),
  asks: (view) => [...waitsForYes(view), ...isOwed(view)],
  told: {
    "clips/shown": {
      words: "a clip was shown",
      unit: ["second", "seconds"],
      from: ["send", "own", "again", "play"],
      logged: true,
      example: "my first sail",
      tape: ({ text, by }) => ({ tone: "slate", weight: 2, label: `Clip${by === "" ? "" : ` of ${by}`}${text === "" ? "" : `: ${text}`}` }),
    },
  },
  actions: clipsActions,
  place: { x: 0.66, y: 0.06, width: 0.31, height: 0.36 },
  previewPlace: { x: 0.2, y: 0.08, width: 0.6, height: 0.7 },
  unsaid: [],
  takeBack: ({ did, facts = {} }) => {
    const number = facts["n"];
    if (typeof number !== "number") return [];
    const drop = { label: "Leave it out", did: "It was given back.", command: { do: "drop", n: number } };
    const skip = { label: "Skip it", did: "It was skipped.", command: { do: "skip" } };
    if (did === "clips/taken" || did === "clips/asks" || did === "clips/made" || did === "clips/approved") return [drop, skip];
    return did === "clips/plays" || did === "clips/shown" ? [skip] : [];
  },
  noteInWords: clipsNoteInWords,
  noteInShort: clipsNoteInShort,
};
