import { z } from "zod";

/** A sale that waits for somebody's yes, as operators see it. */
export const waitingSaleSchema = z.object({
  id: z.string(),
  atMs: z.number(),
  rewardId: z.string(),
  reward: z.string(),
  viewer: z.string(),
  price: z.number(),
  text: z.string(),
});
export type WaitingSale = z.infer<typeof waitingSaleSchema>;

/** How a rehearsal stands. */
export const rehearsalStandingSchema = z.object({
  id: z.string(),
  by: z.string(),
  state: z.enum(["runs", "paused", "jumps", "over"]),
  /** Its own time, and when it began in it. */
  nowMs: z.number(),
  fromMs: z.number(),
  pace: z.number(),
  /** The crowd it began with, in words, and who is there now: `first` for those. */
  crowd: z.string(),
  crowdIs: z.string(),
  chat: z.boolean(),
  overlays: z.boolean(),
  signals: z.number(),
  /** Why it is over, where nobody ended it. */
  why: z.object({ code: z.string(), facts: z.record(z.string(), z.unknown()) }).nullable(),
});
export type RehearsalStanding = z.infer<typeof rehearsalStandingSchema>;
