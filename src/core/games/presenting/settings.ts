import { z } from "zod";
import { entrances, exits } from "../../alerts/alert";
import { checkTemplate } from "../../words/template";

/** What a reply in chat may name. */
export const replyVariables = ["name", "page", "topic", "about", "channel"] as const;
const replySchema = z
  .string()
  .max(300)
  .superRefine((text, ctx) => {
    const checked = checkTemplate(text, replyVariables);
    if (!checked.ok) ctx.addIssue({ code: "custom", message: `This can’t be filled in. There are: ${replyVariables.join(", ")}.` });
  });

export const presentingSettingsSchema = z.object({
  schema: z.literal(1),
  showMs: z.int().min(3_000).max(120_000),
  gapMs: z.int().min(0).max(60_000),
  mostWaiting: z.int().min(0).max(20),
  /** So long the same person is not presented again, but by hand. */
  againMs: z.int().min(0).max(86_400_000),
  /** A raid of at least so many presents who brought it; 0 for never. */
  raidLeast: z.int().min(0).max(1_000_000),
  reply: replySchema,
  looks: z.object({
    entrance: z.enum(entrances),
    exit: z.enum(exits),
    face: z.boolean(),
    topic: z.boolean(),
    about: z.boolean(),
    page: z.boolean(),
    /** The page as a square that cameras read. */
    code: z.boolean(),
  }),
});
export type PresentingSettings = z.infer<typeof presentingSettingsSchema>;
export const presentingDefaults: PresentingSettings = {
  schema: 1,
  showMs: 10_000,
  gapMs: 1_000,
  mostWaiting: 5,
  againMs: 1_800_000,
  raidLeast: 5,
  reply: "Have a look at {name}: {page}",
  looks: { entrance: "rise", exit: "sink", face: true, topic: true, about: true, page: true, code: false },
};

const personSchema = z.object({ n: z.number(), name: z.string(), page: z.string(), topic: z.string(), about: z.string() });
export type Person = z.infer<typeof personSchema>;
const askedSchema = z.object({ name: z.string(), by: z.string(), atMs: z.number(), answer: z.boolean() });

export const presentingDurableSchema = z.object({
  on: z.boolean(),
  /** Whom the platform was asked for, and has not told of yet. */
  asked: z.array(askedSchema),
  now: z.object({ person: personSchema, untilMs: z.number() }).nullable(),
  freeMs: z.number(),
  waiting: z.array(personSchema),
  /** Who was presented lately, and when: newest last. */
  lately: z.array(z.tuple([z.string(), z.number()])),
  made: z.number(),
});
export type PresentingDurable = z.infer<typeof presentingDurableSchema>;
export const freshPresenting = (): PresentingDurable => ({ on: true, asked: [], now: null, freeMs: 0, waiting: [], lately: [], made: 0 });

export const presentingViewSchema = z.object({
  on: z.boolean(),
  person: personSchema.nullable(),
  looks: presentingSettingsSchema.shape.looks,
});
export type PresentingView = z.infer<typeof presentingViewSchema>;
