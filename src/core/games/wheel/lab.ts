import { countedNotes, type LabAt, type LabQuestion } from "../../module/lab";
import { publicMs } from "./rules";
import { nameOfSegment } from "./stands";
import type { WheelSettings } from "./settings";

// The lab gives a game's own questions the game's own settings.
const settingsOf = ({ settings }: LabAt): WheelSettings => settings as WheelSettings;
const segmentNames = ({ segments }: WheelSettings): readonly string[] => [...new Set(segments.map((s) => nameOfSegment(s.label)))];

/** What the odds lab can be asked about a wheel. */
export const wheelLab: readonly LabQuestion[] = [
  {
    id: "drawn",
    form: "How often is {segment} drawn in {spins} spins of {game}?",
    input: {
      segment: { kind: "text", label: "Segment", start: "", oneOf: { list: "segments", none: "the rarest one" } },
      spins: { kind: "whole", label: "Spins", start: 50, min: 1, most: 1_000 },
    },
    lists: (settings) => ({ segments: segmentNames(settings as WheelSettings) }),
    unit: "times",
    crowd: false,
    fresh: true,
    script: function* (at) {
      const { spinMs } = settingsOf(at);
      for (let i = 0; i < Number(at.input["spins"]); i += 1)
        yield { afterMs: publicMs + 1_000 + i * (spinMs + publicMs + 2_000), command: { do: "spin" } };
    },
    measure: (at) => {
      const { segments } = settingsOf(at);
      const rarest = [...segments].sort((a, b) => a.weight - b.weight)[0];
      const name = at.input["segment"] === "" ? nameOfSegment(rarest?.label ?? "") : String(at.input["segment"]);
      return countedNotes("wheel/drawn", ({ subject = "" }) => (nameOfSegment(subject) === name ? 1 : 0))(at);
    },
    middle: "It is drawn {value}",
  },
];
