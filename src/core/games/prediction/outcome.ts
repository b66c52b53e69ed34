import { refusal } from "../../kernel/refusal";
import type { Note, StepOutcome } from "../../module/module";
import type { Entry } from "../../points/ledger";
import type { Booking } from "../../rewards/ledger-view";
import type { PredictionDurable, PredictionSettings } from "./settings";

export type At = Readonly<{ settings: PredictionSettings; durable: PredictionDurable; transient: null }>;
export type Outcome = StepOutcome<PredictionDurable, null, never>;
export const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, transient: null, effects: [], notes });
export const no = (at: At, code: string, facts: Record<string, string | number> = {}): Outcome =>
  still(at, [{ refusal: refusal(code, facts), count: 1 }]);
export const booked = (entries: readonly Entry[], names: readonly Readonly<{ id: string; name: string }>[]): Booking => ({
  entries,
  sales: [],
  names,
  prices: [],
});
