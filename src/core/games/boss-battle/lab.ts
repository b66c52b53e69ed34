import { countedNotes, type LabQuestion } from "../../module/lab";

/** What the odds lab can be asked about a boss battle. */
export const bossLab: readonly LabQuestion[] = [
  {
    id: "stands",
    form: "How long does {game} stand, on {evening}?",
    input: {},
    unit: "minutes",
    crowd: true,
    fresh: true,
    measure: ({ id }) => {
      let fellMs: number | null = null;
      return {
        see: ({ notes, afterMs }) => {
          if (fellMs === null && notes.some((n) => n.game === id && n.note.did === "boss/fell")) fellMs = afterMs;
        },
        knows: () => fellMs !== null,
        value: () => (fellMs === null ? null : fellMs / 60_000),
      };
    },
    middle: "{game} falls after {value}",
    never: "it outlives the show",
  },
  {
    id: "falls",
    form: "How often does {game} fall, on {evening}?",
    input: {},
    unit: "times",
    crowd: true,
    fresh: true,
    measure: countedNotes("boss/fell"),
    middle: "{game} falls {value}",
  },
];
