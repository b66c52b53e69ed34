import type { StepContext } from "../../module/module";
import { eveningOf } from "../evening";
import { prediction } from "./definition";
import { predictionDefaults, type PredictionSettings, predictionSettingsSchema } from "./settings";

/** For tests: an evening with predictions. */
export const settingsOf = (part: Partial<PredictionSettings> = {}): PredictionSettings =>
  predictionSettingsSchema.parse({ ...predictionDefaults, least: 1, ...part });
export function evening(part: Partial<PredictionSettings> = {}, ctx: Partial<StepContext> = {}) {
  const e = eveningOf(prediction, settingsOf(part), ctx);
  return {
    ...e,
    open: (atMs = 1_000) => e.command({ do: "open", template: "" }, atMs),
    result: (outcome: string, atMs = 3_000) => e.command({ do: "result", outcome }, atMs),
    /** All parts of what is paid, taken back or given back. */
    settle: (atMs = 4_000): number => {
      let parts = 0;
      for (; e.due() === 0; parts += 1) e.timer(atMs);
      return parts;
    },
  };
}
