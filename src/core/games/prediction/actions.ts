import { actionsOf } from "../../module/action";
import type { CommandOf } from "../../module/fields";
import type { CommandUnion } from "../../module/union";
import type { predictionCommands } from "./commands";

/** What one can make a prediction do by button, key, rule or word. */
export const predictionActions = actionsOf({
  open: {
    label: "Open",
    form: "Open {game}, or its template {template}",
    input: {
      template: { kind: "text", label: "A template, or a question with its outcomes; empty for the one that is set up", start: "" },
    },
    key: "b",
    word: "predict",
    stepwise: true,
    can: (view) => view["canOpen"] === true,
    tape: (_, by, byOperator) => (byOperator ? { tone: "moss", weight: 1, label: `${by} opened a prediction` } : null),
  },
  lock: {
    label: "Lock",
    form: "Lock {game}",
    input: {},
    key: "l",
    word: "lockprediction",
    stepwise: true,
    can: (view) => view["phase"] === "open",
    tape: (_, by, byOperator) => (byOperator ? { tone: "slate", weight: 1, label: `${by} locked the prediction` } : null),
  },
  longer: {
    label: "One minute more",
    form: "Keep {game} open a minute longer",
    input: {},
    word: "longer",
    stepwise: true,
    can: (view) => view["phase"] === "open",
  },
  result: {
    label: "Say what came",
    form: "Say that {outcome} came in {game}",
    input: { outcome: { kind: "text", label: "The outcome, by letter or name", start: "A" } },
    word: "result",
    onlyThere: true,
  },
  undo: {
    label: "Take the result back",
    form: "Take the result of {game} back",
    input: {},
    sure: true,
    byRule: false,
    stepwise: true,
    can: (view) => view["phase"] === "done" && view["result"] !== null,
    done: "It is locked again; what was paid comes back.",
  },
  cancel: {
    label: "Cancel",
    form: "Cancel {game}",
    input: {},
    sure: true,
    byRule: false,
    word: "cancelprediction",
    stepwise: true,
    can: (view) => view["phase"] === "open" || view["phase"] === "locked",
    done: "Cancelled. Everybody gets back what they staked.",
  },
  "tell-rules": {
    label: "Tell the rules",
    form: "Tell the rules of {game} in chat",
    input: {},
    word: "predictionrules",
    done: "Chat was told the rules.",
  },
});

export type PredictionCommand =
  CommandOf<typeof predictionActions> | CommandUnion<typeof predictionCommands> | Readonly<{ do: "switch"; on: boolean }>;
