import { z } from "zod";
import { moneyDefaults, moneySettingsSchema } from "../signals/money";
import { allTold } from "../games/words";
import { roleSchema } from "../signals/signal";
import { roles } from "../signals/names";
import { tierAtSchema, twiceTheSame } from "../signals/tiers";
import { checkTemplate } from "../words/template";
import { pendingSchema, variablesOf } from "./effects";
import { ruleEffectSchema, mostEffects } from "./effect";

/** What a rule can answer. `happened` is something that came to pass in a game; `timer` comes round by itself. */
export const whens = [
  "message",
  "follow",
  "membership",
  "gift",
  "tip",
  "reaction",
  "raid",
  "host",
  "arrival",
  "redemption",
  "purchase",
  "happened",
  "live",
  "ended",
  "timer",
] as const;
export type When = (typeof whens)[number];

const effects = z.array(ruleEffectSchema).max(mostEffects, `A rule does at most ${mostEffects} things.`);
export const tierSchema = tierAtSchema.extend({ effects });
export type Tier = z.infer<typeof tierSchema>;

export const ruleSchema = z
  .object({
    id: z.string().min(1).max(26),
    name: z.string().max(80),
    on: z.boolean(),
    when: z.enum(whens),
    /** For `happened`: which, by its name. */
    what: z.string().max(40),
    /** For `reaction`: which kind; empty for any. */
    reaction: z.string().max(40),
    everyMs: z.int().min(10_000).max(86_400_000),
    roles: z.array(roleSchema).min(1).max(roles.length),
    words: z.object({ how: z.enum(["any", "contains", "is"]), list: z.array(z.string().max(80)).max(30) }),
    /** Minutes of the show: from, and until; until 0 means to its end. `any` also counts off air. */
    time: z.object({ how: z.enum(["any", "show"]), fromMin: z.int().min(0).max(2_880), toMin: z.int().min(0).max(2_880) }),
    cooldownMs: z.int().min(0).max(3_600_000),
    tiers: z.array(tierSchema).min(1).max(20),
  })
  .superRefine((rule, ctx) => {
    const twice = twiceTheSame(rule.tiers);
    if (twice !== null)
      ctx.addIssue({ code: "custom", message: `Two tiers of “${rule.name}” are for the same amount; only one can answer.` });
    for (const tier of rule.tiers)
      for (const effect of tier.effects) {
        if (!("text" in effect)) continue;
        const checked = checkTemplate(effect.text, variablesOf[rule.when] ?? []);
        if (!checked.ok)
          ctx.addIssue({
            code: "custom",
            message:
              checked.refusal.code === "text/unknown-variable"
                ? `“${String(checked.refusal.facts["name"])}” is no variable here. There are: ${String(checked.refusal.facts["known"])}.`
                : `The text “${String(checked.refusal.facts["text"])}” has a brace too many or too few.`,
          });
      }
  });
export type Rule = z.infer<typeof ruleSchema>;

export const queueSchema = z.object({
  id: z.string().min(1).max(26),
  name: z.string().min(1).max(40),
  gapMs: z.int().min(0).max(60_000),
  mostWaiting: z.int().min(0).max(200),
});

/** The rulebook of a channel: its rules in order, its queues, its money, and the words it never shows. */
export const rulebookSchema = z
  .object({
    schema: z.literal(3),
    rules: z.array(ruleSchema).max(200, "A rulebook holds at most 200 rules."),
    queues: z.array(queueSchema).max(10),
    money: moneySettingsSchema,
    hiddenWords: z.array(z.string().max(60)).max(500),
  })
  .superRefine((book, ctx) => {
    if (new Set(book.rules.map((r) => r.id)).size < book.rules.length)
      ctx.addIssue({ code: "custom", message: "Two rules have the same mark." });
    if (new Set(book.money.rates.map((r) => r.currency)).size < book.money.rates.length)
      ctx.addIssue({ code: "custom", message: "A currency has two rates." });
  });
export type Rulebook = z.infer<typeof rulebookSchema>;

export const mainQueue = "main";
export const rulebookDefaults: Rulebook = {
  schema: 3,
  rules: [],
  queues: [{ id: mainQueue, name: "One after another", gapMs: 600, mostWaiting: 20 }],
  money: moneyDefaults,
  hiddenWords: [],
};

export const rulebookDurableSchema = z.object({
  showStartMs: z.number().nullable(),
  pending: z.array(pendingSchema),
  /** When each timer rule is due next. */
  timers: z.record(z.string(), z.number()),
});
export type RulebookDurable = z.infer<typeof rulebookDurableSchema>;

export const newRule = (id: string, when: When): Rule => ({
  id,
  name: "",
  on: true,
  when,
  what: when === "happened" ? (allTold()[0]?.what ?? "") : "",
  reaction: "",
  everyMs: 600_000,
  roles: ["viewer"],
  words: { how: "any", list: [] },
  time: { how: when === "timer" ? "show" : "any", fromMin: 0, toMin: 0 },
  cooldownMs: 0,
  tiers: [{ at: "least", amount: 0, effects: [] }],
});
