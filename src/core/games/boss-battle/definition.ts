import type { GameDefinition } from "../../module/game";
import { count } from "../../words/sentence";
import { bossActions } from "./actions";
import { bossStep, freshBoss } from "./rules";
import { bossLab } from "./lab";
import { bossSamples } from "./samples";
import { bossDefaults, type BossDurable, bossDurableSchema, type BossEffect, type BossSettings, bossSettingsSchema } from "./settings";
import { bossView } from "./view";
import { bossRulesInWords, bossSentences } from "./words";
import { bossNoteInShort, bossNoteInWords } from "./notes";
import { bossHints } from "./hints";

/** The boss battle, RULES section 3. Everything it does is durable. */
export const bossBattle: GameDefinition<BossSettings, BossDurable, null, BossEffect> = {
  kind: "boss-battle",
  name: "boss battle",
  offer: {
    name: "a boss battle",
    about: "Follows, memberships and tips strike a vessel-creature; whoever defeats it takes its place.",
  },
  newNames: ["The chipped jug", "The cracked urn", "The sulking teapot", "The leaning bottle", "The grim bowl"],
  setUps: [
    {
      id: "short",
      name: "A short fight",
      about: "300 health: it falls several times in an evening, and each time somebody new takes its place.",
      settings: { ...bossDefaults, health: 300 },
    },
    {
      id: "room",
      name: "To match the room",
      about: "Each next one has the health that lasts a quarter of an hour at the pace of now.",
      settings: { ...bossDefaults, growth: { ...bossDefaults.growth, how: "matched" } },
    },
    {
      id: "chat",
      name: "Chat strikes too",
      about: "Every message does 1 damage, so that all can join in. The champion’s own hurts like anyone’s.",
      settings: {
        ...bossDefaults,
        hits: { ...bossDefaults.hits, message: { rate: { give: 1, per: 1 }, most: 0 } },
        champion: { own: "hurt", healing: "full" },
      },
    },
  ],
  settings: bossSettingsSchema,
  defaults: bossDefaults,
  durable: bossDurableSchema,
  freshDurable: freshBoss,
  freshDust: () => null,
  step: bossStep,
  view: bossView,
  sentences: (settings, { home }) => bossSentences(settings, home),
  toldToViewers: (settings, { home }) => bossRulesInWords(settings, home),
  hints: (settings, { home }) => bossHints(settings, home),
  stands: (view) => `${String(view["name"])} at ${count(Number(view["health"]))} of ${count(Number(view["max"]))}`,
  playable: (view) => view["on"] === true && view["health"] !== 0,
  gauge: (view) =>
    view["on"] === true ? { share: 1 - Number(view["health"]) / Math.max(1, Number(view["max"])), ends: "of its health gone" } : null,
  people: { kind: "reign", words: "who stood on top of {game}" },
  told: {
    "boss/fell": {
      words: "a boss falls",
      unit: ["damage", "damage"],
      logged: true,
      example: "Old Spall",
      tape: ({ text }) => ({ tone: "brick", weight: 3, label: `${text} fell` }),
    },
    "boss/hit": { words: "a boss is hit", unit: ["damage", "damage"], from: ["damage"], example: "Old Spall" },
    "boss/healed": { words: "a boss is healed", unit: ["health", "health"], from: ["heal"], example: "Old Spall" },
  },
  actions: bossActions,
  lab: bossLab,
  samples: bossSamples,
  sampleAmount: { label: "Amount", start: 5 },
  place: { x: 0.73, y: 0.3, width: 0.26, height: 0.68 },
  previewPlace: { x: 0.3, y: 0.1, width: 0.4, height: 0.86 },
  unsaid: ["boss/off", "boss/no-damage"],
  striking: ["boss/hit", "boss/healed", "boss/fell"],
  takeBack: ({ did, count: amount, facts = {} }) => {
    const seq = facts["seq"];
    if (did !== "boss/hit" || typeof seq !== "number") return [];
    const boss = String(facts["boss"] ?? "the boss");
    return [
      { label: `Undo this hit of ${count(amount)}`, did: `The hit of ${count(amount)} was undone.`, command: { do: "undo", seq } },
      // Another hit came in between: what is left is to set it right in one's own name.
      { label: `Heal ${boss} by ${count(amount)}`, did: `${boss} was healed by ${count(amount)}.`, command: { do: "heal", amount } },
    ];
  },
  noteInWords: bossNoteInWords,
  noteInShort: bossNoteInShort,
};
