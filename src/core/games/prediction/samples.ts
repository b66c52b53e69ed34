import type { Sample } from "../../module/game";
import { commanded, one, said, sampleNames, sampleViewer } from "../../module/samples";
import type { PredictionDurable, PredictionSettings } from "./settings";
import { letterOf } from "./letters";

const stake = (settings: unknown, durable: unknown, times: number): string => {
  const { word, stakes } = settings as PredictionSettings;
  const { round } = durable as PredictionDurable;
  const letter = letterOf(((times * 5) % Math.max(2, round?.outcomes.length ?? 2)) % (times % 3 === 0 ? 2 : 12));
  return stakes ? `${word} ${letter} ${20 + ((times * 37) % 180)}` : `${word} ${letter}`;
};

/** What a crowd, or an operator, could do with a prediction just now. */
export const predictionSamples: readonly Sample[] = [
  { id: "open", label: "Open", key: "o", weight: 3, make: () => one("It is opened", commanded({ do: "open", template: "" })) },
  {
    id: "back",
    label: "Somebody takes part",
    key: "b",
    weight: 24,
    make: ({ settings, durable, times }) => {
      const text = stake(settings, durable, times);
      return one(`${sampleViewer(times).name} writes ${text}`, said(sampleViewer(times), text));
    },
  },
  {
    id: "crowd",
    label: "Ten take part",
    key: "t",
    weight: 2,
    make: ({ settings, durable, times }) => ({
      says: "Ten viewers take part, one after another",
      signals: sampleNames.map((_, i) => ({
        afterMs: i * 220,
        signal: said(sampleViewer(times + i), stake(settings, durable, times + i)),
      })),
    }),
  },
  { id: "lock", label: "Lock", key: "l", weight: 2, make: () => one("It is locked", commanded({ do: "lock" })) },
  { id: "first", label: "A came", key: "a", weight: 3, make: () => one("A came", commanded({ do: "result", outcome: "A" })) },
  { id: "second", label: "B came", key: "s", weight: 2, make: () => one("B came", commanded({ do: "result", outcome: "B" })) },
  { id: "undo", label: "Take it back", weight: 1, make: () => one("The result is taken back", commanded({ do: "undo" })) },
  { id: "cancel", label: "Cancel", weight: 1, make: () => one("It is cancelled", commanded({ do: "cancel" })) },
  { id: "timer", label: "Time goes by", weight: 9, unseen: true, make: () => one("time goes by", { kind: "timer", moduleId: "preview" }) },
];
