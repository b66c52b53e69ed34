import { z } from "zod";
import { roleSchema } from "../../signals/signal";
import { roles } from "../../signals/names";
import { fold } from "../../kernel/fold";
import { voiceSchema } from "../../speech/voice";

export const mostVoices = 40;
const word = z.string().trim().min(1, "A word is missing.").max(30).regex(/^\S+$/u, "A chat word has no spaces.");
export const voicesSettingsSchema = z
  .object({
    schema: z.literal(1),
    every: z.boolean(),
    words: z.array(z.object({ word, voice: z.string().max(26) })).max(20, "There are at most 20 words."),
    /** A tip of at least so much in the home currency, in minor units, has its text spoken; 0 for none. */
    tipLeast: z.int().min(0).max(1_000_000_000),
    /** Texts that a game takes, as the address of a clip, are read all the same. */
    taken: z.boolean().default(false),
    how: z.enum(["spoken", "shown", "both"]),
    roles: z.array(roleSchema).min(1, "Somebody must be allowed.").max(roles.length),
    ownRestMs: z.int().min(0).max(3_600_000),
    sharedRestMs: z.int().min(0).max(3_600_000),
    mostLetters: z.int().min(5).max(500),
    tooLong: z.enum(["refused", "cut"]),
    mostWaiting: z.int().min(0).max(50),
    delayMs: z.int().min(0).max(60_000),
    gapMs: z.int().min(0).max(30_000),
    approve: z.boolean(),
    named: z.boolean(),
    links: z.enum(["word", "nothing"]),
    emotes: z.enum(["word", "once", "nothing"]),
    emoji: z.enum(["name", "nothing"]),
    voices: z.array(voiceSchema).min(1, "There must be a voice.").max(mostVoices, `There are at most ${mostVoices} voices.`),
    byRole: z.array(z.object({ role: roleSchema, voice: z.string().max(26) })).max(roles.length),
    /** How a viewer's name is said, where it is not said as it is written. */
    said: z.array(z.object({ name: z.string().trim().min(1).max(80), as: z.string().trim().min(1).max(80) })).max(200),
    volume: z.int().min(0).max(100),
    looks: z.object({ panel: z.boolean(), wave: z.boolean(), follow: z.boolean() }),
  })
  .superRefine((s, ctx) => {
    const twice = <T>(list: readonly T[], of: (one: T) => string): string | undefined =>
      list.map(of).find((key, i, all) => all.indexOf(key) !== i);
    if (twice(s.voices, (v) => v.id) !== undefined) ctx.addIssue({ code: "custom", message: "Two voices have the same mark." });
    const named = twice(s.voices, (v) => fold(v.name));
    if (named !== undefined) ctx.addIssue({ code: "custom", message: `Two voices have the same name, “${named}”.` });
    const same = twice(s.words, (w) => fold(w.word));
    if (same !== undefined) ctx.addIssue({ code: "custom", message: `Two words are the same, “${same}”.` });
  });
export type VoicesSettings = z.infer<typeof voicesSettingsSchema>;

export const voicesDefaults: VoicesSettings = {
  schema: 1,
  every: false,
  words: [{ word: "!say", voice: "" }],
  tipLeast: 500,
  taken: false,
  how: "both",
  roles: ["viewer"],
  ownRestMs: 30_000,
  sharedRestMs: 0,
  mostLetters: 200,
  tooLong: "cut",
  mostWaiting: 10,
  delayMs: 0,
  gapMs: 700,
  approve: false,
  named: true,
  links: "word",
  emotes: "once",
  emoji: "nothing",
  voices: [
    { id: "plain", name: "Plain", engine: "espeak", mark: "en", timbre: "", pitch: 50, pace: 160, level: 90 },
    { id: "bright", name: "Bright", engine: "espeak", mark: "en", timbre: "f3", pitch: 55, pace: 165, level: 90 },
    { id: "harbour", name: "Harbour", engine: "flite", mark: "awb", timbre: "", pitch: 50, pace: 160, level: 90 },
  ],
  byRole: [],
  said: [],
  volume: 80,
  looks: { panel: true, wave: true, follow: true },
};

const textSchema = z.object({
  n: z.number(),
  /** Whose words; null where it was an operator's or a rule's own. */
  viewer: z.object({ id: z.string(), name: z.string() }).nullable(),
  /** As it is shown, and as it is spoken; one of them may be empty. */
  shown: z.string(),
  spoken: z.string(),
  voice: z.string(),
  /** Not before. */
  fromMs: z.number(),
  /** Whether somebody has yet to say yes. */
  asks: z.boolean(),
});
export type Spoken = z.infer<typeof textSchema>;
export const voicesDurableSchema = z.object({
  on: z.boolean(),
  held: z.boolean(),
  /** While it is made, or said: until when, at the latest. */
  now: z.object({ text: textSchema, phase: z.enum(["making", "said"]), sinceMs: z.number(), untilMs: z.number() }).nullable(),
  freeMs: z.number(),
  waiting: z.array(textSchema),
  made: z.number(),
  /** Whose voice is which: given by hand, or bought. */
  own: z.array(z.object({ id: z.string(), name: z.string(), voice: z.string() })),
});
export type VoicesDurable = z.infer<typeof voicesDurableSchema>;
export const freshVoices = (): VoicesDurable => ({ on: true, held: false, now: null, freeMs: 0, waiting: [], made: 0, own: [] });

export const voicesViewSchema = z.object({
  on: z.boolean(),
  now: z.object({ n: z.number(), name: z.string(), text: z.string(), ms: z.number(), spoken: z.boolean() }).nullable(),
  looks: voicesSettingsSchema.shape.looks,
});
export type VoicesView = z.infer<typeof voicesViewSchema>;
