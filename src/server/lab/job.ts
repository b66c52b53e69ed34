import type { LabAsk } from "../../core/lab/ask";
import type { EveningRates } from "../../core/lab/rates";
import type { ChannelRow, LedgerRows } from "../ports/engine-store";

/** What a worker is told once: the channel on copies, and what is asked of it. */
export type LabJob = Readonly<{
  row: ChannelRow;
  ledger: LedgerRows;
  fromMs: number;
  ask: LabAsk;
  /** Crowds of the evenings, taken in turns; none where no crowd is asked for. */
  rates: readonly EveningRates[];
}>;
/** Evenings from `from` up to, and without, `to`. */
export type LabPart = Readonly<{ from: number; to: number }>;
export type LabPlayed = LabPart &
  Readonly<{ plain: readonly (number | null)[]; instead: readonly (number | null)[] | null; signals: number }>;
export type ToWorker = Readonly<{ do: "begin"; job: LabJob }> | Readonly<{ do: "play"; part: LabPart }>;
export type FromWorker = Readonly<{ is: "played"; part: LabPlayed }> | Readonly<{ is: "failed"; why: string }>;
