import { z } from "zod";
import { planSchema } from "../show/plan";

/**
 * Everything that happens on a channel arrives as a signal. `seq` is given on arrival, per channel, and
 * settles every tie; `atMs` is UTC milliseconds at that moment. `id` is unique per source.
 */
export const roles = ["viewer", "member", "vip", "moderator", "streamer"] as const;
export type Role = (typeof roles)[number];

export const roleWords: Readonly<Record<Role, string>> = {
  viewer: "everyone",
  member: "members",
  vip: "guests of honour",
  moderator: "moderators",
  streamer: "the streamer",
};

export type Viewer = Readonly<{ id: string; name: string; roles: readonly Role[] }>;

/** A place in the text that the chat server marked as an emote; counted in UTF-16 units. */
export type EmoteMark = Readonly<{ start: number; length: number; id: string }>;

type Arrived = Readonly<{ seq: number; atMs: number; id: string }>;
/** Null where the giver wants to stay unknown. */
type Given = Arrived & Readonly<{ viewer: Viewer | null }>;

export type MessageSignal = Arrived & Readonly<{ kind: "message"; viewer: Viewer; text: string; marks: readonly EmoteMark[] }>;
export type FollowSignal = Arrived & Readonly<{ kind: "follow"; viewer: Viewer }>;
/** `fromGift` names the gift it came from: then it is not counted again where the gift was. */
export type MembershipSignal = Arrived & Readonly<{ kind: "membership"; viewer: Viewer; months: number; text: string; fromGift: string }>;
export type GiftSignal = Given & Readonly<{ kind: "gift"; count: number; recipients: readonly string[] }>;
/** `homeMinor` is the amount in minor units of the channel's home currency; null when it does not count that currency. */
export type TipSignal = Given & Readonly<{ kind: "tip"; amountMinor: number; currency: string; homeMinor: number | null; text: string }>;
/** Paid reactions: `reaction` names the kind, `value` is what all of them together are worth in the platform's own unit. */
export type ReactionSignal = Given & Readonly<{ kind: "reaction"; reaction: string; count: number; value: number; text: string }>;
export type RaidSignal = Arrived & Readonly<{ kind: "raid" | "host"; viewer: Viewer; viewers: number }>;
export type ShowSignal = Arrived & Readonly<{ kind: "live" | "ended"; viewer: null }>;

export type PlatformSignal =
  FollowSignal | MembershipSignal | GiftSignal | TipSignal | ReactionSignal | RaidSignal | PurchaseSignal | ShowSignal;
export const platformKinds = ["follow", "membership", "gift", "tip", "reaction", "raid", "host", "purchase", "live", "ended"] as const;

/** Something waited for is due in one part (a rule's timer, the rest of a rule after a wait). */
export type TimerSignal = Arrived & Readonly<{ kind: "timer"; partId: string }>;
/** A cue was fired: by whom, and by what way (key, click, address, chat). */
export type CueSignal = Arrived &
  Readonly<{ kind: "cue"; cueId: string; by: string; via: "key" | "click" | "address" | "rundown" | "reward"; viewer: null }>;
/** Somebody wants a reward on the viewer page; `shownPrice` is what it said it costs. */
export type WishSignal = Arrived & Readonly<{ kind: "wish"; viewer: Viewer; rewardId: string; text: string; shownPrice: number }>;
/** Somebody has the viewer page open: as good as a word in chat for being there. Not kept in the log. */
export type HereSignal = Arrived & Readonly<{ kind: "here"; viewer: Viewer }>;
/** Something was bought on the platform itself, with its own points; `title` is how the platform calls it. */
export type PurchaseSignal = Arrived &
  Readonly<{ kind: "purchase"; viewer: Viewer; item: string; title: string; price: number; text: string }>;
/** Something was bought with points and is to be done now. */
export type RedemptionSignal = Arrived &
  Readonly<{ kind: "redemption"; viewer: Viewer; saleId: string; rewardId: string; reward: string; price: number; text: string }>;
/** A game says what came to pass in it, so that rules can answer: `what` is namespaced by the game's kind. */
export type HappenedSignal = Given & Readonly<{ kind: "happened"; gameId: string; what: string; amount: number; text: string }>;

