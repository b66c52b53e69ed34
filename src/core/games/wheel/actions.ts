import { actionsOf } from "../../module/action";
import type { CommandOf } from "../../module/fields";

/** What one can make a wheel do. */
export const wheelActions = actionsOf({
  spin: {
    label: "Spin",
    form: "Spin {game}",
    input: {},
    key: "i",
    word: "spin",
    can: (view) => view["canSpin"] === true,
    tape: (_, by, byOperator) => (byOperator ? { tone: "ochre", weight: 1, label: `${by} spun the wheel` } : null),
  },
  reset: {
    label: "Bring all back",
    form: "Bring all segments of {game} back",
    input: {},
    word: "resetwheel",
    can: (view) => Number(view["away"] ?? 0) > 0,
    done: "All segments are on the wheel again.",
    tape: () => ({ tone: "soft", weight: 1, label: "All segments came back" }),
  },
  "drop-waiting": {
    label: "Drop waiting",
    form: "Drop the spins that wait for {game}",
    input: {},
    byRule: false,
    can: (view) => Number(view["waiting"] ?? 0) > 0,
  },
  "tell-rules": {
    label: "Tell the chances",
    form: "Tell the chances of {game} in chat",
    input: {},
    word: "chances",
    done: "Chat was told the chances.",
  },
});
export type WheelCommand = CommandOf<typeof wheelActions> | Readonly<{ do: "switch"; on: boolean }>;
