import { z } from "zod";
import { fold } from "../kernel/fold";
import { rateSchema } from "../signals/rate";
import { roleSchema } from "../signals/signal";
import { roles } from "../signals/names";

/** A channel's points: how they are called, earned and given (RULES section 10). */
export const earnKinds = ["follow", "membership", "gift", "tip", "reaction", "raid", "host"] as const;
export type EarnKind = (typeof earnKinds)[number];
const commandWord = z.string().trim().max(30).regex(/^\S*$/u, "A chat word has no spaces.");

export const pointsSchema = z
  .object({
    schema: z.literal(1),
    name: z.string().trim().min(1, "Points need a name.").max(30),
    presence: z.object({
      points: z.int().min(0).max(1_000_000),
      everyMin: z.int().min(1).max(240),
      /** Paid to those who wrote within so many minutes. */
      withinMin: z.int().min(1).max(240),
    }),
    signals: z.object({
      follow: rateSchema,
      membership: rateSchema,
      gift: rateSchema,
      tip: rateSchema,
      reaction: rateSchema,
      raid: rateSchema,
      host: rateSchema,
    }),
    /** What is earned, times this, in hundredths; the highest that applies. */
    times: z.array(z.object({ role: roleSchema, hundredths: z.int().min(0).max(100_00) })).max(roles.length),
    /** Most a viewer earns in a day of the channel's; 0 for no limit. */
    dailyMost: z.int().min(0).max(1_000_000_000),
    /** Minutes east of UTC at which the channel's day begins. */
    dayOffsetMin: z.int().min(-720).max(840),
    give: z.object({ on: z.boolean(), least: z.int().min(1).max(1_000_000_000), feeBp: z.int().min(0).max(5_000) }),
    /** Words with which viewers ask; empty for none. */
    words: z.object({ balance: commandWord, top: commandWord, give: commandWord }),
  })
  .superRefine((s, ctx) => {
    const given = Object.values(s.words).filter((w) => w !== "");
    if (new Set(given.map(fold)).size < given.length) ctx.addIssue({ code: "custom", message: "Two commands have the same word." });
  });
export type PointsSettings = z.infer<typeof pointsSchema>;

const rate = (give: number, per = 1) => ({ give, per });
export const pointsDefaults: PointsSettings = {
  schema: 1,
  name: "points",
  presence: { points: 10, everyMin: 10, withinMin: 15 },
  signals: {
    follow: rate(100),
    membership: rate(500),
    gift: rate(500),
    tip: rate(100, 100),
    reaction: rate(1),
    raid: rate(5),
    host: rate(2),
  },
  times: [
    { role: "member", hundredths: 150 },
    { role: "guest", hundredths: 150 },
  ],
  dailyMost: 0,
  dayOffsetMin: 0,
  give: { on: true, least: 10, feeBp: 0 },
  words: { balance: "!points", top: "!top", give: "!give" },
};
