import { z } from "zod";

/**
 * An alert: a picture, a sound, a text, together, for a while. It carries its own length and is played
 * once or, if a page was away, dropped, never late. Places and sizes are shares of the overlay.
 */
const share = z.number().min(0).max(1);
export const entrances = ["spring", "slide", "fade", "drop", "rise", "turn"] as const;
export const exits = ["shrink", "sink", "fly", "fade"] as const;
export const alertLookSchema = z.object({
  x: share,
  y: share,
  /** Height of the picture as a share of the overlay's height. */
  size: z.number().min(0.03).max(1),
  entrance: z.enum(entrances),
  exit: z.enum(exits).default("shrink"),
  /** Over all of the picture, as large as it fits; place and size count for nothing then. */
  whole: z.boolean().optional(),
});
export type AlertLook = z.infer<typeof alertLookSchema>;
export const alertLookDefaults: AlertLook = { x: 0.5, y: 0.35, size: 0.3, entrance: "spring", exit: "shrink" };

export const alertSchema = z.object({
  id: z.string().max(120),
  /** Key of a sprite, `prop:<id>`; empty for none. */
  picture: z.string().max(80),
  /** Id of a sound; empty for none. */
  sound: z.string().max(80),
  volume: share,
  text: z.string().max(400),
  ms: z.int().min(200).max(600_000),
  look: alertLookSchema,
  /** What is spoken: where it is to be had, who says it, and the words, for captions. */
  speech: z.object({ url: z.string().max(200), name: z.string().max(80), text: z.string().max(600) }).optional(),
  /** The sale it was bought with: the page that shows or speaks it says so, and only then is it delivered. */
  sale: z.string().max(40).optional(),
});
export type Alert = z.infer<typeof alertSchema>;
/** Whether there is something to see of it, something to hear of it. */
export const isSeen = ({ picture, text }: Alert): boolean => picture !== "" || text !== "";
export const isHeard = ({ sound, speech }: Alert): boolean => sound !== "" || speech !== undefined;

/** As long as set, or until its sound ends, whichever is longer (RULES section 9). */
export const lengthOf = (setMs: number, soundMs: number): number => Math.max(200, setMs, soundMs);
