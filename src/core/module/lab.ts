import type { EveningRates } from "../lab/rates";
import type { Entry } from "../points/ledger";
import type { PriceAt } from "../points/price";
import type { Command, GivenSignal } from "../signals/signal";
import type { Viewer } from "../signals/names";
import type { Fields } from "./fields";

/** In what an answer is counted: how it is written, and whether a bin of it may be narrower than one. */
export type LabUnit = "minutes" | "points" | "times" | "people" | "waiting";
/** What a question reads of a note. */
export type LabNote = Readonly<{ did?: string; subject?: string; count: number }>;
/** What one signal of a simulated evening came to. `module` is who is asked about. */
export type LabSeen = Readonly<{
  /** Since the evening began, milliseconds. */
  afterMs: number;
  notes: readonly Readonly<{ game: string; note: LabNote }>[];
  entries: readonly Entry[];
  /** Prices that moved, as they stood then. */
  prices: readonly Readonly<{ rewardId: string; at: PriceAt }>[];
  durable: unknown;
}>;
export type LabMeasure = Readonly<{
  see: (seen: LabSeen) => void;
  /** The rest of the evening would change nothing. */
  knows?: () => boolean;
  /** Null when it did not come to pass. */
  value: () => number | null;
}>;
export type LabInput = Readonly<Record<string, number | string>>;
export type LabAt = Readonly<{
  settings: unknown;
  input: LabInput;
  /** Of the module that is asked about. */
  id: string;
  /** When the evening begins, UTC, and how long it is: milliseconds. */
  fromMs: number;
  ms: number;
  seed: number;
}>;
/** What is done at what time of an evening: by the operator where no viewer is named. */
export type LabScript = Iterable<
  Readonly<{ afterMs: number }> & (Readonly<{ command: Command; viewer?: Viewer }> | Readonly<{ signal: GivenSignal }>)
>;

/**
 * A question about a module that the odds lab can answer: by simulated evenings with the real rules, each of which comes
 * to one number.
 */
export type LabQuestion = Readonly<{
  id: string;
  /** The sentence, with its blanks: {game}, {evening} where a crowd is needed, and its own by name. */
  form: string;
  input: Fields;
  /** Names that the settings hold and from which texts of it are picked, by the field's `oneOf`. */
  lists?: (settings: unknown) => Readonly<Record<string, readonly string[]>>;
  unit: LabUnit;
  /** Whether an evening with a crowd is needed; else the script is all. */
  crowd: boolean;
  /** Whether all of the channel plays along, or only what can reach this module. */
  whole?: boolean;
  /** The crowd is as the evenings say, but for this. */
  rates?: (rates: EveningRates, at: Pick<LabAt, "settings" | "input">) => EveningRates;
  /** It begins as if new; as it stands now when left out. */
  fresh?: boolean;
  /** Commands and signals beside the crowd's, in their order. */
  script?: (at: LabAt) => LabScript;
  measure: (at: LabAt) => LabMeasure;
  /** “{game} falls after {value}”: what the middle case comes to. */
  middle: string;
  /** “of evenings it outlives the show”, after a share; left out where it always comes to pass. */
  never?: string;
}>;

/** Counts notes of one name, of the module that is asked about. */
export const countedNotes = (did: string, of: (note: LabNote) => number = () => 1) => {
  return ({ id }: LabAt): LabMeasure => {
    let sum = 0;
    return {
      see: ({ notes }) => {
        for (const { game, note } of notes) if (game === id && note.did === did) sum += of(note);
      },
      value: () => sum,
    };
  };
};
