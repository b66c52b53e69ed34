import { flashingSchema } from "../props/video";
import { z } from "zod";
import { alertSchema } from "../alerts/alert";
import { dressDefaults, dressSchema } from "../dress/dress";
import { figureFactsSchema } from "../props/figure";
import { beatSchema } from "../props/settings";
import { rehearsalStandingSchema, waitingSaleSchema } from "./operator-parts";
import { openPageSchema, shownPartSchema, toneCameSchema } from "./open-page";
import { wireVersion } from "./version";

export { wireVersion } from "./version";
export type { OpenPage, ShownPart, ToneCame } from "./open-page";
export type { RehearsalStanding, WaitingSale } from "./operator-parts";

/**
 * What travels over the WebSocket, version 1; both sides validate it. A page remembers `epoch` and the
 * last `seq` it has; on reconnecting it gets what it missed, or a fresh snapshot.
 */
export const v = z.literal(wireVersion);

/** How fast the time told runs: a rehearsal's stands still, or goes faster than ours. */
const pace = z.number().min(0).max(100).default(1);
const size = { width: z.int().min(1).max(16_384), height: z.int().min(1).max(16_384) };

export const fromPageSchema = z.discriminatedUnion("type", [
  z.object({
    v,
    type: z.literal("hello"),
    as: z.literal("overlay"),
    token: z.string().min(10).max(64),
    ...size,
    resume: z.object({ epoch: z.string().max(80), seq: z.int().min(0) }).nullable(),
  }),
  /** `rehearsal`: the booth of a rehearsal instead of the channel's. */
  z.object({ v, type: z.literal("watch"), as: z.literal("operator"), rehearsal: z.string().max(26).default("") }),
  /** A viewer page; who it is, its cookie tells, or nobody yet. */
  z.object({ v, type: z.literal("shop"), channel: z.string().min(1).max(26) }),
  /** An operator looks at an overlay without being one of its pages: never counted, never heard. */
  z.object({
    v,
    type: z.literal("peek"),
    overlay: z.string().min(1).max(26),
    /** As a rehearsal shows it, not the channel. */
    rehearsal: z.string().max(26).default(""),
    resume: z.object({ epoch: z.string().max(80), seq: z.int().min(0) }).nullable(),
  }),
  z.object({
    v,
    type: z.literal("report"),
    ...size,
    hidden: z.boolean(),
    framesPerSecond: z.number().min(0).max(1_000),
    late: z.int().min(0).max(100_000),
    live: z.int().min(0).max(100_000),
    drawing: z.string().max(20),
    /** By how much the page draws less than it would, to keep up; whether it is dimmed because it flashes. */
    lowered: z.int().min(0).max(20).default(0),
    dimmed: z.boolean().default(false),
    /** Whether this page's browser lets it make sound. */
    sound: z.enum(["ready", "blocked"]).default("blocked"),
    /** Whether it makes the sound now: its own word, not what it was told. */
    speaks: z.boolean().default(false),
  }),
  /** Sent every 600 ms by the page that makes the sound; a page that falls silent loses it. */
  z.object({ v, type: z.literal("voice") }),
  /** What was sold is on this page's picture now, or is heard: sales by their ids. */
  z.object({ v, type: z.literal("shown"), sales: z.array(z.string().max(40)).min(1).max(50), part: shownPartSchema.default("whole") }),
  /** How the tone came out that was asked for: heard at this page's own outlet, or why not. */
  z.object({ v, type: z.literal("tone"), id: z.string().max(40), came: toneCameSchema }),
]);
export type FromPage = z.infer<typeof fromPageSchema>;

/** An emote's picture: one sheet of equal frames, row by row. `url` is null where the platform draws it. */
export const spriteSchema = z.object({
  key: z.string().max(80),
  word: z.string().max(64),
  url: z.string().max(300),
  frames: z.int().min(1).max(400),
  columns: z.int().min(1).max(400),
  frameWidth: z.int().min(1).max(1_024),
  frameHeight: z.int().min(1).max(1_024),
  frameMs: z.int().min(0).max(10_000),
  /** What it is seen doing, when it is a figure: its rest is what stands in the frames. */
  figure: figureFactsSchema.optional(),
  /** What moves in its place, where a page can show it; what stands in the frames is its poster. */
  video: z
    .object({
      url: z.string().max(300),
      ms: z.int().min(0),
      audible: z.boolean(),
      volume: z.number().min(0).max(1),
      flashing: flashingSchema.default([]),
    })
    .optional(),
});
export type Sprite = z.infer<typeof spriteSchema>;

