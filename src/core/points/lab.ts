import type { LabQuestion } from "../module/lab";
import { flowOf } from "./ledger";

/** What the odds lab can be asked about points. */
export const pointsLab: readonly LabQuestion[] = [
  {
    id: "flow",
    form: "How much {points} does {evening} {what}?",
    input: {
      what: {
        kind: "choice",
        label: "What is asked",
        start: "make",
        options: [
          { value: "make", words: "make" },
          { value: "take", words: "take" },
          { value: "leave", words: "make more than it takes" },
        ],
      },
    },
    unit: "points",
    crowd: true,
    whole: true,
    measure: ({ input }) => {
      let [made, taken] = [0, 0];
      return {
        see: ({ entries }) => {
          for (const entry of entries) {
            const flow = flowOf(entry);
            made += flow.made;
            taken += flow.taken;
          }
        },
        value: () => (input["what"] === "make" ? made : input["what"] === "take" ? taken : made - taken),
      };
    },
    middle: "It comes to {value}",
  },
];
