import { z } from "zod";
import { roleSchema } from "../../signals/signal";
import { roles } from "../../signals/names";
import { fold } from "../../kernel/fold";
import { checkTemplate } from "../../words/template";

/** What a word, a rule or an operator may ask of it; what a figure has no picture for falls back to rest. */
export const askable = ["greet", "dance", "eat", "startle", "cheer", "speak", "sleep"] as const;
export type Askable = (typeof askable)[number];
/** Drawn for Izzam; anything else is a picture of the library, `prop:<id>`. */
export const figures = ["cat", "crab", "snail", "ember"] as const;
/** The glaze that becomes each best. */
export const figureGlaze: Readonly<Record<(typeof figures)[number], string>> = {
  cat: "#6B5A48",
  crab: "#B4552F",
  snail: "#3F7A74",
  ember: "#E0702A",
};
export const bubbleVariables = ["viewer", "text", "channel", "mood"] as const;

const bubbleSchema = z
  .string()
  .max(120)
  .superRefine((text, ctx) => {
    const checked = checkTemplate(text, bubbleVariables);
    if (!checked.ok) ctx.addIssue({ code: "custom", message: `This can’t be filled in. There are: ${bubbleVariables.join(", ")}.` });
  });
const word = z.string().trim().min(1, "A word is missing.").max(30).regex(/^\S+$/u, "A chat word has no spaces.");
const answerSchema = z.object({
  word,
  state: z.enum(askable),
  bubble: bubbleSchema,
  restMs: z.int().min(0).max(3_600_000),
  roles: z.array(roleSchema).min(1).max(roles.length),
});
export type Answer = z.infer<typeof answerSchema>;

