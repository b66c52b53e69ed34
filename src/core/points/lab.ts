import type { LabQuestion } from "../module/lab";
import { type Entry, isViewerAccount } from "./ledger";

/** What an entry brings viewers and takes from them; what goes from one to another is neither. */
function flow({ postings }: Entry): number {
  return postings.reduce((sum, p) => sum + (isViewerAccount(p.account) ? p.amount : 0), 0);
}

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
            const moved = flow(entry);
            if (moved > 0 && entry.reason !== "refunded") made += moved;
            else taken -= moved;
          }
        },
        value: () => (input["what"] === "make" ? made : input["what"] === "take" ? taken : made - taken),
      };
    },
    middle: "It comes to {value}",
  },
];
