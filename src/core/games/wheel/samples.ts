import type { Sample } from "../../module/game";
import { commanded, one, said, sampleViewer } from "../../module/samples";

/** A spin, and the signal that ends it: previews have no clock of their own. */
const spun = (says: string, by: "you" | "viewer", times: number, ms: number) => ({
  says,
  signals: [
    {
      afterMs: 0,
      signal: {
        kind: "command" as const,
        gameId: "preview",
        by: "you",
        viewer: by === "you" ? null : sampleViewer(times),
        command: { do: "spin" },
      },
    },
    { afterMs: ms, signal: { kind: "timer" as const, moduleId: "preview" } },
  ],
});
const msOf = (settings: unknown): number => Number((settings as { spinMs?: unknown } | null)?.spinMs ?? 9_000);

/** What a crowd, or an operator, could do with a wheel just now. */
export const wheelSamples: readonly Sample[] = [
  {
    id: "spin",
    label: "Spin",
    key: "s",
    weight: 5,
    make: ({ settings, times }) => spun("The wheel is spun", "you", times, msOf(settings)),
  },
  {
    id: "viewer",
    label: "A viewer’s spin",
    key: "w",
    weight: 5,
    make: ({ settings, times }) => spun(`${sampleViewer(times).name} spins it`, "viewer", times, msOf(settings)),
  },
  { id: "timer", label: "Time goes by", weight: 4, make: () => one("time goes by", { kind: "timer", moduleId: "preview" }) },
  { id: "reset", label: "Bring all back", key: "b", weight: 1, make: () => one("All segments come back", commanded({ do: "reset" })) },
  { id: "drop", label: "Drop those that wait", weight: 1, make: () => one("Waiting spins are dropped", commanded({ do: "drop-waiting" })) },
  {
    id: "message",
    label: "A message",
    weight: 1,
    make: ({ times }) => one(`${sampleViewer(times).name} writes`, said(sampleViewer(times), "go on, spin it")),
  },
];
