import type { ChannelId } from "../../core/kernel/ids";
import type { Refusal, Result } from "../../core/kernel/refusal";
import type { LabAsk, LabResult } from "../../core/lab/ask";
import type { EveningRates } from "../../core/lab/rates";

/** Questions that a channel asked the odds lab, with their answers; each outlives whoever works on it. */
export type LabState = "waiting" | "working" | "done" | "failed";
export type LabRow = Readonly<{
  id: string;
  channel: ChannelId;
  /** As somebody named it; empty for its own sentence. */
  name: string;
  ask: unknown;
  state: LabState;
  /** Evenings played so far. */
  done: number;
  result: unknown;
  /** What of the settings its answer was made with, so that a change since can be told. */
  mark: string;
  why: Refusal | null;
  askedMs: number;
  endedMs: number | null;
  removedMs: number | null;
  by: string;
}>;
export type LabStore = Readonly<{
  /** Newest first; those that were removed lately among them. */
  list: (channel: ChannelId) => Promise<readonly LabRow[]>;
  one: (channel: ChannelId, id: string) => Promise<LabRow | null>;
  /** Refused: there are too many, or too many of them wait. One of the same id is taken once. */
  add: (row: Readonly<{ id: string; channel: ChannelId; name: string; ask: LabAsk; by: string }>, nowMs: number) => Promise<Result<null>>;
  /** Asks it anew, as it is or otherwise; what is at work is given up. */
  again: (channel: ChannelId, id: string, ask: LabAsk | null, nowMs: number) => Promise<Result<null>>;
  rename: (channel: ChannelId, id: string, name: string) => Promise<boolean>;
  /** Removed, or brought back with null. */
  remove: (channel: ChannelId, id: string, atMs: number | null) => Promise<boolean>;
  /** It answers with what it has played so far. False when nothing is at work. */
  stop: (channel: ChannelId, id: string) => Promise<boolean>;
  /** The next one, for whoever asks first; those whose worker fell silent are given out again, three times. */
  claim: (owner: string, nowMs: number, leaseMs: number) => Promise<LabRow | null>;
  /** How far it is. `gone`: it is not its worker's any more; `stop`: somebody wants the answer now. */
  beat: (id: string, owner: string, done: number, nowMs: number, leaseMs: number) => Promise<"go-on" | "stop" | "gone">;
  end: (
    id: string,
    owner: string,
    of: Readonly<{ result: LabResult; mark: string }> | Readonly<{ why: Refusal }>,
    nowMs: number,
  ) => Promise<void>;
  /** How the last shows went, those that have a log; newest first. */
  rates: (channel: ChannelId, shows: number) => Promise<readonly EveningRates[]>;
  /** How past chat went that was brought in; null when it is not there any more. */
  ratesOfChat: (channel: ChannelId, id: string) => Promise<EveningRates | null>;
}>;
