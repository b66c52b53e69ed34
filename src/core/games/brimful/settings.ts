import { z } from "zod";
import { colourSchema } from "../../kernel/colour";
import { mostEffects, ruleEffectSchema } from "../../rules/effect";
import { remaindersSchema } from "../../signals/rate";
import { tierAtSchema, twiceTheSame } from "../../signals/tiers";
import { checkTemplate } from "../../words/template";
import { type Point, outlineProblem, readOutline, shapes } from "./outline";
import { mostAtOnce } from "./limits";

/** What can drop something by itself; rules and operators can add to it. */
export const dropKinds = ["follow", "membership", "gift", "tip", "reaction", "raid", "host", "message"] as const;

export type DropKind = (typeof dropKinds)[number];

export const bodies = ["circle", "box", "capsule"] as const;

export const textVariables = ["viewer", "amount", "pieces", "percent"] as const;

/** `give` for every `per` of the signal's amount; whatever its amount where `per` is 0; `most` from one signal. */
const numberSchema = z.object({
  give: z.int().min(0).max(mostAtOnce),
  per: z.int().min(0).max(1_000_000_000),
  most: z.int().min(1).max(mostAtOnce),
});

export type HowMany = z.infer<typeof numberSchema>;

/** How a piece is made. Sizes are thousandths of the vessel's height. */
const pieceSchema = z.object({
  /** Keys of pictures, taken in turn; the game's own beads where there are none. */
  pictures: z.array(z.string().min(1).max(80)).max(12),
  /** 0 for the game's size. */
  size: z.int().min(0).max(900),
  mass: z.int().min(1).max(500),
  /** Percent of the height it falls from. */
  bounce: z.int().min(0).max(90),
  body: z.enum(bodies),
  /** Percent of the picture that is solid, from its middle. */
  solid: z.int().min(10).max(100),
  /** Percent of its height that it is wide; a circle is as wide as high. */
  wide: z.int().min(25).max(400),
});

export const tierSchema = tierAtSchema.extend({
  id: z.string().min(1).max(26),
  pieces: numberSchema,
  faces: numberSchema,
  /** The emotes of the message that came with it fall, where it has any. */
  emotes: z.boolean(),
  ...pieceSchema.shape,
});

export type DropTier = z.infer<typeof tierSchema>;

const tiersSchema = z
  .array(tierSchema)
  .max(20, "One kind of signal has at most 20 tiers.")
  .refine((tiers) => twiceTheSame(tiers) === null, "Two tiers are for the same amount; only one can answer.");

const colour = colourSchema;