const whole = z.int().min(0).max(Number.MAX_SAFE_INTEGER);
/** A hand on a game: an operator's, a cue's or a rule's. Addressed to one game. */
export const handSchema = z.discriminatedUnion("do", [
  z.object({ do: z.literal("switch"), on: z.boolean() }),
  z.object({ do: z.literal("clear") }),
  z.object({
    do: z.literal("flock"),
    count: z.int().min(1).max(2000),
    overMs: z.int().min(0).max(60_000),
    from: z.enum(["chosen", "most-used"]),
    chosen: z.array(z.string().min(1).max(80)).max(50),
    motion: z.string().max(32).nullable(),
  }),
  z.object({ do: z.literal("damage"), amount: whole }),
  z.object({ do: z.literal("heal"), amount: whole }),
  /** The last hit; with `seq`, only if it still is the one of that signal. */
  z.object({ do: z.literal("undo"), seq: z.int().min(0).optional() }),
  z.object({ do: z.literal("start-over") }),
  z.object({ do: z.literal("tell-rules") }),
  /** Takes the emotes of one message off the picture. */
  z.object({ do: z.literal("remove"), seq: z.int().min(0) }),
  z.object({ do: z.literal("show"), what: z.enum(["on-air", "rehearse", "end"]) }),
  /** The whole rundown, as changed from `revision`. */
  z.object({ do: z.literal("plan"), revision: z.int().min(0), items: planSchema }),
  /** `times`: how often it was started before, as the sender sees it; so two hands at once start it once. */
  z.object({ do: z.literal("plan-fire"), item: z.string().max(26), times: z.int().min(0) }),
  /** One thing to another minute; the rest as it is, whoever changed it meanwhile. */
  z.object({ do: z.literal("plan-move"), item: z.string().max(26), atMin: z.int().min(0).max(1_440) }),
  z.object({ do: z.literal("plan-skip"), item: z.string().max(26) }),
  z.object({ do: z.literal("plan-back"), item: z.string().max(26) }),
  z.object({ do: z.literal("template"), what: z.enum(["save", "use", "remove"]), id: z.string().max(26), name: z.string().max(60) }),
  z.object({ do: z.literal("mute"), id: z.string().min(1).max(64), name: z.string().max(80), on: z.boolean() }),
  /** A sale that waits, or was made: done, or its points given back. */
  z.object({
    do: z.literal("sale"),
    sale: z.string().max(40),
    what: z.enum(["done", "refund", "undone", "play"]),
    /** How it stood where it was decided: of two who decide at once, the first does, and the second is told. */
    seen: z.enum(["waiting", "done", "refunded"]).optional(),
  }),
  z.object({ do: z.literal("refund-all"), reward: z.string().max(26) }),
  /** Points given out again after a refund that was a slip. */
  z.object({ do: z.literal("sale-again"), sale: z.string().max(40) }),
  /** Points set right by hand, up or down, with the reason. */
  z.object({
    do: z.literal("adjust"),
    viewer: z.string().min(1).max(64),
    name: z.string().max(80),
    by: z.int().min(-1_000_000_000_000).max(1_000_000_000_000),
    why: z.string().trim().min(1, "Say why: it stands in the viewer’s history.").max(120),
  }),
  /** Points that come with viewers from elsewhere; `key` keeps the same list from being taken twice. */
  z.object({
    do: z.literal("take-in"),
    key: z.string().min(1).max(60),
    why: z.string().trim().min(1).max(120),
    viewers: z
      .array(z.object({ id: z.string().min(1).max(64), name: z.string().min(1).max(80), by: z.int().min(1).max(1_000_000_000_000) }))
      .min(1)
      .max(1_000),
  }),
  /** All that one account has goes to another: somebody goes by a new name. */
  z.object({
    do: z.literal("merge"),
    from: z.string().min(1).max(64),
    fromName: z.string().max(80),
    to: z.string().min(1).max(64),
    toName: z.string().max(80),
  }),
  z.object({ do: z.literal("decide"), ask: z.string().max(60), yes: z.boolean() }),
]);
export type Hand = z.infer<typeof handSchema>;
/** `viewer` is the one for whose signal a rule lays the hand on; null for an operator's and a cue's. */
export type HandSignal = Arrived & Readonly<{ kind: "hand"; gameId: string; by: string; viewer: Viewer | null; hand: Hand }>;

export type Signal =
  MessageSignal | PlatformSignal | TimerSignal | CueSignal | HappenedSignal | RedemptionSignal | WishSignal | HereSignal | HandSignal;
/** A signal before its arrival: without sequence number and time. */
type Untimed<T> = T extends unknown ? Omit<T, "seq" | "atMs"> : never;
export type Sent = Untimed<PlatformSignal | CueSignal>;

const rank: Readonly<Record<Role, number>> = { viewer: 0, member: 1, vip: 2, moderator: 3, streamer: 4 };

/** Whether a viewer is one of the roles allowed; "viewer" stands for everyone, an unknown giver included. */
export function mayAs(viewer: Viewer | null, allowed: readonly Role[]): boolean {
  return allowed.includes("viewer") || (viewer !== null && viewer.roles.some((role) => allowed.includes(role)));
}

export const highestRole = (viewer: Viewer): Role =>
  viewer.roles.reduce<Role>((best, role) => (rank[role] > rank[best] ? role : best), "viewer");

export const nameOf = (viewer: Viewer | null): string => viewer?.name ?? "someone";
