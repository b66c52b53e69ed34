import type { Signal } from "../signals/signal";
import { deepFreeze } from "../kernel/freeze";
import type { Module, StepContext, StepOutcome } from "./module";

/** Runs signals through a game and returns every outcome; freezes all that goes in and comes out. */
export function replay<S, D, T, E>(
  rules: Module<S, D, T, E>,
  settings: S,
  signals: readonly Signal[],
  ctx: StepContext,
): readonly StepOutcome<D, T, E>[] {
  let durable = rules.freshDurable(settings);
  let transient = rules.freshDust();
  return signals.map((signal) => {
    const outcome = rules.step(deepFreeze({ settings, durable, transient }), deepFreeze(signal), ctx);
    durable = outcome.durable;
    transient = outcome.transient;
    return deepFreeze(outcome);
  });
}
