import { actionsOf } from "../../module/action";
import type { CommandOf } from "../../module/fields";
import type { CommandUnion } from "../../module/union";
import { mostTickets } from "./limits";
import type { raffleCommands } from "./commands";

/** What one can make a draw do by button, key, rule or word; entrants are handled by commands of their own. */
export const raffleActions = actionsOf({
  open: {
    label: "Open",
    form: "Open {game}",
    input: {},
    key: "b",
    word: "opendraw",
    stepwise: true,
    can: (view) => view["canOpen"] === true,
    tape: (_, by, byOperator) => (byOperator ? { tone: "moss", weight: 1, label: `${by} opened the draw` } : null),
  },
  lock: {
    label: "Lock",
    form: "Lock {game}",
    input: {},
    key: "l",
    word: "lock",
    stepwise: true,
    can: (view) => view["phase"] === "open",
    tape: (_, by, byOperator) => (byOperator ? { tone: "slate", weight: 1, label: `${by} locked the draw` } : null),
  },
  draw: {
    label: "Draw",
    form: "Draw from {game}",
    input: {},
    key: "j",
    word: "draw",
    stepwise: true,
    can: (view) => view["canDraw"] === true,
    tape: (_, by, byOperator) => (byOperator ? { tone: "ochre", weight: 1, label: `${by} drew` } : null),
  },
  "draw-all": {
    label: "Draw all",
    form: "Draw all winners of {game}",
    input: {},
    stepwise: true,
    can: (view) => view["canDraw"] === true && Number(view["left"]) > 1,
    tape: (_, by, byOperator) => (byOperator ? { tone: "ochre", weight: 1, label: `${by} drew all` } : null),
  },
  another: {
    label: "One more",
    form: "Draw one more winner of {game}",
    input: {},
    key: "m",
    stepwise: true,
    can: (view) => view["canMore"] === true,
    tape: (_, by, byOperator) => (byOperator ? { tone: "ochre", weight: 1, label: `${by} drew one more` } : null),
  },
  close: {
    label: "Close",
    form: "Close {game}",
    input: {},
    word: "closedraw",
    stepwise: true,
    can: (view) => view["canClose"] === true,
    done: "Closed. Its proof is kept.",
  },
  cancel: {
    label: "Cancel",
    form: "Cancel {game}",
    input: {},
    sure: true,
    byRule: false,
    stepwise: true,
    // The rules refuse it once somebody was drawn; the button goes then.
    can: (view) => view["phase"] !== "" && ((view["winners"] ?? []) as readonly unknown[]).length === 0,
    done: "Cancelled. Points that were paid go back.",
  },
  enter: {
    label: "Enter",
    form: "Enter the viewer in {game} with {tickets} tickets, or with the number {guess}",
    input: {
      tickets: { kind: "amount", label: "Tickets", start: 1, min: 1, most: mostTickets },
      guess: { kind: "text", label: "The number they name", start: "{text}" },
    },
    onlyThere: true,
  },
  "tell-rules": {
    label: "Tell the rules",
    form: "Tell the rules of {game} in chat",
    input: {},
    word: "drawrules",
    done: "Chat was told the rules.",
  },
});

export type RaffleCommand = CommandOf<typeof raffleActions> | Readonly<{ do: "switch"; on: boolean }> | CommandUnion<typeof raffleCommands>;
