import type { Sample } from "../../module/game";
import { commanded, one, sampleViewer } from "../../module/samples";
import type { Viewer } from "../../signals/names";

const spun = (says: string, viewer: Viewer | null) =>
  one(says, { kind: "command", gameId: "preview", by: "you", viewer, command: { do: "spin" } });

/** What a crowd, or an operator, could do with a wheel just now. */
export const wheelSamples: readonly Sample[] = [
  {
    id: "spin",
    label: "Spin",
    key: "s",
    weight: 5,
    make: () => spun("The wheel is spun", null),
  },
  {
    id: "viewer",
    label: "A viewer’s spin",
    key: "w",
    weight: 5,
    make: ({ times }) => spun(`${sampleViewer(times).name} spins it`, sampleViewer(times)),
  },
  { id: "timer", label: "Time goes by", weight: 4, unseen: true, make: () => one("time goes by", { kind: "timer", moduleId: "preview" }) },
  { id: "reset", label: "Bring all back", key: "b", weight: 1, make: () => one("All segments come back", commanded({ do: "reset" })) },
  { id: "drop", label: "Drop those that wait", weight: 1, make: () => one("Waiting spins are dropped", commanded({ do: "drop-waiting" })) },
];
