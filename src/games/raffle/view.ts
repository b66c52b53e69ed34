import { z } from "zod";
import { presentations } from "../../core/games/raffle/settings";

/** What of a draw an overlay page reads. */
const winnerSchema = z.object({
  index: z.number(),
  name: z.string(),
  prize: z.string(),
  state: z.enum(["drawn", "waits", "claimed", "passed"]),
  guess: z.number().nullable(),
  untilMs: z.number(),
});
export const viewSchema = z.object({
  on: z.boolean(),
  phase: z.enum(["", "open", "shaking", "locked", "cancelled"]),
  title: z.string(),
  subtitle: z.string(),
  by: z.enum(["tickets", "number"]),
  word: z.string(),
  price: z.number(),
  people: z.number(),
  tickets: z.number(),
  locksMs: z.number(),
  shaken: z.number(),
  shakers: z.number(),
  target: z.number().nullable(),
  looks: z.object({ present: z.enum(presentations), panel: z.boolean(), names: z.boolean(), tag: z.string(), wood: z.string() }),
  names: z.array(z.string()),
  winners: z.array(winnerSchema),
});
export type RaffleView = z.infer<typeof viewSchema>;
