import { actionsOf } from "../../module/action";
import type { CommandOf } from "../../module/fields";

/** What one can have the studio do. */
export const studioActions = actionsOf({
  go: {
    label: "Go to a scene",
    form: "Have {game} go to {scene} for {holdMs}",
    input: {
      scene: { kind: "text", label: "The scene", start: "", oneOf: { list: "scenes", none: "no scene yet" } },
      holdMs: { kind: "time", label: "For how long; 0 to stay there", start: 15_000, min: 0, most: 3_600_000 },
    },
    byHand: false,
    word: "scene",
    tape: (input, by) => ({ tone: "slate", weight: 2, label: `${by}: scene ${String(input["scene"])}` }),
  },
  back: {
    label: "Back now",
    form: "Have {game} go back to where it was",
    input: {},
    key: "b",
    word: "sceneback",
    can: (view) => view["hold"] !== null,
    stepwise: true,
    tape: () => ({ tone: "soft", weight: 1, label: "Scene: back" }),
  },
});
export type StudioCommand =
  | CommandOf<typeof studioActions>
  | Readonly<{ do: "switch"; on: boolean }>
  | Readonly<{ do: "switch-to"; scene: string }>
  | Readonly<{ do: "stands"; connected: boolean; name: string; scenes: readonly string[]; current: string | null }>
  | Readonly<{ do: "went"; n: number }>
  | Readonly<{ do: "not-went"; n: number; why: string }>;
