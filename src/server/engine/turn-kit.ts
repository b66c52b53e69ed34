import type { Alert } from "../../core/alerts/alert";
import type { EmoteIndex } from "../../core/chat/emotes";
import type { GameId } from "../../core/kernel/ids";
import type { FilmRequest } from "../../core/props/film";
import type { Note, StepContext } from "../../core/module/module";
import type { Booking } from "../../core/rewards/ledger-view";
import type { Command } from "../../core/signals/signal";
import type { Viewer } from "../../core/signals/names";
import type { Voice } from "../../core/speech/voice";
import type { Booked, KeptRow, LogRow } from "../ports/engine-store";
import type { Running } from "./modules";

export type ModuleNote = Readonly<{ game: string; note: Note }>;
/** All that comes of one signal, orders included. Nothing of it is told before it is committed. */
export type Turn = {
  rows: LogRow[];
  changed: Set<Running>;
  /** Where each of those stood after it, and what is written of that: later signals may have moved on by the time it is committed. */
  after: ReadonlyMap<GameId, Readonly<{ durable: unknown; stored: unknown; version: number }>>;
  kept: KeptRow[];
  booked: Booked[];
  effects: { game: GameId; effects: readonly unknown[] }[];
  notes: ModuleNote[];
  says: string[];
  shows: { queue: string; alert: Alert }[];
  /** What is to end on every page. */
  ends: string[];
  /** Whom a module wants to be looked for on the platform. */
  lookUps: { game: GameId; name: string }[];
  /** What is looked at in turns of their own: who may be here for the first time, and commands a module gives itself for somebody. */
  apart: { game: GameId; viewer: Viewer; command: Command | null }[];
  /** Texts that are to be made into sound; `ahead` only so that they are there when they are asked for. */
  speeches: { game: GameId; n: number; text: string; voice: Voice; ahead: boolean }[];
  /** Scenes to which the studio is to go. */
  scenes: { game: GameId; n: number; scene: string }[];
  /** Moving pictures that are to be made, and those that are not any more. */
  films: { game: GameId; n: number; request: FilmRequest; source: string; name: string }[];
  unfilms: { game: GameId; n: number }[];
  /** The last word on hush, when somebody said one. */
  hush: boolean | null;
};
export type TurnKit = Readonly<{
  modules: readonly Running[];
  emotes: EmoteIndex;
  ctx: Omit<StepContext, "emotes">;
  nextSeq: () => number;
  /** Whether the signal's id is one that others made, and may send again. */
  idFromOutside: boolean;
  /** Counts a booking at once, so that what is stepped next sees it. */
  apply: (seq: number, booking: Booking) => Booked;
}>;

export const freshTurn = (): Turn => ({
  rows: [],
  changed: new Set(),
  after: new Map(),
  kept: [],
  booked: [],
  effects: [],
  notes: [],
  says: [],
  shows: [],
  ends: [],
  apart: [],
  lookUps: [],
  speeches: [],
  scenes: [],
  films: [],
  unfilms: [],
  hush: null,
});
