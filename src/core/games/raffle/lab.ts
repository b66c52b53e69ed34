import type { LabAt, LabQuestion } from "../../module/lab";
import type { RaffleSettings } from "./settings";

// The lab gives a game's own questions the game's own settings.
const settingsOf = ({ settings }: LabAt): RaffleSettings => settings as RaffleSettings;
const number = ({ input }: LabAt, name: string): number => Number(input[name]);
const whole = (label: string, start: number, min: number, most: number) => ({ kind: "whole", label, start, min, most }) as const;
/** A draw is opened, filled, locked, drawn and closed within this: more than the longest shake and all its winners take. */
const roundMs = 6 * 3_600_000;

/** What the odds lab can be asked about a draw. */
export const raffleLab: readonly LabQuestion[] = [
  {
    id: "winners",
    form: "How many of {entrants} entrants win at least once in {rounds} draws of {game}, if {many} of them hold {tickets} tickets and the others 1?",
    input: {
      entrants: whole("Entrants", 300, 1, 5_000),
      rounds: whole("Draws", 10, 1, 50),
      many: whole("Of them with more tickets", 30, 0, 5_000),
      tickets: whole("Tickets of each of these", 5, 1, 1_000),
    },
    unit: "people",
    crowd: false,
    fresh: true,
    script: function* (at) {
      const { shakeMs, by, number: numbers } = settingsOf(at);
      const span = numbers.to - numbers.from + 1;
      for (let round = 0; round < number(at, "rounds"); round += 1) {
        const fromMs = round * roundMs;
        yield { afterMs: fromMs + 30_000, command: { do: "open" } };
        for (let i = 0; i < number(at, "entrants"); i += 1) {
          const tickets = i < number(at, "many") ? number(at, "tickets") : 1;
          // Numbers are spread evenly: who names which is nobody's secret here.
          const guess = by === "number" ? String(numbers.from + ((i * 7_919) % span)) : "";
          const viewer = { id: `lab-${i}`, name: `entrant ${i + 1}`, roles: ["viewer"] as const };
          yield { afterMs: fromMs + 31_000 + i, command: { do: "enter", tickets, guess }, viewer };
        }
        yield { afterMs: fromMs + 60_000, command: { do: "lock" } };
        yield { afterMs: fromMs + 120_000 + shakeMs, command: { do: "draw-all" } };
        yield { afterMs: fromMs + roundMs - 60_000, command: { do: "close" } };
        // Where nobody could be drawn, it is closed by a second word.
        yield { afterMs: fromMs + roundMs - 55_000, command: { do: "close" } };
      }
    },
    measure: ({ id }) => {
      const won = new Set<string>();
      return {
        see: ({ notes }) => {
          for (const { game, note } of notes) if (game === id && note.did === "raffle/drawn") won.add(note.subject ?? "");
        },
        value: () => won.size,
      };
    },
    middle: "{value} win at least once",
  },
];
