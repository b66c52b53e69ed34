import type { StepContext } from "../../module/module";
import type { Viewer } from "../../signals/names";
import { askOf, entry } from "./entering";
import { entered } from "./entrants";
import { type At, no, type Outcome, still } from "./outcome";

/** A message that came just too late is told so; later ones mean something else. */
const lateMs = 60_000;

/** Somebody asks to be in: by the chat word, on the viewer page, or by a rule for them. */
export function enter(
  at: At,
  viewer: Viewer,
  text: string,
  how: Readonly<{ atMs: number; chattedMs: number | null; free: boolean }>,
  ctx: StepContext,
): Outcome {
  const { durable } = at;
  const { round } = durable;
  if (!durable.on) return no(at, "raffle/off");
  if (round === null || round.phase !== "open") {
    const closedMs = round?.lockedMs ?? durable.closedMs;
    const lateS = Math.ceil((how.atMs - closedMs) / 1000);
    const late = closedMs > 0 && lateS * 1000 <= lateMs;
    return no(at, late ? "raffle/late" : "raffle/not-open", late ? { seconds: lateS } : {});
  }
  if (round.returning) return no(at, "raffle/clearing");
  const came = entry({ round, durable, viewer, ask: askOf(text), ...how, ctx });
  return "refusal" in came ? still(at, [{ refusal: came.refusal, count: 1 }]) : entered(at, round, viewer, came, how.atMs);
}
