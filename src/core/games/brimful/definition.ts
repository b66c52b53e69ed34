import type { GameDefinition } from "../../module/game";
import { nameOf } from "../../signals/signal";
import { brimfulActions } from "./actions";
import { brimfulHints } from "./hints";
import { brimfulNoteInShort, brimfulNoteInWords } from "./notes";
import { brimfulRounds } from "./rounds";
import { brimfulStep, freshBrimful, upDueMs } from "./rules";
import { brimfulSamples } from "./samples";
import {
  brimfulDefaults,
  type BrimfulDurable,
  brimfulDurableSchema,
  type BrimfulEffect,
  type BrimfulSettings,
  brimfulSettingsSchema,
  dropKinds,
  newTier,
} from "./settings";
import { brimfulView } from "./view";
import { brimfulRulesInWords, brimfulSentences } from "./words";

const byWhom = (by: string): string => (by === "" || by === nameOf(null) ? "" : `, by ${by}`);

/** The physics vessel, RULES section 4: the core counts what lies in it, the picture lets it fall. */
export const brimful: GameDefinition<BrimfulSettings, BrimfulDurable, null, BrimfulEffect> = {
  kind: "brimful",
  name: "brimful",
  offer: { name: "a vessel to fill", about: "Follows, memberships and tips drop pieces and faces into a vessel until it brims over." },
  newNames: ["The mixing bowl", "The tall glass", "The slip bucket", "The glaze pot", "The scrap bin"],
  setUps: [
    {
      id: "glass",
      name: "A tall glass",
      about: "Narrow and clear: it fills fast, and everybody sees how far it is.",
      settings: {
        ...brimfulDefaults,
        vessel: { ...brimfulDefaults.vessel, shape: "glass" },
        size: 110,
        looks: { ...brimfulDefaults.looks, clear: true, clay: "#BFD3D6" },
      },
    },
    {
      id: "tips",
      name: "One that tips over",
      about: "It stands free. A tip of 25.00 or more drops a brick that knocks it over, and most of it spills.",
      settings: { ...brimfulDefaults, vessel: { ...brimfulDefaults.vessel, stand: "free", shape: "crucible" } },
    },
    {
      id: "faces",
      name: "A basket of faces",
      about: "Only faces fall: everybody who follows, joins or tips lies in it, and is seen.",
      settings: {
        ...brimfulDefaults,
        vessel: { ...brimfulDefaults.vessel, shape: "basket" },
        drops: {
          ...brimfulDefaults.drops,
          follow: [newTier("follow", { pieces: { give: 0, per: 0, most: 1 }, faces: { give: 1, per: 0, most: 1 } })],
          membership: [newTier("member", { pieces: { give: 0, per: 0, most: 1 }, faces: { give: 3, per: 0, most: 3 } })],
          gift: [newTier("gift", { pieces: { give: 0, per: 0, most: 1 }, faces: { give: 2, per: 1, most: 60 } })],
          tip: [newTier("tip", { pieces: { give: 0, per: 0, most: 1 }, faces: { give: 1, per: 100, most: 60 } })],
          reaction: [],
          raid: [],
          host: [],
        },
      },
    },
    {
      id: "chat",
      name: "Chat fills it",
      about: "Every message drops its emotes, or one small bead.",
      settings: {
        ...brimfulDefaults,
        drops: { ...brimfulDefaults.drops, message: [newTier("message", { emotes: true, size: 70 })] },
      },
    },
  ],
  settings: brimfulSettingsSchema,
  defaults: brimfulDefaults,
  durable: brimfulDurableSchema,
  freshDurable: freshBrimful,
  freshDust: () => null,
  step: brimfulStep,
  view: brimfulView,
  hears: [...dropKinds, "live", "ended", "happened"],
  dueMs: upDueMs,
  sentences: brimfulSentences,
  toldToViewers: (settings, { home }) => brimfulRulesInWords(settings, home),
  hints: brimfulHints,
  stands: (view) => `${Number(view["full"])} % full`,
  gauge: (view) =>
    view["on"] === true ? { share: Number(view["full"]) / Math.max(1, Number(view["brimAt"])), ends: "of its brim" } : null,
  rounds: brimfulRounds,
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
  samples: brimfulSamples,
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
