import { z } from "zod";
import type { CommandUnion } from "../module/union";

const id = z.string().min(1).max(64);
const name = z.string().max(80);
/** What can be done to accounts by hand. */
export const pointsCommands = {
  /** Points set right, up or down, with the reason. */
  adjust: z.object({
    viewer: id,
    name,
    by: z.int().min(-1_000_000_000_000).max(1_000_000_000_000),
    why: z.string().trim().min(1, "Say why: it stands in the viewer’s history.").max(120),
  }),
  /** Points that come with viewers from elsewhere; `key` keeps the same list from being taken twice. */
  "take-in": z.object({
    key: z.string().min(1).max(60),
    why: z.string().trim().min(1).max(120),
    viewers: z
      .array(z.object({ id, name: z.string().min(1).max(80), by: z.int().min(1).max(1_000_000_000_000) }))
      .min(1)
      .max(1_000),
  }),
  /** What was paid by a slip and was spent since: the next that they earn pays it back. */
  owe: z.object({
    why: z.string().max(120),
    viewers: z
      .array(z.object({ id, name, amount: z.int().min(1) }))
      .min(1)
      .max(1_000),
  }),
  /** All that one account has goes to another: somebody goes by a new name. */
  merge: z.object({ from: id, fromName: name, to: id, toName: name }),
};
export type PointsCommand = CommandUnion<typeof pointsCommands>;
