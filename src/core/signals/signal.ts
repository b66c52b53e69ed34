import { z } from "zod";
import { type House, roles, Role, Viewer } from "./names";

/** A role from outside or from the store; what was stored before 2026-12 calls a guest by another name. */
export const roleSchema = z.preprocess((given) => (given === "vip" ? "guest" : given), z.enum(roles));

/** A place in the text that the chat server marked as an emote; counted in UTF-16 units. */
export type EmoteSpan = Readonly<{ start: number; length: number; id: string }>;

/**
 * Everything that happens on a channel arrives as a signal. `seq` is given on arrival, per channel, and
 * settles every tie; `atMs` is UTC milliseconds at that moment. `id` is unique per source.
 */
type Arrived = Readonly<{ seq: number; atMs: number; id: string }>;

/** Null where the giver wants to stay unknown. */
type Given = Arrived & Readonly<{ viewer: Viewer | null }>;

export type MessageSignal = Arrived & Readonly<{ kind: "message"; viewer: Viewer; text: string; marks: readonly EmoteSpan[] }>;

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

/** A forecast that viewers back on the platform itself, as it stands there: for showing, nothing of it is decided here. */
export type ForecastSignal = Arrived &
  Readonly<{
    kind: "forecast";
    viewer: null;
    forecast: string;
    title: string;
    state: "open" | "locked" | "done" | "cancelled";
    outcomes: readonly Readonly<{ label: string; stakes: number; people: number }>[];
    /** Which outcome came, by its place; null while none did. */
    result: number | null;
    /** UTC milliseconds; 0 when the platform does not say. */
    locksMs: number;
  }>;

export type PlatformSignal =
  ForecastSignal | FollowSignal | MembershipSignal | GiftSignal | TipSignal | ReactionSignal | RaidSignal | PurchaseSignal | ShowSignal;

export const platformKinds = ["follow", "membership", "gift", "tip", "reaction", "raid", "host", "purchase", "live", "ended"] as const;

/** Something waited for is due in one part (a rule's timer, the rest of a rule after a wait). */
export type TimerSignal = Arrived & Readonly<{ kind: "timer"; moduleId: string }>;

/** A cue was fired: by whom, and by what way (key, click, address, chat). */
export type CueSignal = Arrived &
  Readonly<{
    kind: "cue";
    cueId: string;
    by: string;
    via: "key" | "click" | "address" | "rundown" | "reward";
    viewer: null;
    house?: House;
  }>;

/** Somebody wants a reward on the viewer page; `shownPrice` is what it said it costs. */
export type PurchaseRequest = Arrived &
  Readonly<{ kind: "purchase-request"; viewer: Viewer; rewardId: string; text: string; shownPrice: number }>;

/** Somebody has the viewer page open: as good as a word in chat for being there. Not kept in the log. */
export type HereSignal = Arrived & Readonly<{ kind: "here"; viewer: Viewer }>;

/**
 * Somebody wrote for the first time in the show that runs. `shows` counts those they were in, this one too; `beforeMs`
 * is when they came to the one before it, null for who was never here.
 */
export type ArrivalSignal = Arrived & Readonly<{ kind: "arrival"; viewer: Viewer; shows: number; beforeMs: number | null }>;

/** Something was bought on the platform itself, with its own points; `title` is how the platform calls it. */
export type PurchaseSignal = Arrived &
  Readonly<{ kind: "purchase"; viewer: Viewer; item: string; title: string; price: number; text: string }>;

/** Something was bought with points and is to be done now. */
export type RedemptionSignal = Arrived &
  Readonly<{ kind: "redemption"; viewer: Viewer; saleId: string; rewardId: string; reward: string; price: number; text: string }>;

/** A game says what came to pass in it, so that rules can answer: `what` is namespaced by the game's kind. */
/**
 * What of it other games on the stage may feel, if theirs want to: a blow (0 to 1), a picture that came, people by their
 * names, and whether it is a joy (somebody won, a boss fell). Nothing is decided by it.
 */
export const touchesSchema = z.object({
  blow: z.number().min(0).max(1).optional(),
  pictures: z.array(z.string().max(80)).max(12).readonly().optional(),
  people: z.array(z.string().max(200)).max(12).readonly().optional(),
  joy: z.boolean().optional(),
});

export type Touches = z.infer<typeof touchesSchema>;

export type HappenedSignal = Given &
  Readonly<{
    kind: "happened";
    gameId: string;
    what: string;
    amount: number;
    text: string;
    /** What the game's own settings say is done then, as a rule's effects; read by who carries them out. */
    effects?: readonly unknown[];
    touches?: Touches;
  }>;

/**
 * What a module is told to do: by an operator, a cue, a rule. `do` names the action; what comes with it, the module's
 * own schema reads before its step sees it.
 */
export const commandSchema = z.looseObject({ do: z.string().min(1).max(40) });

export type Command = Readonly<{ do: string }> & Readonly<Record<string, unknown>>;

/** `viewer` is the one for whose signal a rule gives the command; null for an operator's and a cue's. */
export type CommandSignal = Arrived &
  Readonly<{
    kind: "command";
    gameId: string;
    by: string;
    /** `by` is an operator's login name, which viewers must never read: they read the house's. */
    signedIn?: boolean;
    house?: House;
    viewer: Viewer | null;
    command: Command;
    /** The sale it was bought with, where a reward gave it. */
    sale?: string;
  }>;

export type Signal =
  | MessageSignal
  | PlatformSignal
  | TimerSignal
  | CueSignal
  | HappenedSignal
  | RedemptionSignal
  | PurchaseRequest
  | HereSignal
  | ArrivalSignal
  | CommandSignal;

/** A signal before its arrival: without sequence number and time. */
type Untimed<T> = T extends unknown ? Omit<T, "seq" | "atMs"> : never;

export type Sent = Untimed<PlatformSignal | CueSignal>;

/** A signal before anybody sends it: without its place and its id. */
type Unplaced<T> = T extends unknown ? Omit<T, "seq" | "atMs" | "id"> : never;

export type GivenSignal = Unplaced<Signal>;

const rank: Readonly<Record<Role, number>> = { viewer: 0, member: 1, guest: 2, moderator: 3, streamer: 4 };

/** Whether a viewer is one of the roles allowed; "viewer" stands for everyone, an unknown giver included. */
export function mayAs(viewer: Viewer | null, allowed: readonly Role[]): boolean {
  return allowed.includes("viewer") || (viewer !== null && viewer.roles.some((role) => allowed.includes(role)));
}

export const highestRole = (viewer: Viewer): Role =>
  viewer.roles.reduce<Role>((best, role) => (rank[role] > rank[best] ? role : best), "viewer");
