import type { Flashing } from "../props/video";
import type { z } from "zod";
import type { EmoteIndex } from "../chat/emotes";
import { openVault, type Vault } from "../chance/vault";
import type { MoneySettings } from "../signals/money";
import type { Command, Signal } from "../signals/signal";
import type { LabQuestion } from "./lab";
import type { Order } from "./order";
import type { Steps } from "../kernel/stored";
import { type Booking, type LedgerView, emptyLedgerView } from "../rewards/ledger-view";
import type { Refusal } from "../kernel/refusal";

/**
 * The contract every module keeps: signals in, pure rules in the middle, effects out.
 *
 * A module's state has two halves. *Durable* is what must be exactly right after a kill at any moment
 * (on or off, health, stock): when a step returns a different durable object, the engine commits it with
 * the signal's log row before anyone hears of it. *Dust* is what may be lost in a crash (combo counts,
 * rolling limits): it never waits for the database.
 *
 * A step reads no clock and draws no chance of its own: time is `signal.atMs`, seeds come from
 * `signal.seq`. It never writes into what it was given.
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
  /** How long a moving picture lasts; 0 where it stands still. */
  videoMs: (picture: string) => number;
  /** A moving picture of the library, as it is played; null where there is none of this id. */
  filmOf: (picture: string) => FilmOf | null;
  /** Key of the picture prop of this name, whatever its case; null when there is none. */
  pictureNamed: (name: string) => string | null;
  /** Of which kind a game is; empty when it is not there. */
  gameKind: (gameId: string) => string;
  /** How a game is called, for texts; its id when it is not there. */
  gameName: (gameId: string) => string;
  /** Points and sales, as they stand before this step. */
  ledgerView: LedgerView;
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
  /** Whether a game, a cue, a picture or a sound is there: what names one that is gone can’t be done. */
  has: (what: "game" | "cue" | "picture" | "sound", id: string) => boolean;
  /** What an emoji is called, for whoever says it; null for one nobody knows. */
  emojiName: (emoji: string) => string | null;
  /** Whether a chat word means something on this channel already. */
  isWord: (word: string) => boolean;
  /** Secrets of rounds of chance: promised now, opened when they are drawn. */
  vault: Vault;
}>;

