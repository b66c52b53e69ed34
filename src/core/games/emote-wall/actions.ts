import type { CommandOf } from "../../module/fields";
import { actionsOf } from "../../module/action";
import { count } from "../../words/sentence";
import { motions, mostTrims } from "./limits";
import { motionWords } from "./motions";

/** What one can make an emote wall do. */
export const wallActions = actionsOf({
  flock: {
    label: "Flock",
    form: "Send a flock of {count} {emotes} over {game} within {overMs}, {motion}, {trim}",
    input: {
      count: { kind: "whole", label: "How many emotes", start: 60, min: 1, most: 2_000 },
      emotes: { kind: "emotes", label: "Of which emotes", start: { from: "most-used", chosen: [] } },
      overMs: { kind: "time", label: "Over which time", start: 2_000, min: 0, most: 60_000 },
      motion: {
        kind: "choice",
        label: "How the flock moves",
        start: "",
        options: [
          { value: "", words: "moving as its flocks do" },
          ...motions.map((m) => ({ value: m, words: `moving: ${motionWords[m].name}` })),
        ],
      },
      trim: {
        kind: "choice",
        label: "What the flock wears",
        start: "",
        options: [
          { value: "", words: "as they are dressed" },
          ...Array.from({ length: mostTrims }, (_, i) => ({ value: String(i + 1), words: `wearing trimming ${i + 1}` })),
        ],
      },
    },
    quick: [{ label: "Flock of 60", amount: 60 }],
    key: "h",
    word: "flock",
    tape: (input, _by, byOperator) => ({
      tone: "moss",
      weight: byOperator ? 2 : 1,
      label: `Flock of ${count(Number(input["count"] ?? 0))}`,
    }),
  },
  wear: {
    label: "Trimmings",
    form: "Emotes of {game} put {on} trimming number {trim} for {forMs} (0 s: until it is taken off)",
    input: {
      trim: { kind: "whole", label: "Which, by its number in the list", start: 1, min: 1, most: mostTrims },
      on: {
        kind: "choice",
        label: "On or off",
        start: "on",
        options: [
          { value: "on", words: "on" },
          { value: "off", words: "off" },
        ],
      },
      forMs: { kind: "time", label: "For how long; 0 for until it is taken off", start: 60_000, min: 0, most: 3_600_000 },
    },
    onlyThere: true,
  },
  clear: { label: "Clear", form: "Clear the emotes of {game}", input: {}, key: "c", word: "clear" },
  /** Takes the emotes of one message off the picture. */
  remove: {
    label: "Take its emotes off",
    form: "Take emotes off {game}",
    input: { seq: { kind: "signal" } },
    onlyThere: true,
    byRule: false,
  },
});
export type WallCommand = CommandOf<typeof wallActions> | Readonly<{ do: "switch"; on: boolean }>;
