import { Map as Entries } from "immutable";
import { z } from "zod";
import { roleSchema } from "../../signals/signal";
import { roles } from "../../signals/names";

export const mostOutcomes = 12;

export const mostStake = 1_000_000_000_000;

export const mostBackers = 200_000;

const label = z.string().trim().min(1, "An outcome needs a name.").max(40);

export const outcomesSchema = z.array(label).min(2, "There are at least two outcomes.").max(mostOutcomes);

export const titleSchema = z.string().trim().min(1, "A prediction needs a question.").max(80);

const openMs = z
  .int()
  .min(10_000)
  .max(24 * 3_600_000);

const templateSchema = z.object({ id: z.string().min(1).max(26), title: titleSchema, outcomes: outcomesSchema, openMs });

export type Template = z.infer<typeof templateSchema>;

const colour = z.string().regex(/^#[0-9A-Fa-f]{6}$/);

/** A prediction: what may come, what is staked on it, how it is decided (RULES section 8). */
export const predictionSettingsSchema = z
  .object({
    schema: z.literal(1),
    title: titleSchema,
    outcomes: outcomesSchema,
    word: z.string().trim().min(1, "A prediction needs a chat word.").max(30).regex(/^\S*$/u, "A chat word has no spaces."),
    /** Points are staked; else it is a poll, and who is right again and again has a streak. */
    stakes: z.boolean(),
    openMs,
    least: z.int().min(1).max(mostStake),
    /** Most that one viewer may stake; 0 for no such bound. */
    most: z.int().min(0).max(mostStake),
    /** What the channel keeps of the pot. */
    feePercent: z.int().min(0).max(50),
    roles: z.array(roleSchema).min(1, "Someone must be allowed.").max(roles.length),
    /** Who runs the channel may not take part. */
    barOwn: z.boolean(),
    /** So long after the lock the result is asked for. */
    dueMs: z
      .int()
      .min(30_000)
      .max(24 * 3_600_000),
    answers: z.enum(["all", "refusals", "nothing"]),
    templates: z.array(templateSchema).max(60),
    looks: z.object({
      /** Who staked most on each, under its jar. */
      top: z.boolean(),
      glass: colour,
      fills: z.array(colour).min(2).max(mostOutcomes),
    }),
  })
  .refine((s) => s.most === 0 || s.most >= s.least, { message: "The most is below the least.", path: ["most"] });

export type PredictionSettings = z.infer<typeof predictionSettingsSchema>;

export const predictionDefaults: PredictionSettings = {
  schema: 1,
  title: "Will it survive the firing?",
  outcomes: ["It survives", "It cracks"],
  word: "!back",
  stakes: true,
  openMs: 120_000,
  least: 10,
  most: 0,
  feePercent: 0,
  roles: ["viewer"],
  barOwn: true,
  dueMs: 1_200_000,
  answers: "refusals",
  templates: [],
  looks: {
    top: true,
    glass: "#F2EADA",
    // Told apart by letter and pattern first; these are glazes, and any may be chosen.
    fills: [
      "#B7C9A8",
      "#B23A2B",
      "#2F4F7A",
      "#D9B65A",
      "#6A5B4B",
      "#3F7A74",
      "#9A4F2C",
      "#F0E2C4",
      "#7A4A5A",
      "#5E7F95",
      "#A98E4E",
      "#C98B6B",
    ],
  },
};

/** Somebody who backs an outcome. `order`: the place of their first stake among all, which settles ties. */
export type Stake = Readonly<{ id: string; name: string; outcome: number; stake: number; order: number }>;

/** Keys are ids from outside behind a letter of our own: whatever somebody is called, it is an ordinary key. */
export type Stakes = Entries<`v:${string}`, Stake>;

export const keyOf = (viewer: string): `v:${string}` => `v:${viewer}`;

/** How often in a row somebody was right. */
export type Streaks = Entries<`v:${string}`, number>;

const mapOf = <V>() =>
  z.preprocess(
    (v) => (Entries.isMap(v) ? v : Entries((v ?? {}) as Record<string, V>)),
    z.custom<Entries<`v:${string}`, V>>((v) => Entries.isMap(v)),
  );

const since = z.object({ seq: z.int(), atMs: z.number() });

const roundSchema = z.object({
  n: z.int().min(1),
  id: z.string().max(80),
  /** `paying` and `reversing` go through backers part by part; `returning` gives everybody their own back. */
  phase: z.enum(["open", "locked", "paying", "done", "reversing", "returning", "cancelled"]),
  rehearsal: z.boolean(),
  title: titleSchema,
  outcomes: outcomesSchema,
  stakes: z.boolean(),
  least: z.int(),
  most: z.int(),
  feeBp: z.int(),
  openedMs: z.number(),
  locksMs: z.number(),
  lockedMs: z.number().nullable(),
  dueMs: z.number(),
  /** The result is late: somebody is asked for it. */
  late: z.boolean(),
  since,
  /** Backed so far: for each outcome its points and its people. */
  totals: z.array(z.object({ stakes: z.int(), people: z.int() })),
  /** How many backed it so far, in their order. */
  people: z.int(),
  result: z.int().nullable(),
  by: z.string(),
  /** How many backers were gone through in the part that runs. */
  through: z.int(),
  /** How often a result was told: keys of its entries stay unique. */
  times: z.int(),
  endedMs: z.number(),
  /** What came of it, in words for who looks later. */
  paid: z.object({ winners: z.int(), pot: z.int(), fee: z.int(), returned: z.boolean() }).nullable(),
});

export type Round = z.infer<typeof roundSchema>;

/** A prediction of the platform's own, as the platform tells it: shown the same way, and moved by nobody here. */
const foreignSchema = z.object({
  id: z.string(),
  title: z.string(),
  state: z.enum(["open", "locked", "done", "cancelled"]),
  outcomes: z.array(z.object({ label: z.string(), stakes: z.number(), people: z.number() })),
  result: z.int().nullable(),
  locksMs: z.number(),
  endedMs: z.number(),
});

export type Foreign = z.infer<typeof foreignSchema>;

export const predictionDurableSchema = z.object({
  on: z.boolean(),
  n: z.int().min(0),
  round: roundSchema.nullable(),
  backers: mapOf<Stake>(),
  streaks: mapOf<number>(),
  /** Where the newest list of streaks stands among the rows. */
  streaksSince: since.nullable(),
  foreign: foreignSchema.nullable(),
  results: z.array(
    z.object({
      n: z.int(),
      round: z.string(),
      title: z.string(),
      label: z.string(),
      atMs: z.number(),
      people: z.int(),
      pot: z.int(),
      rehearsal: z.boolean(),
    }),
  ),
});

export type PredictionDurable = z.infer<typeof predictionDurableSchema>;

export const freshPrediction = (): PredictionDurable => ({
  on: true,
  n: 0,
  round: null,
  backers: Entries(),
  streaks: Entries(),
  streaksSince: null,
  foreign: null,
  results: [],
});
