import { actionsOf } from "../../module/action";
import type { CommandOf } from "../../module/fields";
import { counted } from "../../words/sentence";
import { mostAtOnce } from "./limits";

/** What one can make a vessel do. */
export const brimfulActions = actionsOf({
  drop: {
    label: "Drop",
    form: "Drop {amount} {what} into {game}, each {size} ‰ of its height (0: as usual) and of mass {mass}",
    input: {
      amount: { kind: "amount", label: "How many pieces", start: 10, min: 0, most: mostAtOnce },
      what: {
        kind: "choice",
        label: "What falls",
        start: "pieces",
        options: [
          { value: "pieces", words: "pieces" },
          { value: "faces", words: "faces of the viewer" },
        ],
      },
      size: { kind: "whole", label: "Size in thousandths of the vessel’s height; 0 for as usual", start: 0, min: 0, most: 900 },
      mass: { kind: "whole", label: "Mass of each", start: 5, min: 1, most: 500 },
    },
    quick: [
      { label: "Drop 10", amount: 10 },
      { label: "Drop 50", amount: 50 },
    ],
    key: "j",
    word: "drop",
    tape: (input, by, byOperator) =>
      byOperator ? { tone: "ochre", weight: 1, label: `${by} dropped ${counted(Number(input["amount"] ?? 0), "piece")}` } : null,
  },
  "drop-emotes": {
    label: "Drop emotes",
    form: "Drop {amount} {emotes} into {game}",
    input: {
      amount: { kind: "amount", label: "How many", start: 10, min: 0, most: mostAtOnce },
      emotes: { kind: "emotes", label: "Of which emotes", start: { from: "chosen", chosen: [] }, used: false },
    },
    onlyThere: true,
  },
  shake: {
    label: "Shake",
    form: "Shake {game} with {strength} % of the usual",
    input: { strength: { kind: "whole", label: "How hard, in percent", start: 100, min: 10, most: 300 } },
    key: "l",
    word: "shake",
  },
  tip: {
    label: "Tip over",
    form: "Tip {game} over to the {way}",
    input: {
      way: {
        kind: "choice",
        label: "To which side",
        start: "either",
        options: [
          { value: "either", words: "either side" },
          { value: "left", words: "left" },
          { value: "right", words: "right" },
        ],
      },
    },
    word: "tip",
    sure: true,
    can: (view) => view["free"] === true && view["lies"] === null,
    tape: () => ({ tone: "brick", weight: 2, label: "Tipped over" }),
  },
  upright: {
    label: "Stand it up",
    form: "Stand {game} up again",
    input: {},
    word: "upright",
    can: (view) => view["lies"] !== null,
    stepwise: true,
  },
  empty: {
    label: "Empty",
    form: "Empty {game}",
    input: {},
    word: "empty",
    sure: true,
    can: (view) => Number(view["pieces"] ?? 0) > 0,
    done: "Emptied. What it held is kept in its history.",
    tape: () => ({ tone: "ochre", weight: 2, label: "Emptied" }),
  },
  /** Takes out what one signal brought. */
  remove: {
    label: "Take its pieces out",
    form: "Take pieces out of {game}",
    input: { seq: { kind: "signal" } },
    onlyThere: true,
    byRule: false,
  },
  "tell-rules": {
    label: "Tell how full",
    form: "Tell in chat how full {game} is, and its rules",
    input: {},
    word: "full",
    done: "Chat was told how full it is, and the rules.",
  },
});
export type BrimfulCommand = CommandOf<typeof brimfulActions> | Readonly<{ do: "switch"; on: boolean }>;
