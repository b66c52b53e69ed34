import { z } from "zod";

/** What of a prediction an overlay page reads. */
const outcomeSchema = z.object({
  label: z.string(),
  stakes: z.number(),
  people: z.number(),
  share: z.number(),
  odds: z.string().default(""),
  top: z.array(z.string()).default([]),
});
export const viewSchema = z.object({
  on: z.boolean(),
  phase: z.enum(["", "open", "locked", "paying", "done", "reversing", "returning", "cancelled"]),
  title: z.string(),
  stakes: z.boolean(),
  outcomes: z.array(outcomeSchema),
  pot: z.number(),
  people: z.number(),
  locksMs: z.number(),
  openedMs: z.number(),
  endedMs: z.number(),
  result: z.number().nullable(),
  paid: z.object({ winners: z.number(), pot: z.number(), fee: z.number(), returned: z.boolean() }).nullable(),
  word: z.string(),
  foreign: z
    .object({
      title: z.string(),
      state: z.enum(["open", "locked", "done", "cancelled"]),
      outcomes: z.array(outcomeSchema),
      result: z.number().nullable(),
      locksMs: z.number(),
      endedMs: z.number(),
    })
    .nullable(),
  next: z.object({ title: z.string(), outcomes: z.array(z.string()) }),
  looks: z.object({ top: z.boolean(), glass: z.string(), fills: z.array(z.string()) }),
});
export type PredictionView = z.infer<typeof viewSchema>;

export type Jar = Readonly<{ label: string; share: number; under: string; top: readonly string[] }>;
/** One prediction as it is drawn: the channel's own, or the platform's while none of ours runs. */
export type Shown = Readonly<{
  title: string;
  line: string;
  jars: readonly Jar[];
  result: number | null;
  /** Until when it is open, and since when; 0 where it is not. */
  locksMs: number;
  openedMs: number;
  /** Something is under way. */
  live: boolean;
  over: "" | "result" | "cancelled";
  key: string;
}>;
