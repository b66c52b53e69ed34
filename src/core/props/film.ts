import { z } from "zod";

/** What is asked of whoever makes moving pictures: one stretch of a file, at an address or as it was sent. */
export const filmRequestSchema = z.object({
  address: z.string().max(2_000).nullable(),
  startMs: z.int().min(0).max(7_200_000),
  ms: z.int().min(500).max(120_000),
  width: z.int().min(16).max(1_920),
  height: z.int().min(16).max(1_080),
  mostSourceMs: z.int().min(1_000).max(7_200_000),
});
export type FilmRequest = z.infer<typeof filmRequestSchema>;
