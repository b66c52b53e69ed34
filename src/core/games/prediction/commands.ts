import { z } from "zod";
import { outcomesSchema, titleSchema } from "./settings";

export const predictionCommands = {
  /** From nothing, as it is typed in the booth. */
  ask: z.object({ title: titleSchema, outcomes: outcomesSchema, openMs: z.int().min(10_000).max(86_400_000) }),
  /** The result is not known yet: it is asked for once more. */
  later: z.object({}),
  /** By a viewer, on the viewer page. */
  back: z.object({ outcome: z.string().max(60).default(""), amount: z.string().max(20).default("") }),
};
