import { actionsOf } from "../../module/action";
import type { CommandOf } from "../../module/fields";

/** What one can make a draw do by button, key, rule or word; entrants are handled by commands of their own. */
export const raffleActions = actionsOf({
  open: {
    label: "Open",
    form: "Open {game}",
    input: {},
    key: "b",
    word: "opendraw",
    can: (view) => view["canOpen"] === true,
    tape: (_, by, byOperator) => (byOperator ? { tone: "moss", weight: 1, label: `${by} opened the draw` } : null),
  },
  lock: {
    label: "Lock",
    form: "Lock {game}",
    input: {},
    key: "l",
    word: "lock",
    can: (view) => view["phase"] === "open",
    tape: (_, by, byOperator) => (byOperator ? { tone: "slate", weight: 1, label: `${by} locked the draw` } : null),
  },
  draw: {
    label: "Draw",
    form: "Draw from {game}",
    input: {},
    key: "d",
    word: "draw",
    can: (view) => view["canDraw"] === true,
    tape: (_, by, byOperator) => (byOperator ? { tone: "ochre", weight: 1, label: `${by} drew` } : null),
  },
  close: {
    label: "Close",
    form: "Close {game}",
    input: {},
    word: "closedraw",
    can: (view) => view["canClose"] === true,
    done: "Closed. Its proof is kept.",
  },
  cancel: {
    label: "Cancel",
    form: "Cancel {game}",
    input: {},
    sure: true,
    byRule: false,
    can: (view) => view["phase"] !== "",
    done: "Cancelled. Points that were paid go back.",
  },
  "tell-rules": {
    label: "Tell the rules",
    form: "Tell the rules of {game} in chat",
    input: {},
    word: "drawrules",
    done: "Chat was told the rules.",
  },
});
export type RaffleCommand =
  | CommandOf<typeof raffleActions>
  | Readonly<{ do: "switch"; on: boolean }>
  | Readonly<{ do: "remove"; viewer: string }>
  | Readonly<{ do: "add"; viewers: readonly Readonly<{ id: string; name: string; tickets: number }>[] }>
  | Readonly<{ do: "clear" }>;
