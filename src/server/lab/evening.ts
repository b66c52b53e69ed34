import type { Vault } from "../../core/chance/vault";
import type { EmoteIndex } from "../../core/chat/emotes";
import type { Arrival } from "../../core/lab/arrivals";
import type { GivenSignal } from "../../core/module/game";
import type { LabAt, LabMeasure, LabScript, LabSeen } from "../../core/module/lab";
import type { StepContext } from "../../core/module/module";
import type { Order } from "../../core/module/order";
import type { Command, Signal } from "../../core/signals/signal";
import type { Viewer } from "../../core/signals/names";
import type { Kit } from "../engine/context";
import type { LedgerCache } from "../engine/ledger-cache";
import { hears, type Running } from "../engine/modules";
import { takeTurn } from "../engine/turn";
import type { Turn, TurnKit } from "../engine/turn-kit";

export type EveningOf = Readonly<{ value: number | null; signals: number }>;
export type EveningKit = Readonly<{
  modules: readonly Running[];
  /** Who begins the show; null for an evening without one. */
  show: Running | null;
  ctx: () => Kit;
  ledger: LedgerCache;
  emotes: EmoteIndex;
  vault: Vault;
  nextSeq: () => number;
  /** In whose name the show is begun, and commands of the script are given; the lab's when left out. */
  by?: string;
  /** Told of every turn that is taken; then none is taken for a step alone. */
  onTurn?: (turn: Turn) => void;
}>;

/** Rules that wake themselves for ever would never end an evening. */
const mostTimers = 200_000;
/** So long after the last of a script what it led to is waited for. */
const settleMs = 10 * 60_000;
/** A voice takes so long to be made, and so long to say a letter. */
const madeMs = 300;
const letterMs = 65;

const nothing: readonly never[] = [];

type Waiting = Readonly<{ afterMs: number; signal: GivenSignal; to: Running | null; source: string }>;

/** One evening of a channel on copies, from its first signal to its last, as fast as the rules can step. */
export class Evening {
  private readonly waiting: Waiting[] = [];
  private timers = 0;
  private dueMs = Infinity;
  private due: Running | null = null;
  private readonly turnKit: TurnKit;
  private readonly target: Running | null;
  /** Who hears a kind, where nothing but their steps comes of it; null where more may. */
  private readonly hearing = new Map<Signal["kind"], readonly Running[] | null>();
  private readonly before: Readonly<{ durable: unknown; transient: unknown }>[] = [];

  constructor(
    private readonly kit: EveningKit,
    private readonly measure: LabMeasure,
    private readonly at: LabAt,
  ) {
    const { modules, show, ledger, emotes } = kit;
    const shared = {
      emotes,
      nextSeq: kit.nextSeq,
      idFromOutside: false,
      apply: (seq: number, booking: Parameters<TurnKit["apply"]>[1]) => ledger.apply(seq, booking),
    };
    if (show !== null) {
      const all = modules.includes(show) ? modules : [show, ...modules];
      const first: Command = { do: "show", what: "on-air" };
      const signal = { kind: "command", gameId: show.id, by: kit.by ?? "the lab", viewer: null, command: first } as const;
      const begins = { seq: kit.nextSeq(), atMs: at.fromMs, id: "begins", ...signal } as Signal;
      const turn = takeTurn(begins, "operator", show, { ...shared, modules: all, ctx: { ...kit.ctx(), vault: kit.vault } });
      kit.onTurn?.(turn);
    }
    // The show that runs is the same one all evening long: what steps are told of the channel is made once.
    const ctx: StepContext = { ...kit.ctx(), vault: kit.vault, emotes };
    this.turnKit = { ...shared, modules, ctx };
    this.stoppers = modules.filter((m) => m.rules.stops !== undefined);
    this.target = modules.find((m) => m.id === at.id) ?? null;
    this.look();
  }

  play(crowd: Iterable<Arrival>, script: LabScript): EveningOf {
    const { at, measure } = this;
    const [arriving, scripted] = [crowd[Symbol.iterator](), script[Symbol.iterator]()];
    let [next, line] = [arriving.next(), scripted.next()];
    let signals = 0;
    let lastMs = 0;
    for (;;) {
      const crowdMs = next.done === true ? Infinity : next.value.afterMs;
      const lineMs = line.done === true ? Infinity : line.value.afterMs;
      const waitMs = this.waiting[0]?.afterMs ?? Infinity;
      const timerMs = this.dueMs - at.fromMs;
      const soonest = Math.min(crowdMs, lineMs, waitMs, timerMs);
      // With nothing more to come, what is under way is waited for; a crowd's evening ends on time.
      if (soonest === Infinity || (crowdMs === Infinity && lineMs === Infinity && soonest > (at.ms > 0 ? at.ms : lastMs + settleMs))) break;
      if (waitMs === soonest) {
        const waits = this.waiting.shift();
        if (waits !== undefined) this.step(waits.signal, waits.to, waits.source, waits.afterMs);
      } else if (timerMs === soonest) {
        this.timers += 1;
        if (this.timers > mostTimers) break;
        const due = this.due;
        if (due !== null) this.step({ kind: "timer", moduleId: due.id }, due, "timer", Math.max(0, timerMs));
      } else if (lineMs === soonest && line.done !== true) {
        const said = line.value;
        lastMs = said.afterMs;
        signals += 1;
        if ("signal" in said) this.step(said.signal, null, "chat", said.afterMs);
        else this.command(this.target, said.command, said.viewer ?? null, said.afterMs);
        line = scripted.next();
      } else if (next.done !== true) {
        signals += 1;
        const { signal, afterMs } = next.value;
        signal.seq = this.kit.nextSeq();
        signal.atMs = Math.round(at.fromMs + afterMs);
        signal.id = `lab${signals}`;
        this.take(signal, null, signal.kind === "message" ? "chat" : "platform", afterMs);
        next = arriving.next();
      }
      if (measure.knows?.() === true) break;
    }
    return { value: measure.value(), signals };
  }

