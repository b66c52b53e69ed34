import { chanceFrom } from "../../kernel/chance";
import type { LabQuestion } from "../../module/lab";
import type { VoicesDurable, VoicesSettings } from "./settings";

/** What the odds lab can be asked about spoken messages. */
export const voicesLab: readonly LabQuestion[] = [
  {
    id: "queue",
    form: "How long would the longest queue of {game} be, if {asks} an hour are asked for with {letters} letters each, for {hours} hours?",
    input: {
      asks: { kind: "whole", label: "Messages an hour", start: 40, min: 1, most: 2_000 },
      letters: { kind: "whole", label: "Letters of each", start: 80, min: 5, most: 500 },
      hours: { kind: "whole", label: "Hours", start: 3, min: 1, most: 12 },
    },
    unit: "waiting",
    crowd: false,
    fresh: true,
    script: function* ({ settings, input, seed }) {
      const word = (settings as VoicesSettings).words[0]?.word ?? "!say";
      const chance = chanceFrom(seed);
      const meanMs = 3_600_000 / Number(input["asks"]);
      const text = "the rim is even now ".repeat(26).slice(0, Number(input["letters"]));
      const untilMs = Number(input["hours"]) * 3_600_000;
      for (let afterMs = -Math.log(1 - chance()) * meanMs; afterMs < untilMs; afterMs -= Math.log(1 - chance()) * meanMs) {
        const n = Math.floor(chance() * 500);
        const viewer = { id: `lab-${n}`, name: `passer-by ${n + 1}`, roles: ["viewer"] as const };
        yield { afterMs, signal: { kind: "message", viewer, text: `${word} ${text}`, marks: [] } };
      }
    },
    measure: () => {
      let longest = 0;
      return {
        see: ({ durable }) => {
          const { waiting } = durable as VoicesDurable;
          longest = Math.max(longest, waiting.length);
        },
        value: () => longest,
      };
    },
    middle: "{value} wait at its longest",
  },
];
