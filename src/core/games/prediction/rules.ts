import { fold } from "../../kernel/fold";
import type { StepContext } from "../../module/module";
import type { MessageSignal, Signal } from "../../signals/signal";
import { onCommand } from "./on-command";
import { type At, type Outcome, still } from "./outcome";
import { foreignSeen } from "./foreign";
import { goOn, locked } from "./round";
import type { PredictionDurable, PredictionSettings } from "./settings";
import { backed } from "./staking";

/** One signal through the rules of section 8. */
export function predictionStep(at: At, signal: Signal, ctx: StepContext): Outcome {
  switch (signal.kind) {
    case "message":
      return onMessage(at, signal, ctx);
    case "command":
      return onCommand(at, signal, ctx);
    case "timer":
      return onTimer(at, signal, ctx);
    case "forecast":
      return foreignSeen(at, signal);
    default:
      return still(at);
  }
}

function onMessage(at: At, signal: MessageSignal, ctx: StepContext): Outcome {
  const { viewer, atMs, text } = signal;
  const [first = ""] = text.trim().split(/\s+/, 1);
  if (first === "" || fold(first) !== fold(at.settings.word)) return still(at);
  const outcome = backed(at, viewer, text.trim().slice(first.length), atMs, ctx);
  const [note] = outcome.notes;
  const { answers } = at.settings;
  if (note === undefined || answers === "nothing" || (answers === "refusals" && note.refusal === undefined)) return outcome;
  return { ...outcome, orders: [...(outcome.orders ?? []), { do: "answer", to: viewer.name, note }] };
}

function onTimer(at: At, signal: Signal, ctx: StepContext): Outcome {
  const { round } = at.durable;
  const { atMs } = signal;
  if (round === null) return still(at);
  switch (round.phase) {
    case "open":
      return round.locksMs <= atMs ? locked(at, round, round.locksMs, ctx) : still(at);
    case "locked":
      // Somebody is asked what came of it.
      return round.dueMs <= atMs && !round.late ? { ...still(at), durable: { ...at.durable, round: { ...round, late: true } } } : still(at);
    case "paying":
    case "reversing":
    case "returning":
      return goOn(at, round, signal, ctx);
    default:
      return still(at);
  }
}

/** When it wants to be woken: to lock, to ask for the result, to go on paying. */
export function predictionDue(_: PredictionSettings, { round }: PredictionDurable): number | null {
  switch (round?.phase) {
    case "open":
      return round.locksMs;
    case "locked":
      return round.late ? null : round.dueMs;
    case "paying":
    case "reversing":
    case "returning":
      return 0;
    default:
      return null;
  }
}
