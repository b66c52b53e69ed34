import { z } from "zod";
import { drawSchema } from "../../chance/proof-parts";
import { happeningSchema } from "../../chance/record";
import { colourSchema } from "../../kernel/colour";
import { mostEffects, ruleEffectSchema } from "../../rules/effect";
import { roleSchema } from "../../signals/signal";
import { type Pattern, patterns } from "../../pictures/patterns";

export const mostSegments = 500;
export const mostWeight = 1_000_000;

const colour = colourSchema;
const propRef = z.string().max(80);

export const segmentSchema = z
  .object({
    id: z.string().min(1).max(26),
    label: z.string().trim().max(60),
    weight: z.int().min(1).max(mostWeight),
    /** How often it can be drawn until the wheel is reset; 0 for without end. */
    stock: z.int().min(0).max(1_000_000),
    /** How often it stands around the wheel: divides its angle, not its chance. */
    times: z.int().min(1).max(12),
    colour,
    pattern: z.enum(patterns),
    /** Key of an emote's or a prop's picture that stands in it; empty for none. */
    picture: propRef,
    /** What is done when it is drawn, beside what rules answer. */
    effects: z.array(ruleEffectSchema).max(mostEffects, `A segment does at most ${mostEffects} things.`),
  })
  .refine((s) => s.label !== "" || s.picture !== "", { message: "A segment needs a label, or a picture.", path: ["label"] });
export type Segment = z.infer<typeof segmentSchema>;

export const wheelSettingsSchema = z.object({
  schema: z.literal(1),
  segments: z
    .array(segmentSchema)
    .min(1, "A wheel needs at least one segment.")
    .max(mostSegments, `A wheel has at most ${mostSegments} segments.`)
    .refine((all) => new Set(all.map((s) => s.id)).size === all.length, "Two segments have one id."),
  angles: z.enum(["weight", "equal"]),
  /** A drawn segment leaves until the wheel is reset. */
  leaves: z.boolean(),
  /** The same one may come twice running. */
  again: z.boolean(),
  spinMs: z.int().min(3_000).max(30_000),
  /** How long the result stays; 0 until the next spin. */
  panelMs: z.int().min(0).max(120_000),
  /** Spins that wait while it turns. */
  mostWaiting: z.int().min(0).max(100),
  /** What chat is told of a result. */
  says: z.enum(["nothing", "result", "promise"]),
  looks: z.object({
    /** Shown always, or from a spin until its result has gone. */
    show: z.enum(["always", "spins"]),
    rim: colour,
    pointer: colour,
    /** Degrees clockwise from the top at which the pointer touches the rim. */
    pointerAt: z.int().min(0).max(359),
    pointerPicture: propRef,
    middle: propRef,
    hub: colour,
    letters: z.enum(["light", "bold", "heavy"]),
    /** Percent of the usual. */
    letterSize: z.int().min(50).max(200),
    panel: z.boolean(),
    panelSize: z.int().min(50).max(200),
    chances: z.boolean(),
    tick: z.boolean(),
    /** Hertz of the tick. */
    tickPitch: z.int().min(100).max(2_000),
    tickVolume: z.int().min(0).max(100),
  }),
});
export type WheelSettings = z.infer<typeof wheelSettingsSchema>;

/** Glazes a new segment takes, one after another. */
export const glazes: readonly Readonly<{ colour: string; pattern: Pattern }>[] = [
  { colour: "#B7C9A8", pattern: "dots" },
  { colour: "#6A5B4B", pattern: "grain" },
  { colour: "#F0E2C4", pattern: "waves" },
  { colour: "#B23A2B", pattern: "stripes" },
  { colour: "#2F4F7A", pattern: "crosses" },
  { colour: "#9A4F2C", pattern: "net" },
  { colour: "#D9B65A", pattern: "triangles" },
  { colour: "#3F7A74", pattern: "stripes" },
];
export const newSegment = (id: string, label: string, at: number): Segment => ({
  id,
  label,
  weight: 1,
  stock: 0,
  times: 1,
  ...(glazes[at % glazes.length] ?? { colour: "#B7C9A8", pattern: "plain" as const }),
  picture: "",
  effects: [],
});

export const wheelDefaults: WheelSettings = {
  schema: 1,
  segments: ["Yes", "No", "Once more", "Ask chat", "Tea first", "Not today"].map((label, i) => newSegment(`s${i + 1}`, label, i)),
  angles: "weight",
  leaves: false,
  again: true,
  spinMs: 9_000,
  panelMs: 8_000,
  mostWaiting: 10,
  says: "promise",
  looks: {
    show: "always",
    rim: "#A8683C",
    pointer: "#B98A4E",
    pointerAt: 52,
    pointerPicture: "",
    middle: "",
    hub: "#E8CDA6",
    letters: "bold",
    letterSize: 100,
    panel: true,
    panelSize: 100,
    chances: false,
    tick: true,
    tickPitch: 620,
    tickVolume: 50,
  },
};

