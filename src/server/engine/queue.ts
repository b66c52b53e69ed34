import type { EmoteIndex } from "../../core/chat/emotes";
import { ok, type Result } from "../../core/kernel/refusal";
import { markOf } from "../../core/show/timeline";
import type { Command, Signal } from "../../core/signals/signal";
import { nameOf, type Viewer } from "../../core/signals/names";
import type { Voice } from "../../core/speech/voice";
import type { Publication } from "../ports/bus";
import type { Committer } from "./committer";
import type { ChannelContext } from "./context";
import type { LedgerCache } from "./ledger-cache";
import type { TransientLog } from "./transient-log";
import type { Films } from "./films";
import type { Modules, Running } from "./modules";
import type { AlertBoard } from "./alert-board";
import { talkText } from "./talk-text";
import { takeTurn } from "./turn";
import type { ModuleNote, Turn } from "./turn-kit";

export type Outcome = Result<readonly ModuleNote[]>;
/** A signal on its way: without a number, which it gets on arrival. */
type Unnumbered<T> = T extends unknown ? Omit<T, "seq"> : never;
export type Arriving = Readonly<{
  signal: Unnumbered<Signal>;
  source: string;
  /** Whom it is for; all who hear it when left out. */
  to?: Running;
  /** It is stored whatever it comes to. */
  mustKeep?: boolean;
  /** Others made its id, and may send it again. */
  idFromOutside?: boolean;
}>;
export type QueueDeps = Readonly<{
  modules: Modules;
  context: ChannelContext;
  ledgerView: LedgerCache;
  alerts: AlertBoard;
  log: TransientLog;
  commits: Committer;
  emotes: () => EmoteIndex;
  hushed: () => boolean;
  publish: (publication: Publication) => void;
  say: (text: string, seq: number, atMs: number) => void;
  hush: (on: boolean) => void;
  now: () => number;
  /** What the platform tells of somebody, as a command for who asked. Never fails. */
  lookUp: (name: string) => Promise<Command>;
  /** A text as sound: where it is to be had, and how long it is; null when it can't be had. Never fails. */
  speech: (text: string, voice: Voice) => Promise<Readonly<{ url: string; ms: number }> | null>;
  /** Has the studio go to a scene: null when it is there, else why it is not. Never fails, and never waits for long. */
  studio: (scene: string) => Promise<string | null>;
  films: Pick<Films, "order" | "drop">;
  /** Something durable changed: what is due may be due earlier. */
  changed: () => void;
  salesChanged: () => void;
}>;
type Job = Readonly<{ signal: Signal; of: Arriving; resolve: (outcome: Outcome) => void }>;
/** What became of a signal, and whether points were to move by it. */
export type Taking = Readonly<{ done: Promise<Outcome>; pays: () => boolean }>;

/**
 * One queue for one channel. Signals are stepped in the order of their arrival; what changes durable
 * state is committed, together with all else that waits, before anyone hears of it; what does not (the transient)
 * is shown at once and logged in batches, and goes on while the database is away.
 */
export class SignalQueue {
  constructor(
    private readonly deps: QueueDeps,
    private seq: number,
  ) {}
  private facesMark = 0;

  /** Numbers go on from what is stored. */
  goOnFrom(last: number): void {
    this.seq = Math.max(this.seq, last);
  }

  /** Steps a signal now; what it comes to is told when it is committed, or at once when it is transient. */
  take(of: Arriving): Taking {
    this.seq += 1;
    // The id and all else came with it.
    const signal = { ...of.signal, seq: this.seq } as Signal;
    let resolve: Job["resolve"] = () => undefined;
    const done = new Promise<Outcome>((r) => (resolve = r));
    let pays = false;
    this.step({ signal, of, resolve }, (does) => (pays = does));
    return { done, pays: () => pays };
  }

  private step(job: Job, pays: (does: boolean) => void): void {
    const { signal, of, resolve } = job;
    const { modules, context, ledgerView, log, commits } = this.deps;
    // Settings may have been taken up since: the module of now is meant.
    const to = of.to === undefined ? null : (modules.byId(of.to.id) ?? of.to);
    if ("viewer" in signal && signal.viewer !== null) ledgerView.meet(signal.viewer);
    const turn = takeTurn(signal, of.source, to, {
      modules: modules.list,
      emotes: this.deps.emotes(),
      ctx: context.at(signal.atMs, this.deps.hushed()),
      nextSeq: () => (this.seq += 1),
      idFromOutside: of.idFromOutside ?? true,
      apply: (seq, booking) => ledgerView.apply(seq, booking),
    });
    pays(turn.booked.length > 0);
    const publish = (): void => this.publish(turn, signal);
    if (of.mustKeep !== true && turn.changed.size === 0 && turn.kept.length === 0 && turn.booked.length === 0) {
      publish();
      for (const row of turn.rows) log.add(row);
      return resolve(ok(turn.notes));
    }
    commits.add({
      turn,
      changes: ledgerView.changes,
      publish,
      done: (result) => resolve(result.ok ? ok(turn.notes) : result),
      again: () => this.step(job, pays),
    });
  }