  private command(
    to: Running | null,
    command: Command,
    viewer: Viewer | null,
    afterMs: number,
    by = this.kit.by ?? "the lab",
    source = "operator",
  ): void {
    if (to === null) return;
    this.step({ kind: "command", gameId: to.id, by, viewer, command }, to, source, afterMs);
  }

  private step(given: GivenSignal, to: Running | null, source: string, afterMs: number): void {
    const seq = this.kit.nextSeq();
    this.take({ ...given, seq, atMs: Math.round(this.at.fromMs + afterMs), id: `lab${seq}` } as Signal, to, source, afterMs);
  }
  private take(signal: Signal, to: Running | null, source: string, afterMs: number): void {
    this.kit.ledger.nowMs = signal.atMs;
    if (to === null && this.kit.onTurn === undefined && this.alone(signal, afterMs)) return;
    const turn = takeTurn(signal, source, to, this.turnKit);
    this.kit.onTurn?.(turn);
    this.follow(turn, afterMs);
    this.measure.see({
      afterMs,
      notes: turn.notes,
      entries: turn.booked.length === 0 ? nothing : turn.booked.flatMap((b) => b.booking.entries),
      prices: turn.booked.length === 0 ? nothing : turn.booked.flatMap((b) => b.booking.prices),
      durable: this.target?.durable,
    });
    if (turn.changed.size > 0 || to === this.due) this.look();
  }

  /** Whether something comes of an order here, where nobody sees or hears anything. */
  private readonly leads = (order: Order): boolean => {
    if (order.do === "emit") return (this.answers ??= this.kit.modules.some((m) => hears(m, "happened")));
    return order.do !== "say" && order.do !== "show" && order.do !== "end-alert" && order.do !== "answer";
  };
  private answers: boolean | null = null;
  private readonly stoppers: readonly Running[];

  /**
   * Most signals lead to nothing but a step of each who hears them: then that is the whole turn. Steps are pure, so where one
   * orders or books something all are as they were before, and the turn is taken. Whether it was the whole.
   */
  private alone(signal: Signal, afterMs: number): boolean {
    let hearing = this.hearing.get(signal.kind);
    if (hearing === undefined) {
      const { modules } = this.kit;
      const plain = modules.every((m) => m.rules.decides?.includes(signal.kind) !== true);
      hearing = plain ? modules.filter((m) => hears(m, signal.kind)) : null;
      this.hearing.set(signal.kind, hearing);
    }
    if (hearing === null || this.stoppers.some((m) => m.rules.stops?.(m.settings, m.durable, signal) != null)) return false;
    const { before } = this;
    let changed = false;
    let notes: LabSeen["notes"] = nothing;
    for (let i = 0; i < hearing.length; i += 1) {
      const module = hearing[i] as Running;
      const { durable, transient } = module;
      const outcome = module.rules.step({ settings: module.settings, durable, transient }, signal, this.turnKit.ctx as StepContext);
      if (outcome.booking !== undefined || (outcome.orders !== undefined && outcome.orders.some(this.leads))) {
        for (let j = i - 1; j >= 0; j -= 1) Object.assign(hearing[j] as Running, before[j]);
        return false;
      }
      before[i] = { durable, transient };
      module.durable = outcome.durable;
      module.transient = outcome.transient;
      if (outcome.durable !== durable) changed = true;
      if (outcome.notes.length > 0) notes = [...notes, ...outcome.notes.map((note) => ({ game: module.id, note }))];
    }
    if (changed || notes.length > 0) this.measure.see({ afterMs, notes, entries: nothing, prices: nothing, durable: this.target?.durable });
    if (changed) this.look();
    return true;
  }

  /** What a module would wait for outside comes as it usually does. */
  private follow(turn: Turn, afterMs: number): void {
    const tell = (game: string, inMs: number, command: Command, by: string, viewer: Viewer | null = null): void => {
      const to = this.kit.modules.find((m) => m.id === game) ?? null;
      if (to !== null)
        this.later({ afterMs: afterMs + inMs, signal: { kind: "command", gameId: game, by, viewer, command }, to, source: "engine" });
    };
    for (const { game, n, text, ahead } of turn.speeches)
      if (!ahead) tell(game, madeMs, { do: "made", n, url: "/lab", ms: Math.max(500, text.length * letterMs) }, "the voice");
    for (const { game, n } of turn.scenes) tell(game, 50, { do: "went", n }, "the studio");
    for (const { game, n } of turn.films) tell(game, madeMs, { do: "not-filmed", n, code: "video/broken", facts: {} }, "the projector");
    for (const { game, viewer, command } of turn.apart)
      if (command !== null) tell(game, 0, command, viewer.name, viewer);
      else this.later({ afterMs, signal: { kind: "arrival", viewer, shows: 0, beforeMs: null }, to: null, source: "chat" });
  }
  private later(waits: Waiting): void {
    const { waiting } = this;
    let i = waiting.length;
    while (i > 0 && (waiting[i - 1]?.afterMs ?? 0) > waits.afterMs) i -= 1;
    waiting.splice(i, 0, waits);
  }

  /** Who wants to be woken first. */
  private look(): void {
    this.dueMs = Infinity;
    this.due = null;
    for (const m of this.kit.modules) {
      const due = m.rules.dueMs?.(m.settings, m.durable) ?? null;
      if (due === null || due >= this.dueMs) continue;
      this.dueMs = due;
      this.due = m;
    }
  }
}
