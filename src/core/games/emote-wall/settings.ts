import { z } from "zod";
import { roleSchema } from "../../signals/signal";
import { roles } from "../../signals/names";
import { motions, mostTrims } from "./limits";

export type Motion = (typeof motions)[number];

const roleList = z.array(roleSchema).min(1, "Someone must be allowed.").max(roles.length);

const share = z.number().min(0).max(1);

const day = z.string().regex(/^\d{4}-\d{2}-\d{2}$/, "A day is written 2026-12-24.");

/** Something that emotes wear: a picture over a part of each. Sizes and places are percent of the emote. */
export const trimSchema = z
  .object({
    id: z.string().min(1).max(26),
    picture: z.string().max(80),
    /** `told`: when a rule, a cue or an operator puts it on. */
    when: z.enum(["always", "dates", "told"]),
    /** The first and the last day it is worn, by UTC; told apart only when it goes by dates. */
    from: day,
    to: day,
    size: z.int().min(10).max(200),
    x: z.int().min(-100).max(100),
    y: z.int().min(-100).max(100),
  })
  .refine((t) => t.from <= t.to, { message: "Its last day is before its first.", path: ["to"] });

export type Trim = z.infer<typeof trimSchema>;

/**
 * Everything one sets about an emote wall. Sizes and places are shares of the placement, so that they
 * hold at every resolution; durations are milliseconds.
 */
export const wallSettingsSchema = z.object({
  schema: z.literal(2),
  roles: roleList,
  sources: z.object({ own: z.boolean(), marked: z.boolean(), emoji: z.boolean() }),
  eachOncePerMessage: z.boolean(),
  mostPerMessage: z.int().min(1).max(100),
  /** Whether an emote that needs no combo shows by itself. */
  singles: z.boolean(),
  combo: z.object({
    on: z.boolean(),
    needed: z.int().min(2).max(500),
    withinMs: z.int().min(1_000).max(300_000),
    counted: z.enum(["copies", "viewers"]),
    spawns: z.enum(["one", "all"]),
    /** Whose emotes need a combo; the others' are singles. */
    roles: roleList,
    /** Whether emoji need one too. */
    emoji: z.boolean(),
  }),
  perViewer: z.object({
    on: z.boolean(),
    most: z.int().min(1).max(1_000),
    withinMs: z.int().min(1_000).max(300_000),
  }),
  flock: z.object({
    count: z.int().min(1).max(2_000),
    overMs: z.int().min(0).max(60_000),
    from: z.enum(["most-used", "chosen"]),
    minutes: z.int().min(1).max(10),
    chosen: z.array(z.string().min(1).max(64)).max(50),
    motion: z.enum(motions),
  }),
  motion: z.enum(motions),
  lifeMs: z.int().min(500).max(120_000),
  /** Height of an emote as a share of the placement's height, and how far sizes spread around it. */
  sizeShare: z.number().min(0.02).max(0.6),
  sizeSpread: z.number().min(0).max(0.9),
  opacity: z.number().min(0.1).max(1),
  /** Where within the placement emotes move. */
  area: z
    .object({ x: share, y: share, width: z.number().min(0.05).max(1), height: z.number().min(0.05).max(1) })
    .refine((a) => a.x + a.width <= 1.0001 && a.y + a.height <= 1.0001, "The area reaches over the edge."),
  trims: z.array(trimSchema).max(mostTrims, `Emotes wear at most ${mostTrims} things.`),
  /** Emotes that pile up land on the other games' frames, too. */
  onFrames: z.boolean(),
  /** Most emotes alive at once; the oldest retire first, softly. */
  cap: z.int().min(10).max(2_000),
});

export type WallSettings = z.infer<typeof wallSettingsSchema>;

export const wallDefaults: WallSettings = {
  schema: 2,
  roles: ["viewer"],
  sources: { own: true, marked: true, emoji: true },
  eachOncePerMessage: false,
  mostPerMessage: 8,
  singles: true,
  combo: { on: false, needed: 3, withinMs: 10_000, counted: "copies", spawns: "one", roles: ["viewer"], emoji: true },
  perViewer: { on: true, most: 20, withinMs: 30_000 },
  flock: { count: 60, overMs: 2_000, from: "most-used", minutes: 5, chosen: [], motion: "spout" },
  motion: "drift",
  lifeMs: 6_000,
  sizeShare: 0.11,
  sizeSpread: 0.25,
  opacity: 1,
  area: { x: 0, y: 0, width: 1, height: 1 },
  trims: [],
  onFrames: false,
  cap: 400,
};

/** Version 1 had no trimmings, and nothing piled up. */
export const wallSettingsTo2 = (old: unknown): unknown =>
  typeof old === "object" && old !== null ? { ...old, schema: 2, trims: [], onFrames: false } : old;

export const wallDurableSchema = z.object({
  on: z.boolean(),
  /** What was put on by a rule or by hand: which, and until when; 0 for until it is taken off. */
  worn: z.array(z.object({ id: z.string(), untilMs: z.number() })).default([]),
});

export type WallDurable = z.infer<typeof wallDurableSchema>;

/**
 * What the overlay is told to do. Emote `i` of `count` shows `keys[i % keys.length]` and moves by the
 * seed and its place `i`, so two pages of one overlay look alike.
 */
export const wallEffectSchema = z.discriminatedUnion("do", [
  z.object({
    do: z.literal("spawn"),
    keys: z.array(z.string().max(80)).min(1).max(500),
    count: z.int().min(1).max(2_000),
    seed: z.int().min(0).max(0xffffffff),
    overMs: z.int().min(0).max(60_000),
    motion: z.enum(motions).nullable(),
    /** What they wear, by its id in the view. */
    trims: z.array(z.string().max(26)).max(mostTrims).default([]),
    /** The signal it came of, so that one message's emotes can be taken off again. */
    of: z.int().min(0).default(0),
  }),
  z.object({ do: z.literal("clear") }),
  z.object({ do: z.literal("remove"), of: z.int().min(0) }),
]);

export type WallEffect = z.infer<typeof wallEffectSchema>;

/** What an overlay page needs to draw the wall: looks, and nothing about who may or may not. */
export const wallViewSchema = z.object({
  on: z.boolean(),
  motion: z.enum(motions),
  lifeMs: z.number(),
  sizeShare: z.number(),
  sizeSpread: z.number(),
  opacity: z.number(),
  area: z.object({ x: share, y: share, width: share, height: share }),
  cap: z.number(),
  onFrames: z.boolean(),
  trims: z.array(z.object({ id: z.string(), picture: z.string(), size: z.number(), x: z.number(), y: z.number() })),
});

export type WallView = z.infer<typeof wallViewSchema>;
