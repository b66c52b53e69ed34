import { Set as Ids } from "immutable";
import { z } from "zod";
import { entrances, exits } from "../../alerts/alert";
import { roleSchema } from "../../signals/signal";
import { checkTemplate } from "../../words/template";

/** Whom a list of lines is for, the most special first: the first that applies and has a line answers. */
export const lists = ["fresh", "away", "moderator", "guest", "member", "everybody"] as const;
export type ListName = (typeof lists)[number];
/** What a line may name. */
export const lineVariables = ["viewer", "shows", "days", "channel"] as const;

const lineSchema = z
  .string()
  .trim()
  .min(1, "A line needs words.")
  .max(160)
  .superRefine((text, ctx) => {
    const checked = checkTemplate(text, lineVariables);
    if (checked.ok) return;
    ctx.addIssue({
      code: "custom",
      message:
        checked.refusal.code === "text/unknown-variable"
          ? `“${String(checked.refusal.facts["name"])}” is no variable here. There are: ${lineVariables.join(", ")}.`
          : `The line “${String(checked.refusal.facts["text"])}” has a brace too many or too few.`,
    });
  });
const linesSchema = z.array(lineSchema).max(60, "A list holds at most 60 lines.");
const prop = z.string().max(26);

export const greetingSettingsSchema = z.object({
  schema: z.literal(1),
  lines: z.object({
    fresh: linesSchema,
    away: linesSchema,
    moderator: linesSchema,
    guest: linesSchema,
    member: linesSchema,
    everybody: linesSchema,
  }),
  /** Who was away for so many days is welcomed back. */
  awayDays: z.int().min(1).max(3_650),
  streamer: z.boolean(),
  /** Chat is told the line too. */
  chat: z.boolean(),
  showMs: z.int().min(1_500).max(60_000),
  gapMs: z.int().min(0).max(60_000),
  mostWaiting: z.int().min(0).max(50),
  /** For so long after a raid those who come are greeted together; 0 for never. */
  raidMs: z.int().min(0).max(600_000),
  /** Names of those who are never greeted: bots, and who asked not to be. */
  ignored: z.array(z.string().trim().min(1).max(80)).max(300, "At most 300 names can be left out."),
  sound: prop,
  volume: z.int().min(0).max(100),
  looks: z.object({
    entrance: z.enum(entrances),
    exit: z.enum(exits),
    face: z.boolean(),
    times: z.boolean(),
  }),
});
export type GreetingSettings = z.infer<typeof greetingSettingsSchema>;

export const greetingDefaults: GreetingSettings = {
  schema: 1,
  lines: {
    fresh: ["is here for the first time. Welcome!", "came in for the first time. Have a look around."],
    away: ["is back after {days} days", "was missed for {days} days, and is here again"],
    moderator: [],
    guest: [],
    member: [],
    everybody: ["comes in", "is here", "pulls up a chair", "joins us"],
  },
  awayDays: 30,
  streamer: false,
  chat: false,
  showMs: 6_000,
  gapMs: 800,
  mostWaiting: 8,
  raidMs: 60_000,
  ignored: [],
  sound: "",
  volume: 60,
  looks: { entrance: "drop", exit: "fly", face: true, times: true },
};

export const mostEntrances = 200;
export const entranceSchema = z.object({
  id: z.string(),
  name: z.string(),
  line: z.string(),
  picture: z.string(),
  sound: z.string(),
  /** Kept only while they have it; null for good. */
  role: roleSchema.nullable(),
  by: z.string(),
});
export type Entrance = z.infer<typeof entranceSchema>;

export const cardSchema = z.object({
  /** The how-manieth card of this greeting; pages know by it which they show. */
  n: z.number(),
  kind: z.enum(["one", "together", "more"]),
  /** Of one: who it is. Of those who came with a raid: the raider. */
  name: z.string(),
  line: z.string(),
  picture: z.string(),
  sound: z.string(),
  shows: z.number(),
  /** Names of those who share it, as many as are shown; and how many they are. */
  names: z.array(z.string()).readonly(),
  count: z.number(),
});
export type Card = z.infer<typeof cardSchema>;

/** What is left of a list in its order: places in it; and which line was said last. */
const bagSchema = z.object({ of: z.number(), left: z.array(z.number()), last: z.number() });
export type Bag = z.infer<typeof bagSchema>;
export const greetingDurableSchema = z.object({
  on: z.boolean(),
  /** Who was greeted in the show that runs. Kept row by row, so it is not in what is stored. */
  greeted: z.preprocess(
    (ids) => (Ids.isSet(ids) ? ids : Ids(Array.isArray(ids) ? (ids as string[]) : [])),
    z.custom<Ids<string>>(Ids.isSet),
  ),
  since: z.object({ seq: z.number(), atMs: z.number() }).nullable(),
  /** In a rehearsal rows are kept nowhere. */
  rehearsal: z.boolean(),
  /** Whose next word is greeted again: of all who were, or of some. */
  forgot: z.object({ all: z.boolean(), ids: z.array(z.string()).max(200) }),
  now: z.object({ card: cardSchema, untilMs: z.number() }).nullable(),
  /** Nothing begins before. */
  freeMs: z.number(),
  waiting: z.array(cardSchema),
  /** Who came when no more could wait. */
  more: z.object({ names: z.array(z.string()), count: z.number() }).nullable(),
  raid: z.object({ name: z.string(), untilMs: z.number(), names: z.array(z.string()), count: z.number() }).nullable(),
  /** By its list. */
  bags: z.partialRecord(z.enum(lists), bagSchema),
  made: z.number(),
  entrances: z.array(entranceSchema),
});
export type GreetingDurable = z.infer<typeof greetingDurableSchema>;

export const freshGreeting = (): GreetingDurable => ({
  on: true,
  greeted: Ids(),
  since: null,
  rehearsal: false,
  forgot: { all: false, ids: [] },
  now: null,
  freeMs: 0,
  waiting: [],
  more: null,
  raid: null,
  bags: {},
  made: 0,
  entrances: [],
});

/** What an overlay page needs: the card that is there now, and how it looks. */
export const greetingViewSchema = z.object({
  on: z.boolean(),
  card: cardSchema.nullable(),
  looks: greetingSettingsSchema.shape.looks,
});
export type GreetingView = z.infer<typeof greetingViewSchema>;
