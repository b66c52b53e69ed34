import type { Map as Entries } from "immutable";
import { refusal } from "../../kernel/refusal";
import type { Note, StepOutcome } from "../../module/module";
import type { Entry } from "../../points/ledger";
import type { Role } from "../../signals/names";
import type { RaffleDurable, RaffleSettings } from "./settings";

/** Who wrote, or had the viewer page open, and when last; with the roles they had then. */
export type Seen = Readonly<{ id: string; name: string; roles: readonly Role[]; atMs: number }>;
/** `askedMs`: when it was asked to close with nobody drawn. */
export type RaffleTransient = Readonly<{ chatted: Entries<`v:${string}`, Seen>; askedMs: number }>;
export type At = Readonly<{ settings: RaffleSettings; durable: RaffleDurable; transient: RaffleTransient }>;
export type Outcome = StepOutcome<RaffleDurable, RaffleTransient, never>;
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
