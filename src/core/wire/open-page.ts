import { z } from "zod";

/** All of what was sold, or its picture while its sound is yet to be heard, or the other way round. */
export const shownPartSchema = z.enum(["whole", "picture", "sound"]);
export type ShownPart = z.infer<typeof shownPartSchema>;
/** `silent`: it was played, and nothing came out. */
export const toneCameSchema = z.enum(["heard", "silent", "blocked"]);
export type ToneCame = z.infer<typeof toneCameSchema>;

/** A page that has an overlay open, as operators see it: nothing of its secret. */
export const openPageSchema = z.object({
  id: z.string(),
  overlay: z.string(),
  width: z.number(),
  height: z.number(),
  hidden: z.boolean(),
  framesPerSecond: z.number(),
  /** Frames that came too late since the page was opened. */
  late: z.number(),
  live: z.number(),
  lowered: z.number().default(0),
  dimmed: z.boolean().default(false),
  sinceMs: z.number(),
  sound: z.enum(["ready", "blocked"]),
  /** Whether it says that it makes the channel's sound. */
  voice: z.boolean(),
  /** Whether it was told to make it. */
  asked: z.boolean().default(false),
});
export type OpenPage = z.infer<typeof openPageSchema>;