export type FilmOf = Readonly<{
  name: string;
  url: string;
  poster: string;
  ms: number;
  width: number;
  height: number;
  audible: boolean;
  flashing: Flashing;
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

/** The same as it is read again; `seq` of the signal that brought it. */
export type RecalledRow = Pick<Kept, "kind" | "viewer" | "fromMs" | "body"> & Readonly<{ seq: number }>;

export type StepOutcome<D, T, E> = Readonly<{
  durable: D;
  transient: T;
  effects: readonly E[];
  notes: readonly Note[];
  orders?: readonly Order[];
  kept?: readonly Kept[];
  booking?: Booking;
}>;

export type Audience = "overlay" | "viewer" | "operator";

/** What a module lets the rest of the channel know; the engine puts what all of them say together. */
export type Provided = Readonly<{
  pointsName?: string;
  /** Where a day of points begins, minutes from UTC. */
  dayOffsetMin?: number;
  money?: MoneySettings;
  hiddenWords?: readonly string[];
  queues?: readonly QueueSettings[];
  /** Whose picture is not to be shown, by their names; `mark` grows with every change. */
  noFaces?: Readonly<{ mark: number; names: readonly string[] }>;
  /** The scene that the studio is in; null where nobody knows. */
  scene?: string | null;
  /** What can be bought for points, by id. */
  sells?: readonly string[];
  /** Cues there are, by id. */
  cues?: readonly string[];
  show?: Readonly<{ state: "off" | "rehearsing" | "on"; id: string; sinceMs: number }> | null;
}>;
/** What may be done about one note, the likeliest first: the next one is offered when that is refused. */
export type TakeBack = Readonly<{ label: string; did: string; command: Command }>;

/** How a studio stands, as modules are told it. */
export type StudioFacts = Readonly<{ connected: boolean; name: string; scenes: readonly string[]; current: string | null }>;

/** A queue in which what is shown takes turns. */
export type QueueSettings = Readonly<{ id: string; name: string; gapMs: number; mostWaiting: number }>;

/**
 * A module of a channel: a game, or what is none (points, rewards, rules, cues, chat commands, the show). The engine
 * knows none of them by name: what it needs to know stands here. What has a question mark has a default.
 */
export type Module<S, D, T, E> = Readonly<{
  kind: string;
  settings: z.ZodType<S>;
  defaults: S;
  freshDurable: (settings: S) => D;
  freshDust: () => T;
  durable: z.ZodType<D>;
  step: (at: Readonly<{ settings: S; durable: D; transient: T }>, signal: Signal, ctx: StepContext) => StepOutcome<D, T, E>;
  /** What an audience may see. An allow-list: what is not named here is not seen. */
  view: (settings: S, durable: D, audience: Audience, transient?: T) => Readonly<Record<string, unknown>>;
  /** What older versions stored, and how it becomes what this one reads; none while there was but one version. */
  settingsSteps?: Steps;
  stateSteps?: Steps;
  /**
   * What of its state is kept row by row, not as one text with every commit: entries of a round, by the ten thousand. In
   * memory the state holds them; `stored` is what is written of it, and the rows of these kinds since then make it whole.
   */
  rows?: Readonly<{
    kinds: readonly string[];
    stored: (durable: D) => unknown;
    /** From where on its rows count; null while it has none. */
    since: (durable: D) => Readonly<{ seq: number; atMs: number }> | null;
    recall: (durable: D, rows: readonly RecalledRow[]) => D;
  }>;
  /** Its state without somebody who wants to be forgotten; the same object where nothing names them. Left out where it names nobody for long. */
  forget?: (durable: D, viewer: string) => D;
  /** When it wants a timer signal next, UTC milliseconds; null for never. */
  dueMs?: (settings: S, durable: D) => number | null;
  /** Which signals it hears beside timers and commands of its own; what the crowd and the platform send when left out. */
  hears?: readonly Signal["kind"][];
  /** Signals it decides upon: others hear them only when it announces them. */
  decides?: readonly Signal["kind"][];
  /** What it can be told to do beside a game's actions, by name: the shape of what comes with it. */
  commands?: Readonly<Record<string, z.ZodType>>;
  /** Those of its commands that a viewer may give in their own name, on the viewer page. */
  viewerCommands?: readonly string[];
  /** What is one viewer's own in it, for their viewer page; null where nothing is. */
  mine?: (settings: S, durable: D, viewer: string) => Readonly<Record<string, unknown>> | null;
  /** How many points lie in it, put in by viewers and not decided yet; null while it is paying, so that nobody can say. */
  pool?: (durable: D) => number | null;
  /** A channel has just one, so that a command may name it by its kind. */
  single?: boolean;
  /** Commands that come from it count as an operator's: what somebody planned, or asks for in chat. */
  speaksForOperators?: boolean;
  provides?: (settings: S, durable: D) => Provided;
  /** Whether a signal goes no further: nobody hears it, with the reason; or nobody answers it in chat. */
  stops?: (settings: S, durable: D, signal: Signal) => Refusal | "unanswered" | null;
  /** Whether the text of this signal is meant for it: then whoever reads all texts leaves this one alone. */
  takesText?: (settings: S, durable: D, signal: Signal) => boolean;
  /** Whether it reads texts that are meant for nobody else, and so does not hear of one that another module takes. */
  leavesTaken?: (settings: S) => boolean;
  /** Chat words that mean something to it. */
  chatWords?: (settings: S) => readonly string[];
  /** What of them viewers are told, in the order in which they read it. */
  wordsForViewers?: (settings: S, pointsName: string) => readonly Readonly<{ word: string; what: string }>[];
  /** The command by which a sale is given back, for who sells. */
  givesBack?: (sale: string) => Command;
  /** A sale of long ago that a command is about: it is fetched first. */
  saleOf?: (command: Command) => string | null;
  /** How it keeps what others stood like before a rehearsal. */
  snapshot?: Readonly<{
    of: (durable: D) => Readonly<Record<string, unknown>> | null;
    with: (durable: D, states: Record<string, unknown> | null) => D;
  }>;
  /** What it believes of the studio: where that differs it is told, by a command `stands`. `busy`: it waits for an answer. */
  knowsOfStudio?: (durable: D) => StudioFacts & Readonly<{ busy: boolean }>;
  /** Its state is on the picture, as `alerts` in its view for overlays. */
  onStage?: boolean;
  /** What undoes something that it noted. */
  takeBack?: (note: Note) => readonly TakeBack[];
  /** What the odds lab can be asked about it. */
  lab?: readonly LabQuestion[];
  /** A note in plain words: beside a message, in the try-it strip, as an answer in chat. */
  noteInWords: (note: Note) => string;
  /** The same in a word or two, for a chip beside a message; the usual short words where it is null. */
  noteInShort?: (note: Note) => string | null;
}>;

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- each module's own types are erased here; its schemas parse what it is given
export type AnyModule = Module<any, any, any, any>;

/** A context for tests and previews, where nothing of a channel is known. */
export const bareContext = (emotes: EmoteIndex, part: Partial<StepContext> = {}): StepContext => ({
  emotes,
  salt: 77,
  channelName: "Saltmarsh Kiln",
  homeCurrency: "EUR",
  soundMs: () => 0,
  videoMs: () => 0,
  filmOf: () => null,
  pictureNamed: () => null,
  gameKind: () => "",
  gameName: (id) => id,
  ledgerView: emptyLedgerView,
  hushed: false,
  showId: null,
  rehearsing: false,
  hiddenWords: [],
  pointsName: "points",
  gameRuns: () => true,
  has: () => true,
  emojiName: () => null,
  isWord: () => false,
  vault: openVault("practice"),
  ...part,
});
/** How a module tells its notes, and how what they tell is taken back. */
export type NoteWords = Pick<AnyModule, "kind" | "noteInWords" | "noteInShort" | "takeBack">;