export const companionSettingsSchema = z
  .object({
    schema: z.literal(1),
    name: z.string().trim().min(1, "It needs a name.").max(40),
    figure: z.string().min(1).max(80),
    /** Said to who writes for the first time in a show; empty for no word to them. */
    hello: z.array(bubbleSchema.min(1, "A line needs words.")).max(40),
    /** Names that it does not greet: bots, and who asked not to be. */
    ignored: z.array(z.string().trim().min(1).max(80)).max(300),
    answers: z.array(answerSchema).max(40, "There are at most 40 words."),
    /** What it cheers at, and what makes it jump. */
    cheers: z.object({ follow: z.boolean(), membership: z.boolean(), gift: z.boolean(), tip: z.boolean(), luck: z.boolean() }),
    startles: z.object({ raid: z.boolean(), blow: z.boolean() }),
    bubbleMs: z.int().min(1_000).max(30_000),
    /** It falls asleep after so many minutes without a word; 0 for never. */
    sleepMin: z.int().min(0).max(240),
    /** Mood lost in an hour of show, of a hundred; what food gives back. */
    moodPerHour: z.int().min(0).max(100),
    walks: z.boolean(),
    /** Whether it dances while a sound of some length plays. */
    dances: z.boolean(),
    looks: z.object({
      size: z.int().min(20).max(100),
      mirrored: z.boolean(),
      glaze: z.string().regex(/^#[0-9a-fA-F]{6}$/),
      name: z.boolean(),
    }),
  })
  .superRefine((s, ctx) => {
    const seen = new Set<string>();
    for (const { word: given } of s.answers) {
      if (seen.has(fold(given))) ctx.addIssue({ code: "custom", message: `Two answers have the same word, “${given}”.` });
      seen.add(fold(given));
    }
  });
export type CompanionSettings = z.infer<typeof companionSettingsSchema>;
export const companionDefaults: CompanionSettings = {
  schema: 1,
  name: "Grog",
  figure: "cat",
  hello: ["good evening, {viewer}", "oh, {viewer}!", "{viewer}, mind the clay"],
  ignored: [],
  answers: [
    { word: "!pet", state: "cheer", bubble: "", restMs: 15_000, roles: ["viewer"] },
    { word: "!dance", state: "dance", bubble: "", restMs: 60_000, roles: ["viewer"] },
  ],
  cheers: { follow: true, membership: true, gift: true, tip: true, luck: true },
  startles: { raid: true, blow: true },
  bubbleMs: 5_000,
  sleepMin: 10,
  moodPerHour: 12,
  walks: true,
  dances: true,
  looks: { size: 80, mirrored: false, glaze: figureGlaze.cat, name: false },
};

const doingSchema = z.object({
  /** The how-manieth thing it does; pages know by it which they show. */
  n: z.number(),
  state: z.enum(askable),
  bubble: z.string(),
  sinceMs: z.number(),
  untilMs: z.number(),
});
export type Doing = z.infer<typeof doingSchema>;
export const companionDurableSchema = z.object({
  on: z.boolean(),
  /** In thousandths of a hundred, as it was at a time; it falls from there while a show runs. */
  mood: z.object({ thousandths: z.int().min(0).max(100_000), atMs: z.number() }),
  showing: z.boolean(),
  asleep: z.boolean(),
  /** It dances until told otherwise: while a cue is on, say. */
  dancing: z.boolean(),
  /** From which it follows where it walks; another with each show. */
  seed: z.int().min(0),
  /** When it is looked whether anybody still writes; null off air, or where it never sleeps. */
  lookMs: z.number().nullable(),
  doing: doingSchema.nullable(),
  next: z.array(doingSchema.omit({ sinceMs: true, untilMs: true }).extend({ ms: z.number() })),
  /** Until when each word rests, by the word as it is compared: only those that still do. */
  rests: z.array(z.tuple([z.string(), z.number()])),
  lines: z.object({ of: z.number(), left: z.array(z.number()), last: z.number() }).nullable(),
  made: z.number(),
  fed: z.number(),
});
export type CompanionDurable = z.infer<typeof companionDurableSchema>;
export const fullMood = 100_000;
export const freshCompanion = (): CompanionDurable => ({
  on: true,
  mood: { thousandths: 70_000, atMs: 0 },
  showing: false,
  asleep: false,
  dancing: false,
  seed: 1,
  lookMs: null,
  doing: null,
  next: [],
  rests: [],
  lines: null,
  made: 0,
  fed: 0,
});

const hourMs = 3_600_000;
type Mood = Pick<CompanionDurable, "mood" | "showing">;
/** Mood now, in thousandths: it falls by so much of a hundred in an hour of show, and not below none. */
export function thousandthsAt({ mood, showing }: Mood, perHour: number, atMs: number): number {
  if (!showing) return mood.thousandths;
  const lost = Math.floor((Math.max(0, atMs - mood.atMs) * perHour * 1_000) / hourMs);
  return Math.max(0, mood.thousandths - lost);
}
/** The same in whole percent. */
export const moodAt = (at: Mood, perHour: number, atMs: number): number => Math.floor(thousandthsAt(at, perHour, atMs) / 1_000);
/** When it has next fallen by a whole percent, so that all who watch see it; null where it does not fall. */
export function moodFallsMs({ mood, showing }: Mood, perHour: number): number | null {
  if (!showing || perHour === 0 || mood.thousandths < 1_000) return null;
  return mood.atMs + Math.ceil((((mood.thousandths % 1_000) + 1) * hourMs) / (perHour * 1_000));
}
/** Below and from which mood it rests in another way. */
export const glumBelow = 30;
export const merryFrom = 75;

export const companionViewSchema = z.object({
  on: z.boolean(),
  name: z.string(),
  figure: z.string(),
  mood: z.number(),
  asleep: z.boolean(),
  dancing: z.boolean(),
  doing: doingSchema.pick({ n: true, state: true, bubble: true }).extend({ ms: z.number() }).nullable(),
  walks: z.boolean(),
  dances: z.boolean(),
  seed: z.number(),
  looks: companionSettingsSchema.shape.looks,
});
export type CompanionView = z.infer<typeof companionViewSchema>;
