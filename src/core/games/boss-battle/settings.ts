import { z } from "zod";
import { colourSchema } from "../../kernel/colour";
import { rateSchema, remaindersSchema } from "../../signals/rate";

/** What can hit a boss by itself; rules and operators can add to it. */
export const hitKinds = ["follow", "membership", "gift", "tip", "reaction", "raid", "host", "message"] as const;
export type HitKind = (typeof hitKinds)[number];

/** The vessel-creatures that ship with Izzam. */
export const creatures = ["jug", "bottle", "bowl", "teapot", "urn"] as const;
export type Creature = (typeof creatures)[number];

const healthMost = 1_000_000_000_000;
/** `most`: what one signal does at most; 0 for no such limit. */
const hitSchema = z.object({ rate: rateSchema, most: z.int().min(0).max(healthMost) });
const colour = colourSchema;

export const bossSettingsSchema = z.object({
  schema: z.literal(1),
  health: z.int().min(1).max(healthMost),
  hits: z.object({
    follow: hitSchema,
    membership: hitSchema.extend({ by: z.enum(["each", "months"]) }),
    gift: hitSchema,
    tip: hitSchema,
    reaction: hitSchema,
    raid: hitSchema,
    host: hitSchema,
    message: hitSchema,
  }),
  champion: z.object({ own: z.enum(["heal", "nothing", "hurt"]), healing: z.enum(["full", "endless"]) }),
  growth: z
    .object({
      how: z.enum(["none", "step", "percent", "matched"]),
      step: z.int().min(0).max(healthMost),
      percent: z.int().min(0).max(1_000),
      /** 0 for none. */
      ceiling: z.int().min(0).max(healthMost),
      lookBackMin: z.int().min(1).max(60),
      lastMin: z.int().min(1).max(240),
      least: z.int().min(1).max(healthMost),
      most: z.int().min(1).max(healthMost),
    })
    .refine((g) => g.least <= g.most, "The least health must not be more than the most."),
  carry: z.enum(["nothing", "leftover", "whole", "strikes"]),
  next: z.enum(["striker", "roster", "same"]),
  roster: z
    .array(
      z.object({
        id: z.string().min(1).max(26),
        name: z.string().trim().min(1, "A boss needs a name.").max(40),
        figure: z.string().max(80),
      }),
    )
    .min(1, "The roster needs at least one boss.")
    .max(20),
  looks: z.object({
    show: z.enum(["always", "after-hit"]),
    showMs: z.int().min(1_000).max(120_000),
    figure: z.boolean(),
    mirrored: z.boolean(),
    name: z.boolean(),
    band: z.boolean(),
    numbers: z.boolean(),
    lastHit: z.boolean(),
    call: z.string().max(80),
    glaze: colour,
    clay: colour,
    text: colour,
    /** How hard it recoils, in percent of the usual. */
    weight: z.int().min(0).max(200),
  }),
});
export type BossSettings = z.infer<typeof bossSettingsSchema>;

const hit = (give: number, per = 1): { rate: { give: number; per: number }; most: number } => ({ rate: { give, per }, most: 0 });
export const bossDefaults: BossSettings = {
  schema: 1,
  health: 1_000,
  hits: {
    follow: hit(10),
    membership: { ...hit(100), by: "each" },
    gift: hit(100),
    tip: hit(20, 100),
    reaction: hit(1),
    raid: hit(2),
    host: hit(1),
    message: hit(0),
  },
  champion: { own: "heal", healing: "full" },
  growth: { how: "none", step: 100, percent: 10, ceiling: 0, lookBackMin: 10, lastMin: 15, least: 200, most: 20_000 },
  carry: "nothing",
  next: "striker",
  roster: [{ id: "first", name: "Old Spall", figure: "jug" }],
  looks: {
    show: "always",
    showMs: 12_000,
    figure: true,
    mirrored: false,
    name: true,
    band: true,
    numbers: true,
    lastHit: true,
    call: "",
    glaze: "#3F7F7A",
    clay: "#C7754A",
    text: "#FBF8F2",
    weight: 100,
  },
};

const bossSchema = z.object({ name: z.string(), viewerId: z.string().nullable(), figure: z.string() });
export type Boss = z.infer<typeof bossSchema>;
export const bossDurableSchema = z.object({
  on: z.boolean(),
  health: z.number(),
  max: z.number(),
  boss: bossSchema,
  sinceMs: z.number(),
  rosterAt: z.number(),
  falls: z.number(),
  /** Null once it led to a fall, or was undone. */
  lastHit: z
    .object({
      name: z.string(),
      viewerId: z.string().nullable(),
      amount: z.number(),
      kind: z.string(),
      atMs: z.number(),
      seq: z.number().default(0),
    })
    .nullable(),
  showStartMs: z.number().nullable(),
  /** What rounding left over, by viewer and blank, until the show ends. */
  kept: remaindersSchema,
  /** Damage by minute, newest last, as far back as growth may look. */
  minutes: z.array(z.tuple([z.number(), z.number()])),
});
export type BossDurable = z.infer<typeof bossDurableSchema>;

const part = { seed: z.number(), health: z.number(), max: z.number() };
export const bossEffectSchema = z.discriminatedUnion("do", [
  z.object({ do: z.literal("hit"), amount: z.number(), kind: z.string(), name: z.string(), ...part }),
  z.object({ do: z.literal("heal"), amount: z.number(), name: z.string(), ...part }),
  z.object({
    do: z.literal("fall"),
    amount: z.number(),
    kind: z.string(),
    name: z.string(),
    fallen: bossSchema,
    next: bossSchema,
    ...part,
  }),
  z.object({ do: z.literal("mend"), ...part }),
]);
export type BossEffect = z.infer<typeof bossEffectSchema>;

/** What an overlay page needs: the boss, its health, its last hit, its looks. Nobody's id. */
export const bossViewSchema = z.object({
  on: z.boolean(),
  name: z.string(),
  figure: z.string(),
  health: z.number(),
  max: z.number(),
  falls: z.number(),
  lastHit: z.object({ name: z.string(), amount: z.number(), kind: z.string() }).nullable(),
  looks: bossSettingsSchema.shape.looks,
});
export type BossView = z.infer<typeof bossViewSchema>;
