import { z } from "zod";
import { engines, offeredOf, timbres } from "./catalogue";

/** A voice that a channel keeps: one that an engine brings, as it is set there. */
export const voiceSchema = z
  .object({
    id: z.string().min(1).max(26),
    name: z.string().trim().min(1, "A voice needs a name.").max(40),
    engine: z.enum(engines),
    /** The engine's own mark of it. */
    mark: z.string().max(40),
    timbre: z.enum(timbres),
    /** 0 low to 100 high; words a minute; percent of the even level. */
    pitch: z.int().min(0).max(100),
    pace: z.int().min(80).max(300),
    level: z.int().min(10).max(100),
  })
  .refine((v) => offeredOf(v.engine, v.mark) !== null, "This voice is not among those that can be had.");
export type Voice = z.infer<typeof voiceSchema>;
