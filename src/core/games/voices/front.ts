import type { GameFront } from "../../module/game";
import { counted } from "../../words/sentence";
import { voicesActions } from "./actions";
import { voicesNoteInShort, voicesNoteInWords } from "./notes";

/** What surfaces need of it while it runs: names, buttons, and what its view says. */
export const voicesFront: GameFront = {
  kind: "voices",
  name: "voices",
  offer: {
    name: "spoken messages",
    about:
      "What viewers write is spoken, shown on the picture, or both: by a word, a tip, a reward; one after another, and stopped in one click.",
  },
  newNames: ["Voices", "Read aloud", "The town crier"],
  stands: (view) => (view["held"] === true ? "held" : `${counted(Number(view["waiting"] ?? 0), "text")} waiting`),
  asks: (view) =>
    // Views of operators are written above.
    (view["texts"] as readonly Readonly<{ n: number; name: string; text: string; asks: boolean; fromMs: number }>[])
      .filter((t) => t.asks)
      .map((t) => ({
        id: `voice.${t.n}`,
        sinceMs: t.fromMs,
        words: `Let this be said? “${t.text}”`,
        about: t.name,
        main: { label: "Let it be said", command: { do: "approve", n: t.n } },
        other: { label: "Drop it", command: { do: "drop", n: t.n } },
      })),
  told: {
    "voices/said": { words: "a message is spoken", from: ["say"], example: "the tall vase will survive" },
  },
  actions: voicesActions,
  place: { x: 0.3, y: 0.83, width: 0.4, height: 0.14 },
  previewPlace: { x: 0.1, y: 0.6, width: 0.8, height: 0.26 },
  unsaid: ["voices/off", "voices/empty"],
  takeBack: ({ did, facts = {} }) => {
    const number = facts["n"];
    if (typeof number !== "number") return [];
    if (did === "voices/taken" || did === "voices/asks")
      return [
        { label: "Drop it", did: "It is not said.", command: { do: "drop", n: number } },
        { label: "Skip what is said", did: "It was skipped.", command: { do: "skip" } },
      ];
    return did === "voices/said" ? [{ label: "Skip what is said", did: "It was skipped.", command: { do: "skip" } }] : [];
  },
  noteInWords: voicesNoteInWords,
  noteInShort: voicesNoteInShort,
};
