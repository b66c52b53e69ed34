import type { Signal } from "../signals/signal";
import { deepFreeze } from "./freeze";
import type { GameRules, StepContext, StepOutcome } from "./step";

/** Runs signals through a game and returns every outcome; freezes all that goes in and comes out. */
export function replay<S, D, T, E>(
  rules: GameRules<S, D, T, E>,
  settings: S,
  signals: readonly Signal[],
  ctx: StepContext,
): readonly StepOutcome<D, T, E>[] {
  let durable = rules.freshDurable(settings);
  let dust = rules.freshDust();
  return signals.map((signal) => {
    const outcome = rules.step(deepFreeze({ settings, durable, dust }), deepFreeze(signal), ctx);
    durable = outcome.durable;
    dust = outcome.dust;
    return deepFreeze(outcome);
  });
}