/** A sound of the channel: where it is, how long it plays. */
export const soundSchema = z.object({
  id: z.string().max(26),
  url: z.string().max(300),
  ms: z.int().min(0),
  volume: z.number().min(0).max(1),
  /** What a caption calls it. */
  name: z.string().max(80).default(""),
  beat: beatSchema.nullable().default(null),
  /** Too long to be kept at hand: fetched when it is asked for. */
  long: z.boolean().default(false),
});
export type Sound = z.infer<typeof soundSchema>;

const share = z.number().min(0).max(1);
export const placeSchema = z.object({
  x: share,
  y: share,
  width: share,
  height: share,
  hidden: z.boolean().default(false),
  /** Kept from being moved by mistake. */
  locked: z.boolean().default(false),
  opacity: z.number().min(0).max(1).default(1),
  /** Only while the studio is in one of these scenes; none for always. */
  scenes: z.array(z.string().max(80)).max(20).optional(),
});
export type Place = z.infer<typeof placeSchema>;
export const wholePlace: Place = { x: 0, y: 0, width: 1, height: 1, hidden: false, locked: false, opacity: 1 };

export const stageSchema = z.object({
  games: z.array(z.object({ id: z.string(), kind: z.string(), place: placeSchema, view: z.record(z.string(), z.unknown()) })),
  sprites: z.array(spriteSchema),
  /** Address of a platform emote's picture, `{id}` in it; empty when the platform has none. */
  markedUrl: z.string().max(300),
  /** Address of somebody's picture, `{name}` in it; empty where nobody finds any. */
  facesUrl: z.string().max(300).default(""),
  /** What on/off cues keep on the picture. */
  alerts: z.array(alertSchema).default([]),
  sounds: z.array(soundSchema).default([]),
  /** Whether this overlay is for pictures at all, and its own style sheet. */
  shows: z.boolean().default(true),
  css: z.string().max(20_000).default(""),
  dress: dressSchema.default(dressDefaults),
});
export type Stage = z.infer<typeof stageSchema>;
/** A stage for previews and tests: these games, whole, and nothing else. */
export const bareStage = (
  games: readonly Readonly<{ id: string; kind: string; view: Record<string, unknown> }>[],
  sprites: readonly Sprite[],
): Stage => ({
  games: games.map((g) => ({ ...g, place: wholePlace })),
  sprites: [...sprites],
  markedUrl: "",
  facesUrl: "",
  alerts: [],
  sounds: [],
  shows: true,
  css: "",
  dress: dressDefaults,
});

const seq = z.int().min(0);
export const toOverlaySchema = z.discriminatedUnion("type", [
  z.object({
    v,
    type: z.literal("snapshot"),
    epoch: z.string(),
    seq,
    stage: stageSchema,
    hushed: z.boolean(),
    /** The engine's time, so that what follows from it is the same on every page; 0 where it is not told. */
    nowMs: z.number().default(0),
  }),
  z.object({ v, type: z.literal("stage"), seq, stage: stageSchema }),
  z.object({ v, type: z.literal("effects"), seq, items: z.array(z.object({ game: z.string(), effect: z.unknown() })) }),
  z.object({ v, type: z.literal("hush"), seq, on: z.boolean() }),
  /** What games show now: sent when only they changed, not the stage. */
  z.object({ v, type: z.literal("views"), seq, views: z.array(z.object({ game: z.string(), view: z.record(z.string(), z.unknown()) })) }),
  z.object({ v, type: z.literal("alert"), seq, alert: alertSchema }),
  z.object({ v, type: z.literal("alert-end"), seq, ids: z.array(z.string()) }),
  /** This page makes the sound, for two seconds from now; or it no longer does. */
  z.object({ v, type: z.literal("voice"), on: z.boolean() }),
  /** An operator wants to hear this page: a soft tone, whoever makes the sound otherwise. */
  z.object({ v, type: z.literal("tone"), id: z.string().max(40) }),
  /** Every 15 s, so that a page notices a connection that died without a word. */
  z.object({ v, type: z.literal("beat"), nowMs: z.number().default(0), pace }),
  /** The link is not, or no longer, valid: clear the picture and stay silent. */
  z.object({ v, type: z.literal("gone") }),
]);
export type ToOverlay = z.infer<typeof toOverlaySchema>;

