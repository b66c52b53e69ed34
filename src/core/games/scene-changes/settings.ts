import { z } from "zod";

/** What a scene change may answer by itself; whatever else happens answers by a rule. */
export const answeredKinds = ["follow", "membership", "gift", "tip", "reaction", "raid", "host", "live", "ended"] as const;
export type AnsweredKind = (typeof answeredKinds)[number];
/** Kinds whose signals amount to something. */
export const countedKinds = ["membership", "gift", "tip", "reaction", "raid", "host"] as const;

export const sceneName = z.string().trim().max(80);
const holdMs = z.int().min(0).max(3_600_000);
const answerSchema = z.object({
  on: z.boolean(),
  /** From this amount on; a tip's in the home currency's smallest unit. */
  least: z.int().min(0).max(1_000_000_000),
  /** By the name that the studio gives it; empty for none yet. */
  scene: sceneName,
  /** So long, then back; 0 to stay. */
  holdMs,
  /** Only while the studio is in one of these; none for always. */
  onlyIn: z.array(sceneName).max(20),
});
export type SceneAnswer = z.infer<typeof answerSchema>;

export const meanwhiles = ["extend", "wait", "drop"] as const;
export const studioSettingsSchema = z.object({
  schema: z.literal(1),
  answers: z.object({
    follow: answerSchema,
    membership: answerSchema,
    gift: answerSchema,
    tip: answerSchema,
    reaction: answerSchema,
    raid: answerSchema,
    host: answerSchema,
    live: answerSchema,
    ended: answerSchema,
  }),
  /** What becomes of another one while one holds. */
  meanwhile: z.enum(meanwhiles),
  mostWaiting: z.int().min(0).max(20),
});
export type StudioSettings = z.infer<typeof studioSettingsSchema>;
const never: SceneAnswer = { on: false, least: 0, scene: "", holdMs: 15_000, onlyIn: [] };
export const studioDefaults: StudioSettings = {
  schema: 1,
  answers: {
    follow: never,
    membership: never,
    gift: never,
    tip: { ...never, least: 1_000 },
    reaction: never,
    raid: { ...never, least: 5, holdMs: 30_000 },
    host: never,
    live: { ...never, holdMs: 0 },
    ended: { ...never, holdMs: 0 },
  },
  meanwhile: "extend",
  mostWaiting: 5,
};

const goingSchema = z.object({
  scene: z.string(),
  holdMs: z.number(),
  by: z.string(),
  /** Only from these scenes; none for every scene. It is judged when its turn comes. */
  onlyIn: z.array(z.string()).default([]),
});
export type Going = z.infer<typeof goingSchema>;
export const studioDurableSchema = z.object({
  on: z.boolean(),
  /** What the studio told of itself last. */
  studio: z.object({ connected: z.boolean(), name: z.string(), scenes: z.array(z.string()), current: z.string().nullable() }),
  /** What it was asked for and has not answered; `back`: from where, for the way back. */
  asked: goingSchema.extend({ n: z.number(), back: z.string().nullable(), returns: z.boolean(), untilMs: z.number() }).nullable(),
  /** A scene that holds, until when, and where it goes back to. */
  hold: goingSchema.extend({ back: z.string(), untilMs: z.number() }).nullable(),
  waiting: z.array(goingSchema),
  made: z.number(),
  /** What the studio would not do last, for who pressed a button. */
  trouble: z.object({ scene: z.string(), why: z.string() }).nullable(),
});
export type StudioDurable = z.infer<typeof studioDurableSchema>;
export const freshStudio = (): StudioDurable => ({
  on: true,
  studio: { connected: false, name: "", scenes: [], current: null },
  asked: null,
  hold: null,
  waiting: [],
  trouble: null,
  made: 0,
});

export const studioViewSchema = z.object({
  on: z.boolean(),
  connected: z.boolean(),
  scenes: z.array(z.string()),
  current: z.string().nullable(),
  hold: z.object({ scene: z.string(), back: z.string(), n: z.number() }).nullable(),
});
export type StudioView = z.infer<typeof studioViewSchema>;
