import type { CommandOf } from "../../module/fields";
import { actionsOf } from "../../module/action";

/** What one can make a companion do. */
export const companionActions = actionsOf({
  do: {
    label: "Have it do something",
    form: "Have {game} {state}, saying {bubble}",
    input: {
      state: {
        kind: "choice",
        label: "What it does",
        start: "cheer",
        options: [
          { value: "cheer", words: "cheer" },
          { value: "greet", words: "greet" },
          { value: "dance", words: "dance" },
          { value: "startle", words: "jump" },
          { value: "eat", words: "eat" },
          { value: "speak", words: "speak" },
          { value: "sleep", words: "fall asleep" },
        ],
      },
      bubble: { kind: "text", label: "What it says; empty for nothing", start: "" },
    },
    byHand: false,
  },
  dance: {
    label: "Keep it dancing",
    form: "Keep {game} dancing",
    input: {},
    key: "j",
    word: "dance-on",
    can: (view) => view["dancing"] !== true,
    stepwise: true,
  },
  calm: {
    label: "End its dance",
    form: "Let {game} stop dancing",
    input: {},
    word: "dance-off",
    can: (view) => view["dancing"] === true,
    stepwise: true,
  },
  feed: {
    label: "Feed",
    form: "Feed {game} for {amount} of its mood",
    input: { amount: { kind: "amount", label: "Mood it gives", start: 10, min: 0, most: 100 } },
    quick: [{ label: "Feed", amount: 10 }],
    key: "b",
    word: "feed",
    tape: () => ({ tone: "moss", weight: 1, label: "Fed" }),
  },
});
export type CompanionCommand =
  | CommandOf<typeof companionActions>
  | Readonly<{ do: "switch"; on: boolean }>
  | Readonly<{ do: "wake" }>
  | Readonly<{ do: "answer"; word: string; text: string }>;
