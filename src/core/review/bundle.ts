import { z } from "zod";

/**
 * A whole show as one file: a ZIP of JSON and CSV with a manifest, which says what is in it. Whoever reads it needs nothing of
 * Izzam; the schema of the manifest is published under /schemas/izzam-show-1.json.
 */
export const showFormat = "izzam-show-1";
export const showFiles = {
  "log.ndjson": "Everything that was said and happened, oldest first, one JSON object a line",
  "numbers.json": "What mattered of the show at a glance",
  "moments.json": "Moments, found and one's own, with what was decided of them",
  "results.csv": "Rounds of games that ended in the show",
  "winners.csv": "Who won what in them",
  "aired.csv": "What was spoken, shown, presented and cued",
  "sales.csv": "What was bought, and what became of it",
  "people.csv": "Who wrote or gave, and how often",
} as const;
export type ShowFile = keyof typeof showFiles;

export const showManifestSchema = z.object({
  format: z.literal(showFormat),
  madeBy: z.string().max(120),
  channel: z.string().max(120),
  show: z.object({
    name: z.string().max(120),
    /** UTC, ISO 8601. */
    from: z.iso.datetime(),
    to: z.iso.datetime(),
    /** So many milliseconds of the recording come before the show. */
    recordingOffsetMs: z.number(),
  }),
  /** How points and money are called in it. */
  points: z.string().max(60),
  currency: z.string().max(3),
  /** Games that the log names by their ids. */
  games: z
    .array(z.object({ id: z.string().max(60), kind: z.string().max(40), name: z.string().max(120) }))
    .max(500)
    .default([]),
  files: z.array(z.object({ name: z.string().max(80), about: z.string().max(200), rows: z.int().min(0).nullable() })).max(40),
});
export type ShowManifest = z.infer<typeof showManifestSchema>;
export const showManifestJsonSchema = (): unknown => ({
  ...z.toJSONSchema(showManifestSchema, { io: "input" }),
  title: "A show of Izzam as a file",
  description: "manifest.json of a ZIP that holds a whole show.",
});
