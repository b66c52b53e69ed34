import type { ForecastSignal } from "../../signals/signal";
import { type At, type Outcome, still } from "./outcome";
import type { Foreign } from "./settings";

/** The platform's own prediction, as it tells it: the newest word counts, one of another prediction begins anew. */
export function foreignSeen(at: At, signal: ForecastSignal): Outcome {
  const { forecast, title, state, outcomes, result, locksMs, atMs } = signal;
  const before = at.durable.foreign;
  const foreign: Foreign = {
    id: forecast,
    title,
    state,
    outcomes: outcomes.map((o) => ({ ...o })),
    result: state === "done" ? result : null,
    locksMs: state === "open" ? locksMs : 0,
    endedMs: state === "done" || state === "cancelled" ? atMs : 0,
  };
  // What came late of one that is over brings it not back.
  if (before !== null && before.id === foreign.id && before.endedMs > 0 && foreign.endedMs === 0) return still(at);
  const note = { did: `prediction/platform-${state}`, count: 1, subject: title };
  const told = before?.id !== foreign.id || before.state !== foreign.state;
  return { ...still(at, told ? [note] : []), durable: { ...at.durable, foreign } };
}
