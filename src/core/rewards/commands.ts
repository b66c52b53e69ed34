import { z } from "zod";
import type { CommandUnion } from "../module/union";

/** What the shop can be told to do with what was sold. */
export const rewardCommands = {
  /** A sale that waits, or was made: done, or its points given back. */
  sale: z.object({
    sale: z.string().max(40),
    what: z.enum(["done", "refund", "undone", "play"]),
    /** How it stood where it was decided: of two who decide at once, the first does, and the second is told. */
    seen: z.enum(["waiting", "done", "refunded"]).optional(),
  }),
  /** Bought on the platform and refused here: given after all, or settled there by hand. */
  unmet: z.object({ id: z.string().max(200), what: z.enum(["give", "settled"]) }),
  "refund-all": z.object({ reward: z.string().max(26) }),
  /** Points given out again after a refund that was a slip. */
  "sale-again": z.object({ sale: z.string().max(40) }),
};
export type RewardCommand = CommandUnion<typeof rewardCommands>;
