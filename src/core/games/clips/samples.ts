import type { Sample } from "../../module/game";
import { commanded, one, said, sampleViewer } from "../../module/samples";
import type { ClipsDurable, ClipsSettings } from "./settings";

const sample = (times: number): string => `https://clips.marsh.example/sail.webm 0:0${times % 9} 6s my first sail`;

/** A film that is there without being fetched: the scene draws it. */
const drawn = {
  url: "",
  poster: "",
  strip: null,
  ms: 6_000,
  width: 16,
  height: 9,
  audible: true,
  black: false,
  flashes: "none",
  flashesAtMs: 0,
  flashing: [],
};

/** What a crowd and an operator try. */
export const clipsSamples: readonly Sample[] = [
  {
    id: "send",
    label: "Somebody sends one",
    key: "q",
    weight: 4,
    make: ({ settings, durable, times }) => {
      const { word, approve } = settings as ClipsSettings;
      const viewer = sampleViewer(times);
      const made = (durable as ClipsDurable).made + 1;
      return {
        says: `${viewer.name} sends six seconds of a film`,
        signals: [
          { afterMs: 0, signal: said({ ...viewer, id: `${viewer.id}-${times}` }, `${word} ${sample(times)}`) },
          // In a preview nobody fetches films: a drawn one comes at once.
          { afterMs: 600, signal: commanded({ do: "filmed", n: made, facts: drawn, sha: `sample-${times}` }) },
          ...(approve ? [{ afterMs: 1_600, signal: commanded({ do: "approve", n: made }) }] : []),
          { afterMs: 3_000, signal: commanded({ do: "seen", n: made }) },
        ],
      };
    },
  },
  {
    id: "tip",
    label: "A tip with one",
    key: "w",
    weight: 2,
    make: ({ settings, durable, times }) => {
      const viewer = sampleViewer(times + 3);
      const made = (durable as ClipsDurable).made + 1;
      return {
        says: `${viewer.name} tips 5.00 and names a film`,
        signals: [
          {
            afterMs: 0,
            signal: {
              kind: "tip",
              viewer,
              amountMinor: 500,
              currency: "EUR",
              homeMinor: 500,
              text: `${(settings as ClipsSettings).word} ${sample(times + 4)}`,
            },
          },
          { afterMs: 600, signal: commanded({ do: "filmed", n: made, facts: drawn, sha: `sample-t${times}` }) },
          { afterMs: 1_600, signal: commanded({ do: "approve", n: made }) },
          { afterMs: 3_000, signal: commanded({ do: "seen", n: made }) },
        ],
      };
    },
  },
  {
    id: "bad",
    label: "A broken one",
    weight: 1,
    make: ({ durable }) =>
      one("the film can’t be read", commanded({ do: "not-filmed", n: (durable as ClipsDurable).made, code: "video/broken", facts: {} })),
  },
  { id: "hide", label: "Hide it", key: "e", weight: 1, make: () => one("you hide it", commanded({ do: "veil" })) },
  { id: "show", label: "Show it", key: "r", weight: 1, make: () => one("you show it", commanded({ do: "unveil" })) },
  { id: "skip", label: "Skip it", key: "t", weight: 1, make: () => one("you skip it", commanded({ do: "skip" })) },
  { id: "hold", label: "Hold", weight: 0, make: () => one("you hold what waits", commanded({ do: "hold" })) },
  { id: "go-on", label: "Go on", weight: 1, make: () => one("you let it go on", commanded({ do: "go-on" })) },
];
