import type { Sample } from "../../module/game";
import { commanded, one, said, sampleNames, sampleViewer } from "../../module/samples";
import type { RaffleSettings } from "./settings";

/** What is written to be in: the word, and a number where one is asked for. */
const entry = (settings: unknown, times: number): string => {
  const { word, by, number } = settings as RaffleSettings;
  return by === "number" ? `${word} ${number.from + ((times * 37) % (number.to - number.from + 1))}` : word;
};

/** What a crowd, or an operator, could do with a draw just now. */
export const raffleSamples: readonly Sample[] = [
  { id: "open", label: "Open", key: "o", weight: 3, make: () => one("The draw is opened", commanded({ do: "open" })) },
  {
    id: "enter",
    label: "Somebody enters",
    key: "e",
    weight: 24,
    make: ({ settings, times }) =>
      one(`${sampleViewer(times).name} writes ${entry(settings, times)}`, said(sampleViewer(times), entry(settings, times))),
  },
  {
    id: "crowd",
    label: "Ten enter",
    key: "t",
    weight: 2,
    make: ({ settings, times }) => ({
      says: "Ten viewers enter, one after another",
      signals: sampleNames.map((_, i) => ({ afterMs: i * 180, signal: said(sampleViewer(times + i), entry(settings, times + i)) })),
    }),
  },
  { id: "lock", label: "Lock", key: "l", weight: 2, make: () => one("The draw is locked", commanded({ do: "lock" })) },
  {
    id: "chat",
    label: "Somebody writes",
    key: "w",
    weight: 8,
    make: ({ times }) => one(`${sampleViewer(times).name} writes`, said(sampleViewer(times), "good luck, all")),
  },
  { id: "draw", label: "Draw", key: "d", weight: 4, make: () => one("A winner is drawn", commanded({ do: "draw" })) },
  { id: "close", label: "Close", key: "c", weight: 2, make: () => one("The draw is closed", commanded({ do: "close" })) },
  { id: "cancel", label: "Cancel", weight: 1, make: () => one("The draw is cancelled", commanded({ do: "cancel" })) },
  { id: "timer", label: "Time goes by", weight: 4, unseen: true, make: () => one("time goes by", { kind: "timer", moduleId: "preview" }) },
];
