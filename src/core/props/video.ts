import { z } from "zod";
import { cropSchema, wholeCrop } from "./crop";

export const mostVideoMs = 180_000;
export const leastVideoMs = 200;
/** How a moving picture with sound is made of its source. The source itself is never touched, so all of this can be taken back. */
export const videoSettingsSchema = z
  .object({
    startMs: z.int().min(0).max(3_600_000),
    /** 0: to its end, or as long as it may be. */
    endMs: z.int().min(0).max(3_600_000),
    crop: cropSchema,
    /** Percent, on top of the even level that all that sounds is brought to. */
    volume: z.int().min(0).max(100),
    muted: z.boolean(),
  })
  .refine((s) => s.endMs === 0 || s.endMs - s.startMs >= leastVideoMs, "The end comes before the start, or leaves nothing to see.");
export type VideoSettings = z.infer<typeof videoSettingsSchema>;
export const videoDefaults: VideoSettings = { startMs: 0, endMs: 0, crop: wholeCrop, volume: 80, muted: false };

/** What stands for it where nothing moves, pixels. */
export const posterOf = (video: Readonly<{ width: number; height: number }>) =>
  fitted(video.width, video.height, { width: posterSide, height: posterSide });
const posterSide = 640;

/** Stills of a whole source, evenly apart, in one picture, row by row. */
export const stripSchema = z.object({
  url: z.string().max(100),
  frames: z.int().min(1).max(60),
  columns: z.int().min(1).max(60),
  width: z.int().min(1).max(640),
  height: z.int().min(1).max(640),
});
export type Strip = z.infer<typeof stripSchema>;

export const flashesSchema = z.enum(["none", "general", "red"]);
export type Flashes = z.infer<typeof flashesSchema>;
/** The stretches in which it flashes, from and to, milliseconds from the start, in their order; too many become one. */
export const flashingSchema = z.array(z.tuple([z.int().min(0), z.int().min(0)])).max(40);
export type Flashing = z.infer<typeof flashingSchema>;
/** Stretches as they were found, joined where they touch. What was made before they were noted flashes from its first flash to its end. */
export const flashingOf = ({
  flashes,
  flashesAtMs,
  flashing,
  ms,
}: Pick<VideoFacts, "flashes" | "flashesAtMs" | "flashing" | "ms">): Flashing =>
  flashes === "none" ? [] : flashing.length > 0 ? flashing : [[flashesAtMs, ms]];
/** With another moment at which the second before it flashed too often. */
export function flashedAt(flashing: Flashing, atMs: number): Flashing {
  const fromMs = Math.max(0, Math.round(atMs - 1_000));
  const last = flashing.at(-1);
  const apart = last === undefined || (fromMs > last[1] + 500 && flashing.length < 40);
  return apart ? [...flashing, [fromMs, Math.round(atMs)]] : [...flashing.slice(0, -1), [last[0], Math.round(atMs)]];
}

export const videoFactsSchema = z.object({
  ms: z.int().min(0),
  sourceMs: z.int().min(0),
  width: z.int().min(1).max(4_096),
  height: z.int().min(1).max(4_096),
  sourceWidth: z.int().min(1).max(8_192),
  sourceHeight: z.int().min(1).max(8_192),
  /** Frames a second, as made. */
  rate: z.number().min(0).max(120),
  /** Whether one sees through it anywhere. */
  alpha: z.boolean(),
  /** Whether there is anything to hear. */
  audible: z.boolean(),
  /** Nothing but black from its begin to its end. */
  black: z.boolean(),
  lufs: z.number().nullable(),
  gainDb: z.number(),
  peaks: z.array(z.number()).max(400),
  /** More than three flashes in a second, by WCAG 2.3.1, and when they begin, milliseconds from the start. */
  flashes: flashesSchema,
  flashesAtMs: z.int().min(0),
  flashing: flashingSchema.default([]),
  /** The moving picture itself; the first of its frames that shows something; its sound alone, "" where there is none. */
  url: z.string().max(100),
  poster: z.string().max(100),
  sound: z.string().max(100),
  strip: stripSchema,
  /** One still of the source, as large as it is cut on. */
  still: z.string().max(100),
});
export type VideoFacts = z.infer<typeof videoFactsSchema>;

/** What a stretch of a source is, where it begins and ends, milliseconds. */
export function stretchOf({ startMs, endMs }: Pick<VideoSettings, "startMs" | "endMs">, sourceMs: number, mostMs = mostVideoMs) {
  const from = Math.max(0, Math.min(startMs, sourceMs - leastVideoMs));
  const to = Math.min(sourceMs, endMs === 0 ? sourceMs : Math.max(endMs, from + leastVideoMs), from + mostMs);
  return { from, to: Math.max(to, from) };
}

/** A size within `most` that keeps the shape, of even numbers as codecs want them. */
export function fitted(
  width: number,
  height: number,
  most: Readonly<{ width: number; height: number }>,
): { width: number; height: number } {
  const scale = Math.min(1, most.width / width, most.height / height);
  const even = (value: number): number => Math.max(2, 2 * Math.round((value * scale) / 2));
  return { width: even(width), height: even(height) };
}