/** A part of the rim: from and to as millionths of a turn, clockwise. */
export const arcSchema = z.object({ segment: z.int().min(0), from: z.int().min(0), to: z.int().min(0).max(1_000_000) });
export type Arc = z.infer<typeof arcSchema>;
export const turn = 1_000_000;

const whoSchema = z.object({
  by: z.string().max(80),
  viewer: z.object({ id: z.string(), name: z.string(), roles: z.array(roleSchema) }).nullable(),
});
export type Who = z.infer<typeof whoSchema>;
const resultSchema = z.object({
  n: z.int().min(1),
  round: z.string().max(80),
  id: z.string().max(26),
  label: z.string().max(60),
  atMs: z.number(),
  by: z.string().max(80),
  /** Whether viewers may read `by`. Of results from before that was told apart it may be a name that an operator signs in by. */
  isPublic: z.boolean().default(false),
});
export type SpinResult = z.infer<typeof resultSchema>;

/** The next spin's promise, and what has been changed in its list since. */
const promiseSchema = z.object({
  n: z.int().min(1),
  round: z.string().max(80),
  commitment: z.string().max(64),
  sealed: z.string().max(200),
  settingsHash: z.string().max(64),
  rehearsal: z.boolean(),
  sinceMs: z.number(),
  changes: z.array(z.object({ seq: z.int(), atMs: z.number(), id: z.string(), weight: z.int().min(0) })),
  chain: z.string().max(64),
  /** What happened after the last change, each a link of the chain; null where it was promised before records. */
  record: z.array(happeningSchema).nullable().default(null),
});
export type WheelPromise = z.infer<typeof promiseSchema>;

/** A spin that is on its way: where it goes is decided; nobody is told before it is there. */
const spinSchema = z.object({
  promise: promiseSchema,
  /** As they were announced. */
  announced: z.unknown(),
  segment: z.string().max(26),
  label: z.string().max(60),
  effects: z.array(z.unknown()),
  fromMs: z.number(),
  endsMs: z.number(),
  /** Where the wheel stood and where it comes to rest: how far it is turned clockwise, in millionths of a turn. */
  from: z.int().min(0).max(turn),
  to: z.int().min(0).max(turn),
  seed: z.int().min(0).max(0xffffffff),
  winner: drawSchema,
  who: whoSchema,
});
export type Spin = z.infer<typeof spinSchema>;

export const wheelDurableSchema = z.object({
  on: z.boolean(),
  /** Spins begun, and rounds that were abandoned: the number of the next round follows. */
  n: z.int().min(0),
  angle: z.int().min(0).max(turn),
  /** How often each was drawn since the wheel was reset. */
  drawn: z.array(z.tuple([z.string(), z.int().min(1)])),
  last: z.string().max(26),
  next: promiseSchema.nullable(),
  spin: spinSchema.nullable(),
  /** Nothing begins before: the result is being looked at. */
  restsUntilMs: z.number(),
  waiting: z.array(whoSchema),
  results: z.array(resultSchema),
});
export type WheelDurable = z.infer<typeof wheelDurableSchema>;

export const wheelEffectSchema = z.discriminatedUnion("do", [
  z.object({
    do: z.literal("spin"),
    n: z.int(),
    from: z.int(),
    to: z.int(),
    ms: z.int().min(1_000).max(60_000),
    seed: z.int().min(0),
    by: z.string().max(80),
  }),
  z.object({
    do: z.literal("result"),
    n: z.int(),
    segment: z.int().min(0),
    label: z.string().max(60),
    by: z.string().max(80),
    ms: z.int().min(0),
  }),
  z.object({ do: z.literal("reset") }),
]);
export type WheelEffect = z.infer<typeof wheelEffectSchema>;

/** What an overlay page needs to draw it: never where a spin that is on its way will end, but the angle itself. */
export const wheelViewSchema = z.object({
  on: z.boolean(),
  segments: z.array(
    z.object({
      label: z.string(),
      colour: z.string(),
      pattern: z.enum(patterns),
      picture: z.string(),
      rests: z.boolean(),
      chance: z.string(),
    }),
  ),
  arcs: z.array(arcSchema),
  angle: z.int(),
  spin: z.object({ n: z.int(), from: z.int(), to: z.int(), fromMs: z.number(), ms: z.number(), seed: z.int() }).nullable(),
  waiting: z.int().min(0),
  result: z.object({ n: z.int(), label: z.string(), segment: z.int(), by: z.string() }).nullable(),
  panelMs: z.number(),
  looks: wheelSettingsSchema.shape.looks,
});
export type WheelView = z.infer<typeof wheelViewSchema>;
