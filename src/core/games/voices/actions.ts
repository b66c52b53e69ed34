import type { CommandOf } from "../../module/fields";
import { actionsOf } from "../../module/action";

/** What one can make voices do. */
export const voicesActions = actionsOf({
  say: {
    label: "Say something",
    form: "Have {game} say {text}, {how}, in the voice {voice}",
    input: {
      text: { kind: "text", label: "The words", start: "{text}" },
      how: {
        kind: "choice",
        label: "Spoken or shown",
        start: "as-set",
        options: [
          { value: "as-set", words: "as it is set there" },
          { value: "spoken", words: "spoken alone" },
          { value: "shown", words: "shown on the picture alone" },
          { value: "both", words: "spoken and shown" },
        ],
      },
      voice: { kind: "text", label: "The voice", start: "", oneOf: { list: "voices", none: "that is usual for them" } },
    },
    byHand: false,
    word: "speak",
  },
  skip: {
    label: "Skip",
    form: "Skip what {game} says",
    input: {},
    key: "j",
    word: "skipvoice",
    can: (view) => view["now"] !== null,
    tape: (_, by, byOperator) => (byOperator ? { tone: "soft", weight: 1, label: `${by} skipped a spoken text` } : null),
  },
  clear: {
    label: "Drop what waits",
    form: "Drop what waits in {game}",
    input: {},
    word: "clearvoices",
    can: (view) => Number(view["waiting"]) > 0,
    tape: () => ({ tone: "soft", weight: 1, label: "Texts that waited were dropped" }),
  },
  hold: {
    label: "Hold",
    form: "Hold what waits in {game}",
    input: {},
    stepwise: true,
    can: (view) => view["held"] !== true,
    tape: () => ({ tone: "ochre", weight: 1, label: "Voices are held" }),
  },
  "go-on": {
    label: "Go on",
    form: "Let {game} go on",
    input: {},
    stepwise: true,
    can: (view) => view["held"] === true,
    tape: () => ({ tone: "moss", weight: 1, label: "Voices go on" }),
  },
  voice: {
    label: "Give a voice",
    form: "Give {name} the voice {voice} in {game}",
    input: {
      name: { kind: "text", label: "Whom: a name; empty for who brought it", start: "" },
      voice: { kind: "text", label: "The voice", start: "", oneOf: { list: "voices", none: "that is usual for them" } },
    },
    byHand: false,
    tape: () => ({ tone: "moss", weight: 1, label: "A voice was given" }),
  },
});
export type VoicesCommand =
  | CommandOf<typeof voicesActions>
  | Readonly<{ do: "switch"; on: boolean }>
  | Readonly<{ do: "take"; shown: string; spoken: string; voice: string; answer: boolean }>
  | Readonly<{ do: "made"; n: number; url: string; ms: number }>
  | Readonly<{ do: "not-made"; n: number }>
  | Readonly<{ do: "approve" | "drop"; n: number }>
  | Readonly<{ do: "usual-voice" }>;
