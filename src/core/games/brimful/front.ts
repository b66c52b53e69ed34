import type { GameFront } from "../../module/game";
import { nameOf } from "../../signals/names";
import { brimfulActions } from "./actions";
import { brimfulNoteInShort, brimfulNoteInWords } from "./notes";

const byWhom = (by: string): string => (by === "" || by === nameOf(null) ? "" : `, by ${by}`);

/** What surfaces need of it while it runs: names, buttons, and what its view says. */
export const brimfulFront: GameFront = {
  kind: "brimful",
  name: "brimful",
  offer: { name: "a vessel to fill", about: "Follows, memberships and tips drop pieces and faces into a vessel until it brims over." },
  newNames: ["The mixing bowl", "The tall glass", "The slip bucket", "The glaze pot", "The scrap bin"],
  stands: (view) => `${Number(view["full"])} % full`,
  gauge: (view) =>
    view["on"] === true ? { share: Number(view["full"]) / Math.max(1, Number(view["brimAt"])), ends: "of its brim" } : null,
  told: {
    "brimful/brimmed": {
      words: "a vessel brims over",
      unit: ["piece", "pieces"],
      logged: true,
      from: ["drop", "drop-emotes", "upright"],
      example: "3",
      tape: ({ amount, by }) => ({ tone: "moss", weight: 2, label: `Brimmed over with ${amount}${byWhom(by)}` }),
    },
    "brimful/goal": {
      words: "the line on a vessel is reached",
      unit: ["percent", "percent"],
      logged: true,
      from: ["drop", "drop-emotes", "upright"],
      example: "Half full",
      tape: ({ text, amount }) => ({ tone: "ochre", weight: 1, label: `${text} (${amount} %)` }),
    },
    "brimful/tipped": {
      words: "a vessel tips over",
      unit: ["piece spilled", "pieces spilled"],
      logged: true,
      from: ["drop", "tip", "upright"],
      tape: ({ amount, by }) => ({ tone: "brick", weight: 3, label: `Tipped over, ${amount} spilled${byWhom(by)}` }),
    },
    "brimful/dropped": { words: "pieces fall into a vessel", unit: ["piece", "pieces"], from: ["drop", "drop-emotes", "upright"] },
  },
  actions: brimfulActions,
  sampleAmount: { label: "Amount", start: 5 },
  place: { x: 0.02, y: 0.3, width: 0.3, height: 0.7 },
  previewPlace: { x: 0.2, y: 0, width: 0.6, height: 1 },
  unsaid: ["brimful/off", "brimful/no-drop", "brimful/below"],
  striking: ["brimful/dropped", "brimful/brimmed", "brimful/tipped"],
  takeBack: ({ did, count: pieces, facts = {} }) => {
    const seq = facts["seq"];
    if ((did !== "brimful/dropped" && did !== "brimful/waits") || typeof seq !== "number") return [];
    return [
      {
        label: pieces === 1 ? "Take its piece out" : `Take its ${pieces} pieces out`,
        did: "Its pieces were taken out.",
        command: { do: "remove", seq },
      },
    ];
  },
  noteInWords: brimfulNoteInWords,
  noteInShort: brimfulNoteInShort,
};
