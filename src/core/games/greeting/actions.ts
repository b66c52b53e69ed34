import type { CommandOf } from "../../module/fields";
import { actionsOf } from "../../module/action";
import { roles, roleWords } from "../../signals/names";

/** What one can make a greeting do. */
export const greetingActions = actionsOf({
  greet: {
    label: "Greet",
    form: "Greet {name} by {game}",
    input: { name: { kind: "text", label: "Whom: a name; empty for who brought it", start: "" } },
    word: "greet",
    byHand: false,
    person: "name",
  },
  skip: {
    label: "Skip",
    form: "End what {game} shows",
    input: {},
    key: "c",
    word: "skipgreeting",
    can: (view) => view["card"] !== null,
    tape: (_, by, byOperator) => (byOperator ? { tone: "soft", weight: 1, label: `${by} skipped a greeting` } : null),
  },
  clear: {
    label: "Drop who waits",
    form: "Drop who waits in {game}",
    input: {},
    can: (view) => Number(view["waiting"]) > 0,
    tape: () => ({ tone: "soft", weight: 1, label: "Greetings that waited were dropped" }),
  },
  forget: {
    label: "Forget who was greeted",
    form: "Forget that {game} greeted {name}",
    input: { name: { kind: "text", label: "Whom: a name; empty for all", start: "" } },
    sure: true,
    byRule: false,
    done: "Whoever writes next is greeted again.",
  },
  entrance: {
    label: "Give an entrance",
    form: "Give {name} an entrance in {game}: {line}, with {picture} and {sound}, {role}",
    input: {
      name: { kind: "text", label: "Whom: a name; empty for who brought it", start: "" },
      line: { kind: "text", label: "The line; empty for the usual ones", start: "" },
      picture: { kind: "prop", label: "Picture", of: "picture", start: "" },
      sound: { kind: "prop", label: "Sound", of: "sound", start: "" },
      role: {
        kind: "choice",
        label: "For how long",
        start: "always",
        options: [
          { value: "always", words: "for good" },
          ...roles.slice(1).map((role) => ({ value: role, words: `while they are one of ${roleWords[role]}` })),
        ],
      },
    },
    byHand: false,
    tape: () => ({ tone: "moss", weight: 1, label: "An entrance was given" }),
  },
  "take-entrance": {
    label: "Take an entrance away",
    form: "Take the entrance of {name} away in {game}",
    input: { name: { kind: "text", label: "Whose: a name; empty for who brought it", start: "" } },
    byHand: false,
  },
});
export type GreetingCommand = CommandOf<typeof greetingActions> | Readonly<{ do: "switch"; on: boolean }> | Readonly<{ do: "drop-mine" }>;
