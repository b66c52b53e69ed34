import type { z } from "zod";
import type { EmoteIndex } from "../chat/emotes";
import type { Signal } from "../signals/signal";
import type { Order } from "./order";
import type { Steps } from "./stored";
import { type Booking, type Desk, emptyDesk } from "../rewards/desk";
import type { Refusal } from "./refusal";

/**
 * The contract every game keeps: signals in, pure rules in the middle, effects out.
 *
 * A game's state has two halves. *Durable* is what must be exactly right after a kill at any moment
 * (on or off, health, stock): when a step returns a different durable object, the engine commits it with
 * the signal's log row before anyone hears of it. *Dust* is what may be lost in a crash (combo counts,
 * rolling limits): it never waits for the database.
 *
 * A step reads no clock and draws no chance of its own: time is `signal.atMs`, seeds come from
 * `signal.seq`. It never writes into what it was given.
 *
 * The rulebook and the cues keep the same contract; they have no picture, and all they do are orders.
 */
export type StepContext = Readonly<{
  /** The channel's own emote words, already compiled for finding. */
  emotes: EmoteIndex;
  /** Mixed into seeds so that two channels with the same numbers do not move alike. */
  salt: number;
  channelName: string;
  homeCurrency: string;
  /** Length of a sound in milliseconds; 0 when it is not there. */
  soundMs: (sound: string) => number;
  /** Key of the picture prop of this name, whatever its case; null when there is none. */
  pictureNamed: (name: string) => string | null;
  /** How a game is called, for texts; its id when it is not there. */
  gameName: (gameId: string) => string;
  /** Points and sales, as they stand before this step. */
  desk: Desk;
  hushed: boolean;
  /** The show that runs; null off air. A rehearsal is no show here: it touches no points. */
  showId: string | null;
  /** A rehearsal runs: nothing that is booked is kept. */
  rehearsing: boolean;
  /** Words that are covered in what viewers write, wherever it is shown or said. */
  hiddenWords: readonly string[];
  /** How the channel calls its points. */
  pointsName: string;
  /** Whether a game is on and may be played with now; false when it is not there. */
  gameRuns: (gameId: string) => boolean;
  /** Whether a chat word means something on this channel already. */
  isWord: (word: string) => boolean;
}>;

/** Where something happened, or did not: shown beside the message and in the try-it strip. */
export type Note = Readonly<{ refusal?: Refusal; did?: string; count: number; subject?: string; facts?: Refusal["facts"] }>;

/** What is kept for good beside the state: a hit, a reign. Committed with the state it belongs to. */
export type Kept = Readonly<{
  kind: string;
  viewer: Readonly<{ id: string; name: string }> | null;
  fromMs: number;
  toMs: number;
  body: unknown;
}>;

export type StepOutcome<D, T, E> = Readonly<{
  durable: D;
  dust: T;
  effects: readonly E[];
  notes: readonly Note[];
  orders?: readonly Order[];
  kept?: readonly Kept[];
  booking?: Booking;
}>;

export type Audience = "overlay" | "viewer" | "operator";

export type GameRules<S, D, T, E> = Readonly<{
  kind: string;
  settings: z.ZodType<S>;
  defaults: S;
  freshDurable: (settings: S) => D;
  freshDust: () => T;
  durable: z.ZodType<D>;
  /** What older versions stored, and how it becomes what this one reads; none while there was but one version. */
  settingsSteps?: Steps;
  stateSteps?: Steps;
  step: (at: Readonly<{ settings: S; durable: D; dust: T }>, signal: Signal, ctx: StepContext) => StepOutcome<D, T, E>;
  /** When it wants a timer signal next, UTC milliseconds; null for never. */
  dueMs?: (settings: S, durable: D) => number | null;
  /** What an audience may see. An allow-list: what is not named here is not seen. */
  view: (settings: S, durable: D, audience: Audience, dust?: T) => Readonly<Record<string, unknown>>;
}>;

/** A context for tests and previews, where nothing of a channel is known. */
export const bareContext = (emotes: EmoteIndex, part: Partial<StepContext> = {}): StepContext => ({
  emotes,
  salt: 77,
  channelName: "Saltmarsh Kiln",
  homeCurrency: "EUR",
  soundMs: () => 0,
  pictureNamed: () => null,
  gameName: (id) => id,
  desk: emptyDesk,
  hushed: false,
  showId: null,
  rehearsing: false,
  hiddenWords: [],
  pointsName: "points",
  gameRuns: () => true,
  isWord: () => false,
  ...part,
});
