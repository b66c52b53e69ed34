import { z } from "zod";
import { cropSchema, wholeCrop } from "./crop";
import { figureFactsSchema } from "./figure";

/** How a prop is made of its source. The source file itself is never touched, so all of this can be taken back. */
export const pictureSettingsSchema = z.object({
  crop: cropSchema,
  /** A sprite sheet's grid: `frames` may be fewer than columns × rows. One by one: no sheet. */
  grid: z
    .object({ columns: z.int().min(1).max(60), rows: z.int().min(1).max(60), frames: z.int().min(1).max(300) })
    .refine((g) => g.frames <= g.columns * g.rows, "There are more frames than places in the grid."),
  /** Time per frame; 0 leaves an animation its own. */
  frameMs: z.int().min(0).max(5_000),
});
export type PictureSettings = z.infer<typeof pictureSettingsSchema>;
export const pictureDefaults: PictureSettings = {
  crop: wholeCrop,
  grid: { columns: 1, rows: 1, frames: 1 },
  frameMs: 0,
};

export const soundSettingsSchema = z
  .object({
    startMs: z.int().min(0).max(600_000),
    /** 0: to its end. */
    endMs: z.int().min(0).max(600_000),
    /** Percent, on top of the even level all sounds are brought to. */
    volume: z.int().min(0).max(100),
  })
  .refine((s) => s.endMs === 0 || s.endMs - s.startMs >= 50, "The end comes before the start, or leaves nothing to hear.");
export type SoundSettings = z.infer<typeof soundSettingsSchema>;
export const soundDefaults: SoundSettings = { startMs: 0, endMs: 0, volume: 80 };

export const pictureFactsSchema = z.object({
  frames: z.number(),
  columns: z.number(),
  frameWidth: z.number(),
  frameHeight: z.number(),
  frameMs: z.number(),
  sourceWidth: z.number(),
  sourceHeight: z.number(),
  /** What it is seen doing, when it is a figure. */
  figure: figureFactsSchema.optional(),
});
export const beatSchema = z.object({ everyMs: z.number(), firstMs: z.number() });
export const soundFactsSchema = z.object({
  ms: z.number(),
  sourceMs: z.number(),
  /** Loudness of the source in LUFS by EBU R128; null where it is too short or too quiet to tell. */
  lufs: z.number().nullable(),
  gainDb: z.number(),
  /** The whole source, as heights 0–100. */
  peaks: z.array(z.number()).max(400),
  /** Where its beats lie; null where there are none to be told, and in what was added before they were looked for. */
  beat: beatSchema.nullable().default(null),
});
export type SoundFacts = z.infer<typeof soundFactsSchema>;
export type PictureFacts = z.infer<typeof pictureFactsSchema>;

/** The gain that brings a sound to the even level, kept within what sounds natural. */
export const targetLufs = -18;
export function gainFor(lufs: number | null, peakDb: number): number {
  if (lufs === null) return Math.min(0, -1 - peakDb);
  const wanted = Math.max(-24, Math.min(24, targetLufs - lufs));
  return Math.round(wanted * 10) / 10;
}
