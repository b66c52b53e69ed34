import type { Map as Entries } from "immutable";
import { refusal } from "../../kernel/refusal";
import type { Note, StepOutcome } from "../../module/module";
import type { Entry } from "../../points/ledger";
import type { DrawDurable, DrawSettings } from "./settings";

/** When who wrote last: for draws in which only who was there lately may enter. */
export type DrawTransient = Readonly<{ chatted: Entries<`v:${string}`, number> }>;
export type At = Readonly<{ settings: DrawSettings; durable: DrawDurable; transient: DrawTransient }>;
export type Outcome = StepOutcome<DrawDurable, DrawTransient, never>;
export const still = (at: At, notes: readonly Note[] = []): Outcome => ({
  durable: at.durable,
  transient: at.transient,
  effects: [],
  notes,
});
export const no = (at: At, code: string, facts: Record<string, string | number> = {}): Outcome =>
  still(at, [{ refusal: refusal(code, facts), count: 1 }]);
export const booked = (entries: readonly Entry[], names: readonly Readonly<{ id: string; name: string }>[]) => ({
  entries,
  sales: [],
  names,
  prices: [],
});
