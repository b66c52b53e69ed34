import type { GameFront } from "../../module/game";
import { count } from "../../words/sentence";
import { bossActions } from "./actions";
import { bossNoteInShort, bossNoteInWords } from "./notes";

/** What surfaces need of it while it runs: names, buttons, and what its view says. */
export const bossBattleFront: GameFront = {
  kind: "boss-battle",
  name: "boss battle",
  offer: {
    name: "a boss battle",
    about: "Follows, memberships and tips strike a vessel-creature; whoever defeats it takes its place.",
  },
  newNames: ["The chipped jug", "The cracked urn", "The sulking teapot", "The leaning bottle", "The grim bowl"],
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