  private publish(turn: Turn, signal: Signal): void {
    const { publish, alerts, modules } = this.deps;
    for (const { id, rules } of turn.changed) publish(rules.onStage === true ? { kind: "stage" } : { kind: "state", game: id });
    for (const { rules, settings, durable } of turn.changed) {
      const faces = rules.provides?.(settings, durable).noFaces?.mark ?? this.facesMark;
      // Whose picture is not to be shown any more is seen nowhere, at once.
      if (faces !== this.facesMark) publish({ kind: "stage" });
      this.facesMark = faces;
    }
    // Under hush, what is transient is simply not shown; games go on counting.
    if (!this.deps.hushed()) for (const { game, effects } of turn.effects) publish({ kind: "effects", game, effects });
    if (turn.ends.length > 0) publish({ kind: "alert-end", ids: turn.ends });
    for (const { queue, alert } of turn.shows) alerts.show(queue, alert);
    for (const { booking } of turn.booked) {
      if (booking.sales.length > 0) this.deps.salesChanged();
      publish({ kind: "booked", booking });
    }
    if (turn.hush !== null) this.deps.hush(turn.hush);
    for (const row of turn.rows) {
      if (row.kind === "message") continue;
      const mark = markOf(row, (game) => modules.byId(game)?.kind ?? "");
      if (mark !== null) publish({ kind: "mark", mark });
    }
    // Those say something only when something came of it.
    const quiet = signal.kind === "timer" || signal.kind === "arrival";
    if (signal.kind !== "here" && (!quiet || turn.notes.length > 0)) publish(talkOf(signal, turn));
    for (const text of turn.says) if (text !== "") this.deps.say(text, signal.seq, signal.atMs);
    if (turn.changed.size > 0) this.deps.changed();
    /** Gives a module what it waits for; it may have been removed meanwhile. */
    const tell = (game: string, by: string, viewer: Viewer | null, command: Command): void => {
      const to = modules.byId(game);
      if (to === undefined) return;
      const told = { kind: "command" as const, atMs: this.deps.now(), id: `told.${signal.seq}`, gameId: game, by, viewer, command };
      void this.take({ signal: told, source: "engine", to, idFromOutside: false }).done;
    };
    for (const { game, name } of turn.lookUps) void this.deps.lookUp(name).then((command) => tell(game, "the platform", null, command));
    for (const { game, n, text, voice, ahead } of turn.speeches)
      void this.deps.speech(text, voice).then((made) => {
        if (!ahead) tell(game, "the voice", null, made === null ? { do: "not-made", n } : { do: "made", n, ...made });
      });
    for (const { game, n, scene } of turn.scenes)
      void this.deps
        .studio(scene)
        .then((why) => tell(game, "the studio", null, why === null ? { do: "went", n } : { do: "not-went", n, why }));
    for (const wanted of turn.films)
      void this.deps.films.order(wanted).then((command) => command !== null && tell(wanted.game, "the projector", null, command));
    for (const { game, n } of turn.unfilms) void this.deps.films.drop(game, n);
    for (const { game, viewer, command } of turn.apart) {
      if (command !== null) {
        tell(game, viewer.name, viewer, command);
        continue;
      }
      const arrival = { kind: "arrival" as const, atMs: signal.atMs, id: `arrival.${signal.seq}`, viewer, shows: 0, beforeMs: null };
      void this.take({ signal: arrival, source: "chat", idFromOutside: false }).done;
    }
  }
}

const talkOf = (signal: Signal, turn: Turn): Publication => ({
  kind: "talk",
  seq: signal.seq,
  atMs: signal.atMs,
  of: signal.kind,
  name: signal.kind === "timer" ? "" : signal.kind === "command" || signal.kind === "cue" ? signal.by : nameOf(signal.viewer),
  viewer: signal.kind === "timer" || signal.viewer === null ? null : { id: signal.viewer.id, roles: signal.viewer.roles },
  text: talkText(signal),
  notes: turn.notes,
});
