import type { CommandOf } from "../../module/fields";
import { actionsOf } from "../../module/action";

/** What one can make a presenting do. */
export const presentingActions = actionsOf({
  present: {
    label: "Present",
    form: "Present {name} by {game}",
    input: { name: { kind: "text", label: "Whom: a name; empty for who brought it", start: "" } },
    word: "present",
    byHand: false,
    person: "name",
  },
  skip: {
    label: "Skip",
    form: "End what {game} shows",
    input: {},
    key: "c",
    word: "skipcard",
    can: (view) => view["person"] !== null,
    tape: (_, by, byOperator) => (byOperator ? { tone: "soft", weight: 1, label: `${by} ended a card` } : null),
  },
  clear: {
    label: "Drop who waits",
    form: "Drop who waits in {game}",
    input: {},
    can: (view) => Number(view["waiting"]) > 0,
  },
});
type Found = Readonly<{ do: "found"; name: string; page: string; topic: string; about: string }>;
/** `away`: the platform said nothing; `late`: nobody can say whether it would have. */
type NotFound = Readonly<{ do: "not-found"; name: string; away: boolean; late: boolean }>;
export type PresentingCommand = CommandOf<typeof presentingActions> | Readonly<{ do: "switch"; on: boolean }> | Found | NotFound;
