import type { GameDefinition } from "../../module/game";
import { brimfulHints } from "./hints";
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
import { brimfulFront } from "./front";

/** The physics vessel, RULES section 4: the core counts what lies in it, the picture lets it fall. */
export const brimful: GameDefinition<BrimfulSettings, BrimfulDurable, null, BrimfulEffect> = {
  ...brimfulFront,
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
  rounds: brimfulRounds,
  samples: brimfulSamples,
};
