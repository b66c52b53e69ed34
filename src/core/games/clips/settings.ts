import { z } from "zod";
import { roleSchema } from "../../signals/signal";
import { roles } from "../../signals/names";
import { flashesSchema, flashingSchema, stripSchema } from "../../props/video";

const word = z.string().trim().min(1, "A word is missing.").max(30).regex(/^\S+$/u, "A chat word has no spaces.");
const colour = z.string().regex(/^#[0-9a-f]{6}$/i);
export const sizes = { small: { width: 854, height: 480 }, large: { width: 1_280, height: 720 } } as const;
export const mostClipMs = 60_000;

export const clipsSettingsSchema = z.object({
  schema: z.literal(1),
  word,
  roles: z.array(roleSchema).min(1, "Somebody must be allowed.").max(roles.length),
  /** Points for each second, 0 for no clips by points; a least payment. */
  points: z.object({ perSecond: z.int().min(0).max(1_000_000), least: z.int().min(0).max(100_000_000) }),
  /** The same with money, in minor units of the home currency, where a tip's text names a clip. */
  tips: z.object({ perSecond: z.int().min(0).max(1_000_000), least: z.int().min(0).max(100_000_000) }),
  /** So long a clip is where nobody says how long, and at most. */
  usualMs: z.int().min(1_000).max(mostClipMs),
  mostMs: z.int().min(1_000).max(mostClipMs),
  /** Longest film that a clip may be taken from. */
  mostSourceMs: z.int().min(10_000).max(7_200_000),
  ownRestMs: z.int().min(0).max(3_600_000),
  mostWaiting: z.int().min(1).max(50),
  approve: z.boolean(),
  byThemselves: z.boolean(),
  shownAtOnce: z.boolean(),
  gapMs: z.int().min(0).max(60_000),
  size: z.enum(["small", "large"]),
  volume: z.int().min(0).max(100),
  flashes: z.enum(["refuse", "dim"]),
  black: z.enum(["refuse", "show"]),
  silent: z.enum(["refuse", "show"]),
  /** What is given back of a clip that is skipped once it has been seen. */
  skipped: z.enum(["all", "rest", "nothing"]),
  looks: z.object({
    curtain: colour,
    whole: z.boolean(),
    name: z.boolean(),
    left: z.boolean(),
    /** A line under it, with the sender's name in it. */
    line: z.string().trim().max(80),
  }),
});
export type ClipsSettings = z.infer<typeof clipsSettingsSchema>;
export const clipsDefaults: ClipsSettings = {
  schema: 1,
  word: "!clip",
  roles: ["viewer"],
  points: { perSecond: 50, least: 250 },
  tips: { perSecond: 20, least: 100 },
  usualMs: 10_000,
  mostMs: 30_000,
  mostSourceMs: 1_200_000,
  ownRestMs: 60_000,
  mostWaiting: 10,
  approve: true,
  byThemselves: true,
  shownAtOnce: true,
  gapMs: 3_000,
  size: "small",
  volume: 70,
  flashes: "refuse",
  black: "refuse",
  silent: "show",
  skipped: "all",
  looks: { curtain: "#a8352b", whole: false, name: true, left: true, line: "" },
};

/** What was paid for a clip; `perSecond` as it was then. Money is in minor units of the home currency. */
const paySchema = z.discriminatedUnion("by", [
  z.object({ by: z.literal("nothing") }),
  z.object({ by: z.literal("points"), amount: z.int(), perSecond: z.int(), key: z.string() }),
  z.object({ by: z.literal("money"), amount: z.int(), perSecond: z.int(), currency: z.string() }),
  z.object({ by: z.literal("sale"), sale: z.string() }),
]);
export type Pay = z.infer<typeof paySchema>;

/** What became of the film: as it is shown, and as it is judged. */
const ours = z.string().regex(/^(?:\/props\/[0-9a-f]{64})?$/);
export const clipFactsSchema = z.object({
  url: ours,
  poster: ours,
  strip: stripSchema.nullable(),
  ms: z.int().min(0),
  width: z.int().min(1),
  height: z.int().min(1),
  audible: z.boolean(),
  black: z.boolean(),
  flashes: flashesSchema,
  flashesAtMs: z.int().min(0),
  flashing: flashingSchema.default([]),
});
export type ClipFacts = z.infer<typeof clipFactsSchema>;

const clipSchema = z.object({
  n: z.int(),
  viewer: z.object({ id: z.string(), name: z.string() }).nullable(),
  /** Where it is from: an address, or the hash of a file that was sent; both empty for the channel's own. */
  address: z.string(),
  source: z.string(),
  title: z.string(),
  startMs: z.int(),
  ms: z.int(),
  pay: paySchema,
  askedMs: z.number(),
  /** Being made until then at the latest; waiting for somebody's yes; waiting its turn. */
  phase: z.enum(["making", "asks", "waits"]),
  lateMs: z.number(),
  facts: clipFactsSchema.nullable(),
  /** Hash of the whole file, by which it can be barred. */
  sha: z.string(),
});
export type Clip = z.infer<typeof clipSchema>;

const person = z.object({ id: z.string(), name: z.string() });
export const clipsDurableSchema = z.object({
  on: z.boolean(),
  held: z.boolean(),
  queue: z.array(clipSchema),
  now: z
    .object({
      clip: clipSchema,
      sinceMs: z.number(),
      untilMs: z.number(),
      shown: z.boolean(),
      /** Whether any page had it on its picture; how long it was not hidden, and since when it is not. */
      seen: z.boolean(),
      seenMs: z.number(),
      openMs: z.number().nullable(),
    })
    .nullable(),
  freeMs: z.number(),
  made: z.int(),
  /** The last ones that played, newest first: to be played again. */
  lately: z.array(clipSchema.extend({ atMs: z.number(), ended: z.enum(["played", "skipped"]) })),
  barred: z.object({ viewers: z.array(person), files: z.array(z.object({ sha: z.string(), title: z.string() })) }),
  /** Money that bought less than a second more, or more than may be bought at once: it counts for the next. */
  credits: z.array(person.extend({ minor: z.int() })),
  /** Money for what was not shown: it is to be given back by hand. */
  owed: z.array(
    z.object({
      id: z.int(),
      viewer: person.nullable(),
      minor: z.int(),
      currency: z.string(),
      why: z.string(),
      title: z.string(),
      atMs: z.number(),
    }),
  ),
});
export type ClipsDurable = z.infer<typeof clipsDurableSchema>;
export const freshClips = (): ClipsDurable => ({
  on: true,
  held: false,
  queue: [],
  now: null,
  freeMs: 0,
  made: 0,
  lately: [],
  barred: { viewers: [], files: [] },
  credits: [],
  owed: [],
});

export const clipsViewSchema = z.object({
  on: z.boolean(),
  now: z
    .object({
      n: z.number(),
      name: z.string(),
      line: z.string(),
      url: z.string(),
      poster: z.string(),
      ms: z.number(),
      /** When its first frame is due, by the engine's clock. */
      fromMs: z.number(),
      shown: z.boolean(),
      volume: z.number(),
      width: z.number(),
      height: z.number(),
      flashing: flashingSchema.default([]),
    })
    .nullable(),
  looks: clipsSettingsSchema.shape.looks,
});
export type ClipsView = z.infer<typeof clipsViewSchema>;