export const signStates = ["good", "waiting", "bad", "off"] as const;
export const healthItemSchema = z.object({
  id: z.string(),
  name: z.string(),
  state: z.enum(signStates),
  /** What is the case, what it means, and what to do; the last two may be empty. */
  says: z.string(),
  means: z.string(),
  todo: z.string(),
});
export type HealthItem = z.infer<typeof healthItemSchema>;

const toneSchema = z.enum(["slate", "brick", "moss", "ochre", "soft"]);
export const markSchema = z.object({
  seq,
  atMs: z.number(),
  tone: toneSchema,
  label: z.string(),
  weight: z.union([z.literal(1), z.literal(2), z.literal(3)]),
  game: z.string(),
  turned: z.enum(["on", "off", ""]),
});
export const talkItemSchema = z.object({
  /** Counts the items of one channel, so that none shows twice; begins anew with the engine (`epoch`). */
  n: z.int(),
  seq,
  atMs: z.number(),
  kind: z.string(),
  name: z.string(),
  viewer: z.object({ id: z.string(), roles: z.array(z.string()) }).nullable(),
  text: z.string(),
  notes: z.array(z.object({ game: z.string(), note: z.unknown() })),
});
export type TalkItem = z.infer<typeof talkItemSchema>;
const heldSchema = z.object({ id: z.string(), text: z.string(), picture: z.string(), sound: z.string(), sinceMs: z.number() });
export type HeldAlert = z.infer<typeof heldSchema>;
const standingOverlaySchema = z.object({
  id: z.string(),
  name: z.string(),
  width: z.number(),
  height: z.number(),
  backdrop: z.string(),
  shows: z.boolean(),
  places: z.array(z.object({ game: z.string(), place: placeSchema })),
});
export type StandingOverlay = z.infer<typeof standingOverlaySchema>;

export const toOperatorSchema = z.discriminatedUnion("type", [
  /** `nowMs`: the engine's time, so that clocks and cooldowns hold on a computer whose own clock is wrong. */
  z.object({ v, type: z.literal("beat"), nowMs: z.number().default(0), pace }),
  z.object({
    v,
    type: z.literal("standing"),
    health: z.array(healthItemSchema),
    pages: z.array(openPageSchema),
    hushed: z.boolean(),
    chat: z.object({
      state: z.string(),
      sinceMs: z.number().nullable(),
      perMinute: z.number(),
      /** When somebody wrote last; null for not since the engine started. */
      heardMs: z.number().nullable().default(null),
      /** Which room of the chat server was joined. */
      room: z.string().default(""),
      lastError: z.string(),
      lastTrouble: z.object({ words: z.string(), atMs: z.number() }).nullable(),
    }),
    games: z.array(
      z.object({ id: z.string(), kind: z.string(), name: z.string(), version: z.number(), view: z.record(z.string(), z.unknown()) }),
    ),
    /** Queues where something plays or waits. */
    /** Sales that wait for a yes, oldest first: some of them, and how many there are; `changes` grows with every sale.
     * `unshown`: paid for, and no page has shown it within its time. */
    sales: z.object({
      count: z.number(),
      older: z.number(),
      first: z.array(waitingSaleSchema),
      points: z.string(),
      changes: z.number(),
      unshown: z.array(waitingSaleSchema),
    }),
    queues: z.array(z.object({ id: z.string(), playing: z.string().nullable(), waiting: z.number(), paused: z.boolean() })),
    events: z.object({ lastMs: z.number().nullable(), perMinute: z.number(), refused: z.number() }),
    overlays: z.array(standingOverlaySchema),
    /** Address of somebody's picture, `{name}` in it; empty where nobody finds any. */
    facesUrl: z.string().default(""),
    /** Alerts that came under hush and wait for a decision. */
    held: z.array(heldSchema),
    /** How the rehearsal stands that is watched; null for the channel itself. */
    rehearsal: rehearsalStandingSchema.nullable().default(null),
    /** Rehearsals of the channel, those that are over among them. */
    rehearsals: z.array(rehearsalStandingSchema).default([]),
  }),
  /** Another tab or operator saved, published or moved something. */
  z.object({ v, type: z.literal("changed"), what: z.string(), id: z.string(), revision: z.number(), by: z.string() }),
  z.object({
    v,
    type: z.literal("talk"),
    epoch: z.string(),
    /** How many were left out because more came than anyone can read. */
    left: z.int(),
    items: z.array(talkItemSchema),
  }),
  z.object({ v, type: z.literal("marks"), items: z.array(markSchema) }),
]);
export type ToOperator = z.infer<typeof toOperatorSchema>;