export const brimfulSettingsSchema = z.object({
  schema: z.literal(1),
  drops: z.object({
    follow: tiersSchema,
    membership: tiersSchema,
    gift: tiersSchema,
    tip: tiersSchema,
    reaction: tiersSchema,
    raid: tiersSchema,
    host: tiersSchema,
    message: tiersSchema,
  }),
  vessel: z
    .object({
      shape: z.enum([...shapes, "own"]),
      /** Of one's own: from the left rim to the right, in thousandths of its height. */
      points: z.array(z.tuple([z.int().min(-5_000).max(6_000), z.int().min(-1_000).max(2_000)])).max(160),
      stand: z.enum(["fixed", "free"]),
      /** A piece of at least this mass tips a free one over. */
      tipMass: z.int().min(1).max(500),
      /** Percent of what it holds that spills. */
      spill: z.int().min(10).max(100),
      /** Stands up again by itself; 0 for not before it is told to. */
      upAfterMs: z.int().min(0).max(600_000),
    })
    .superRefine((v, ctx) => {
      if (v.shape !== "own") return;
      const read = readOutline(
        v.points.map(([x, y]): Point => [x / 1000, y / 1000]),
        false,
      );
      if (!read.ok) ctx.addIssue({ code: "custom", message: outlineProblem(read.refusal.code), path: ["points"] });
    }),
  /** Sizes in thousandths of the vessel's height. */
  size: z.int().min(20).max(500),
  face: z.object({ size: z.int().min(20).max(500), mass: z.int().min(1).max(500), bounce: z.int().min(0).max(90) }),
  brim: z.object({
    /** Percent of what it holds. */
    at: z.int().min(20).max(120),
    then: z.enum(["empties", "waits"]),
    effects: z.array(ruleEffectSchema).max(mostEffects, `The brim does at most ${mostEffects} things.`),
  }),
  /** A line that is told when it is reached, once until it is emptied. */
  goal: z.object({ on: z.boolean(), at: z.int().min(1).max(119), label: z.string().max(40) }),
  passing: z
    .object({
      on: z.boolean(),
      text: z.string().max(120),
      /** Percent of the stage's height. */
      size: z.int().min(2).max(12),
      ms: z.int().min(1_000).max(20_000),
      font: z.enum(["display", "text", "mono"]),
    })
    .superRefine((p, ctx) => {
      const checked = checkTemplate(p.text, textVariables);
      if (checked.ok) return;
      ctx.addIssue({
        code: "custom",
        path: ["text"],
        message:
          checked.refusal.code === "text/unknown-variable"
            ? `“${String(checked.refusal.facts["name"])}” is no variable here. There are: ${textVariables.join(", ")}.`
            : "The passing text has a brace too many or too few.",
      });
    }),
  /** What of the other games on the stage is felt here. */
  touch: z.object({ blows: z.boolean(), pictures: z.boolean(), people: z.boolean() }),
  /** Live pieces at once; the oldest fade into the pile. */
  cap: z.int().min(20).max(1_000),
  gravity: z.int().min(20).max(250),
  /** Percent: how much of its own bounce each piece has. */
  bounce: z.int().min(0).max(200),
  looks: z.object({
    clear: z.boolean(),
    clay: colour,
    glaze: colour,
    line: colour,
    /** Where in its place it stands, and how far above the lower edge, percent of the place's height. */
    stands: z.enum(["left", "middle", "right"]),
    lift: z.int().min(0).max(60),
    /** Room above the rim, percent of the place's height. */
    room: z.int().min(5).max(60),
    number: z.boolean(),
    outlines: z.boolean(),
  }),
});

export type BrimfulSettings = z.infer<typeof brimfulSettingsSchema>;

export const newTier = (id: string, part: Partial<DropTier> = {}): DropTier => ({
  id,
  at: "least",
  amount: 0,
  pieces: { give: 1, per: 0, most: 100 },
  faces: { give: 0, per: 0, most: 20 },
  emotes: false,
  pictures: [],
  size: 0,
  mass: 5,
  bounce: 25,
  body: "circle",
  solid: 90,
  wide: 100,
  ...part,
});

const once = (give: number) => ({ give, per: 0, most: 100 });

export const brimfulDefaults: BrimfulSettings = {
  schema: 1,
  drops: {
    follow: [newTier("follow", { faces: once(1) })],
    membership: [newTier("member", { pieces: once(5), faces: once(1) })],
    gift: [newTier("gift", { pieces: { give: 5, per: 1, most: 200 } })],
    tip: [
      newTier("tip", { pieces: { give: 1, per: 100, most: 200 } }),
      newTier("heavy", { amount: 2_500, pieces: once(1), faces: once(1), size: 300, mass: 80, bounce: 10, body: "box", solid: 95 }),
    ],
    reaction: [newTier("reaction", { pieces: { give: 1, per: 50, most: 100 } })],
    raid: [newTier("raid", { pieces: { give: 1, per: 1, most: 150 } })],
    host: [newTier("host", { pieces: { give: 1, per: 2, most: 100 } })],
    message: [],
  },
  vessel: { shape: "bowl", points: [], stand: "fixed", tipMass: 60, spill: 80, upAfterMs: 8_000 },
  size: 100,
  face: { size: 120, mass: 5, bounce: 30 },
  brim: { at: 95, then: "empties", effects: [] },
  goal: { on: false, at: 50, label: "Half full" },
  passing: { on: false, text: "{viewer}", size: 4, ms: 3_000, font: "display" },
  touch: { blows: true, pictures: false, people: false },
  cap: 300,
  gravity: 100,
  bounce: 100,
  looks: {
    clear: false,
    clay: "#C88558",
    glaze: "#2F4A48",
    line: "#E0A025",
    stands: "middle",
    lift: 0,
    room: 30,
    number: true,
    outlines: false,
  },
};

