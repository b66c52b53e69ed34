import type { CommandOf } from "../../module/fields";
import { actionsOf } from "../../module/action";

/** What one can make clips do. */
export const clipsActions = actionsOf({
  send: {
    label: "Send a clip",
    form: "Send {text} to {game}, {seconds} long",
    input: {
      text: { kind: "text", label: "An address, and where to start", start: "{text}" },
      seconds: { kind: "whole", label: "Seconds", min: 1, most: 60, start: 10, unit: "s" },
    },
    byHand: false,
  },
  own: {
    label: "Play one of ours",
    form: "Have {game} play {picture}",
    input: { picture: { kind: "prop", label: "A moving picture", of: "picture", start: "" } },
    byHand: false,
    tape: () => ({ tone: "moss", weight: 1, label: "A clip of our own waits" }),
  },
  play: {
    label: "Play the next",
    form: "Play the next of {game}",
    input: {},
    key: "m",
    word: "playclip",
    stepwise: true,
    can: (view) => view["now"] === null && view["next"] !== null,
    tape: (_, by, byOperator) => (byOperator ? { tone: "moss", weight: 1, label: `${by} played a clip` } : null),
  },
  unveil: {
    label: "Open the curtain",
    form: "Open the curtain of {game}",
    input: {},
    word: "showclip",
    stepwise: true,
    key: "u",
    can: (view) => shownNow(view) === false,
    tape: () => ({ tone: "moss", weight: 1, label: "The clip is shown" }),
  },
  veil: {
    label: "Close the curtain",
    form: "Close the curtain of {game}",
    input: {},
    word: "hideclip",
    stepwise: true,
    key: "i",
    can: (view) => shownNow(view) === true,
    tape: () => ({ tone: "ochre", weight: 1, label: "The clip is hidden" }),
  },
  skip: {
    label: "Skip",
    form: "Skip what {game} plays",
    input: {},
    key: "j",
    word: "skipclip",
    can: (view) => view["now"] !== null,
    tape: (_, by, byOperator) => (byOperator ? { tone: "soft", weight: 1, label: `${by} skipped a clip` } : null),
  },
  again: {
    label: "Once more",
    form: "Play the last clip of {game} again",
    input: {},
    word: "againclip",
    can: (view) => Array.isArray(view["lately"]) && view["lately"].length > 0,
  },
  hold: {
    label: "Hold",
    form: "Hold what waits in {game}",
    input: {},
    stepwise: true,
    can: (view) => view["held"] !== true,
    tape: () => ({ tone: "ochre", weight: 1, label: "Clips are held" }),
  },
  "go-on": {
    label: "Go on",
    form: "Let {game} go on",
    input: {},
    stepwise: true,
    can: (view) => view["held"] === true,
    tape: () => ({ tone: "moss", weight: 1, label: "Clips go on" }),
  },
  bar: {
    label: "Take no clips from them",
    form: "Take no clips from {name} in {game}",
    input: { name: { kind: "text", label: "Whose", start: "" } },
    byHand: false,
    byRule: false,
    person: "name",
    word: "barclips",
    tape: (input) => ({ tone: "brick", weight: 1, label: `No more clips from ${String(input["name"])}` }),
  },
  "let-back": {
    label: "Take their clips again",
    form: "Take clips from {name} again in {game}",
    input: { name: { kind: "text", label: "Whose", start: "" } },
    byHand: false,
    byRule: false,
    word: "letclips",
  },
});
const shownNow = (view: Readonly<Record<string, unknown>>): boolean | null => {
  const now = view["now"];
  return typeof now === "object" && now !== null && "shown" in now ? now.shown === true : null;
};

/** What is done to one clip, by its number. */
type OfOne<K extends string> = { [D in K]: Readonly<{ do: D; n: number }> }[K];
export type ClipsCommand =
  | CommandOf<typeof clipsActions>
  | Readonly<{ do: "switch"; on: boolean }>
  /** A viewer's own, from chat or their page, once it has been read. */
  | Readonly<{ do: "take"; address: string; source: string; startMs: number; ms: number | null; title: string; answer: boolean }>
  /** As it stands in the form of the viewer page. */
  | Readonly<{ do: "mine"; address: string; source: string; from: string; seconds: string; title: string }>
  | Readonly<{ do: "filmed"; n: number; facts: unknown; sha: string }>
  | Readonly<{ do: "not-filmed"; n: number; code: string; facts: Readonly<Record<string, string | number | boolean | null>> }>
  | OfOne<"approve" | "drop" | "front" | "bar-file" | "settled" | "credit" | "replay" | "withdraw" | "seen">
  | Readonly<{ do: "move"; n: number; by: number }>
  | Readonly<{ do: "let-file"; sha: string }>;
