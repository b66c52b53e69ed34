import { z } from "zod";

/**
 * A figure that lives on the stage: what one draws for it, and what is kept of that. It comes as one ZIP file with its
 * pictures and a `figure.json`, whose shape is published as JSON Schema.
 */
export const figureFormat = "izzam-figure-1";
export const manifestName = "figure.json";

/** What a figure can be seen doing. `glum` and `merry` are ways to rest. */
export const figureStates = ["rest", "glum", "merry", "walk", "greet", "dance", "sleep", "eat", "startle", "cheer", "speak"] as const;
export type FigureState = (typeof figureStates)[number];

/** The parts of a drawing that are moved, each by its name; all but one of them may be missing. */
export const partNames = [
  "tail",
  "back",
  "leg-left",
  "leg-right",
  "body",
  "arm-left",
  "arm-right",
  "head",
  "ear-left",
  "ear-right",
  "eyes",
  "pupils",
  "lids",
  "mouth",
  "mouth-open",
] as const;
export type PartName = (typeof partNames)[number];

const fileName = z
  .string()
  .min(1)
  .max(120)
  .regex(/^[^\\/\p{Cc}]+\.(png|gif|webp|svg)$/iu, "A picture is named by a file beside the manifest: PNG, GIF, WebP or SVG.");
const framesSchema = z
  .object({
    picture: fileName,
    /** A sheet's grid; an animated picture brings its own frames. */
    columns: z.int().min(1).max(60).default(1),
    rows: z.int().min(1).max(60).default(1),
    frames: z.int().min(1).max(120).optional(),
    /** Milliseconds of one frame; 0 leaves an animation its own. */
    frameMs: z.int().min(0).max(5_000).default(0),
    loop: z.boolean().default(true),
  })
  .refine((f) => (f.frames ?? 1) <= f.columns * f.rows, "There are more frames than places in the grid.");
export type FramesOf = z.infer<typeof framesSchema>;
const head = {
  $schema: z.string().max(300).optional(),
  format: z.literal(figureFormat),
  name: z.string().trim().min(1, "A figure needs a name.").max(80),
  /** Which way it looks as it is drawn; it is turned round to walk the other way. */
  looks: z.enum(["left", "right"]).default("right"),
};
const share = z.number().min(-1).max(2);
/** Drawn frame by frame: a picture for each state, of which all but `rest` may be missing. */
const byFrames = z
  .object({ ...head, states: z.partialRecord(z.enum(figureStates), framesSchema) })
  .refine((m) => m.states.rest !== undefined, {
    message: "The state “rest” is missing: without it there is nothing to show.",
  });
/** One SVG whose groups bear the names of parts; each may say about which point it turns, in shares of the drawing. */
const byParts = z.object({
  ...head,
  drawing: fileName.refine((name) => /\.svg$/i.test(name), "A drawing in parts is an SVG file."),
  parts: z
    .partialRecord(z.enum(partNames), z.object({ turnsAt: z.tuple([share, share]).optional() }))
    .refine((parts) => Object.keys(parts).length > 0, "No part is named."),
});
export const figureManifestSchema = z.union([byFrames, byParts]);
export type FigureManifest = z.infer<typeof figureManifestSchema>;
/** JSON Schema (2020-12) of `figure.json`, as it is published. */
export const figureJsonSchema = (): object => ({
  title: "A figure for the overlay",
  ...z.toJSONSchema(figureManifestSchema, { io: "input" }),
});

/** Frames of one state in the one sheet that is made of all: which is the first, how many, how long each. */
const runSchema = z.object({ first: z.int().min(0), frames: z.int().min(1), frameMs: z.int().min(0), loop: z.boolean() });
export type Run = z.infer<typeof runSchema>;
/** Where a part lies in the sheet, and about which point of the drawing (0–1) it turns. */
const partSchema = z.object({ name: z.enum(partNames), cell: z.int().min(0), x: share, y: share });
/** What a page needs beside the sheet. A part that belongs to none of the names is `whole` and stays beneath. */
export const figureFactsSchema = z.object({
  looks: z.enum(["left", "right"]),
  states: z.partialRecord(z.enum(figureStates), runSchema),
  parts: z.array(partSchema).max(partNames.length),
  /** Cell of what belongs to no part; null where nothing does. */
  under: z.int().min(0).nullable(),
});
export type FigureFacts = z.infer<typeof figureFactsSchema>;

/** On what each part hangs: it moves with it. */
export const hangsOn: Readonly<Record<PartName, PartName | null>> = {
  tail: "body",
  back: "body",
  "leg-left": null,
  "leg-right": null,
  body: null,
  "arm-left": "body",
  "arm-right": "body",
  head: "body",
  "ear-left": "head",
  "ear-right": "head",
  eyes: "head",
  pupils: "eyes",
  lids: "head",
  mouth: "head",
  "mouth-open": "head",
};
/** What is shown where a state has no frames of its own. */
export const standsFor = (state: FigureState): FigureState => (state === "glum" || state === "merry" ? "rest" : state);