/** How pieces of one kind are made, with its number, by which what lies in the vessel names it. */
export const lookSchema = pieceSchema.extend({ n: z.int(), face: z.boolean() });

export type Look = z.infer<typeof lookSchema>;

/** Pieces of one look that one signal brought. `key`: twice the signal's number, one more for faces. `by`: whose face. */
export const batchSchema = z.object({ key: z.int(), look: z.int(), count: z.int(), by: z.string() });

export type Batch = z.infer<typeof batchSchema>;

/** What lies in a vessel, oldest first; what is too old to be told apart is counted by look. */
export const pileSchema = z.object({
  looks: z.array(lookSchema),
  older: z.array(z.tuple([z.int(), z.int()])),
  batches: z.array(batchSchema),
});

export type Pile = z.infer<typeof pileSchema>;

export const brimfulDurableSchema = z.object({
  on: z.boolean(),
  pile: pileSchema,
  /** What came while it lay on its side: falls when it stands again. */
  waiting: pileSchema,
  lies: z.object({ sinceMs: z.number(), way: z.union([z.literal(-1), z.literal(1)]) }).nullable(),
  /** It brimmed, and was not below four fifths of the line since. */
  brimmed: z.boolean(),
  /** The goal was told since it was emptied. */
  reached: z.boolean(),
  brims: z.number(),
  sinceMs: z.number(),
  nextLook: z.number(),
  /** Who gave how many since it was emptied: id, name, pieces. */
  givers: z.array(z.tuple([z.string(), z.string(), z.number()])),
  kept: remaindersSchema,
});

export type BrimfulDurable = z.infer<typeof brimfulDurableSchema>;

const seed = z.int().min(0).max(0xffffffff);

/** How a change of the pile is played, in the order in which it comes to pass; what lies in it in the end, the view says. */
export const brimfulEffectSchema = z.discriminatedUnion("do", [
  z.object({
    do: z.literal("drop"),
    batches: z.array(z.object({ key: z.int(), look: lookSchema, count: z.int(), by: z.string() })),
    text: z.string(),
  }),
  z.object({ do: z.literal("brim"), seed, empties: z.boolean() }),
  z.object({ do: z.literal("tip"), seed, way: z.union([z.literal(-1), z.literal(1)]) }),
  z.object({ do: z.literal("upright") }),
  z.object({ do: z.literal("shake"), seed, strength: z.number() }),
  z.object({ do: z.literal("empty"), seed }),
]);

export type BrimfulEffect = z.infer<typeof brimfulEffectSchema>;

/** What an overlay page needs: the vessel, what lies in it, how full it is. Nobody's id. */
export const brimfulViewSchema = z.object({
  on: z.boolean(),
  pile: pileSchema,
  lies: z.union([z.literal(-1), z.literal(1)]).nullable(),
  /** Percent of what it holds, rounded down. */
  full: z.number(),
  brimAt: z.number(),
  goal: z.object({ at: z.number(), label: z.string(), reached: z.boolean() }).nullable(),
  brims: z.number(),
  vessel: z.object({ shape: z.enum([...shapes, "own"]), points: z.array(z.tuple([z.number(), z.number()])), free: z.boolean() }),
  passing: z.object({ size: z.number(), ms: z.number(), font: z.enum(["display", "text", "mono"]) }),
  cap: z.number(),
  gravity: z.number(),
  bounce: z.number(),
  looks: brimfulSettingsSchema.shape.looks,
});

export type BrimfulView = z.infer<typeof brimfulViewSchema>;
