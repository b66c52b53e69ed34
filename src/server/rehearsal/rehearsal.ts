import type { Alert } from "../../core/alerts/alert";
import type { ChannelId } from "../../core/kernel/ids";
import { ok, type Refusal, refusal, refused, type Result } from "../../core/kernel/refusal";
import { type GivenAsk, longestMs, type Source, type Steer } from "../../core/rehearsal/plan";
import type { ReportPart } from "../../core/rehearsal/report";
import type { RehearsalStanding } from "../../core/wire/messages";
import type { Bus } from "../ports/bus";
import type { ChannelRow, LedgerRows } from "../ports/engine-store";
import { passingVault } from "../engine/vault";
import { Runner, type RunnerDeps } from "../engine/runner";
import { RehearsalClock } from "./clock";
import type { Coming } from "./crowd";
import { give, signalOf } from "./hands";
import { Observer } from "./observer";
import { quietBus } from "./quiet-bus";
import { type Comings, comingsOf, comingsOfRoom, type Logged } from "./sources";
import { rehearsalStore } from "./store";

export type RehearsalParts = Readonly<{
  bus: Bus;
  /** Speaks in the channel's chat; only asked while chat is wanted. */
  say: (text: string) => boolean;
  speech: RunnerDeps["speech"];
  lookUp: RunnerDeps["lookUp"];
  logged: Logged;
  realMs?: () => number;
  onError: (what: string, error: unknown) => void;
}>;
export type RehearsalOf = Readonly<{
  id: ChannelId;
  channel: ChannelId;
  row: ChannelRow;
  ledger: LedgerRows;
  fromMs: number;
  by: string;
  source: Source;
  pace: number;
  chat: boolean;
}>;
const beatMs = 50;
/** The engine's thread is never held longer at a time. */
const sliceMs = 8;
/** Numbers of its signals begin where no stored one reaches. */
const firstSeq = 1_000_000_000;
const breath = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/**
 * A whole channel on copies, with a time and a crowd of its own. It is a runner like the channel's: the same queue, rules,
 * ledger and clocks, but what it writes is forgotten and its time is moved on by hand. Gone with the process; nothing of it
 * was ever anywhere else.
 */
export class Rehearsal {
  readonly runner: Runner;
  readonly observer: Observer;
  /** What was learnt; null while it is not over. */
  report: readonly ReportPart[] | null = null;
  private readonly clock: RehearsalClock;
  private readonly unsubscribe: () => void;
  private state: RehearsalStanding["state"] = "runs";
  private pace: number;
  private chat: boolean;
  private crowd = "first";
  private source: Comings;
  private next: Coming | null = null;
  private anchor: Readonly<{ atMs: number; realMs: number }>;
  private jumpToMs = 0;
  /** What it does once a jump is over: as before it. */
  private then: "runs" | "paused" = "runs";
  private count = 0;
  private why: Refusal | null = null;
  private driving: Promise<void> = Promise.resolve();
  private moving = false;
  private playedOut = false;
  private stopped = false;
  private timer: NodeJS.Timeout | null = null;
  /** Whether the channel's overlay pages show it. Kept here, done by who has the pages. */
  overlays = false;
  onChange: () => void = () => undefined;

  constructor(
    private readonly parts: RehearsalParts,
    readonly of: RehearsalOf,
  ) {
    const { bus, onError } = parts;
    const { row, ledger, fromMs } = of;
    this.clock = new RehearsalClock(fromMs);
    this.pace = of.pace;
    this.chat = of.chat;
    // What is stored goes to who watches, and nowhere else; the runner is there before anything is.
    const store = rehearsalStore(row, ledger, () => this.observer);
    this.runner = new Runner(
      {
        store,
        clock: this.clock,
        bus: quietBus(bus, () => this.state === "jumps", this.passed),
        onError,
        // It is shown as said, and chat hears it only where that is wanted.
        say: (text) => (this.chat ? parts.say(text) : true),
        studio: async () => ok(null),
        ...(parts.speech === undefined ? {} : { speech: parts.speech }),
        ...(parts.lookUp === undefined ? {} : { lookUp: parts.lookUp }),
        vault: passingVault(),
      },
      row,
      firstSeq,
      ledger,
    );
    this.observer = new Observer(this.runner, fromMs, this.clock.now, ledger);
    this.unsubscribe = bus.subscribe((channel, publication) => {
      if (channel !== of.id) return;
      this.observer.heard(publication);
      // With no overlay page there is nobody to say that it was shown: here that is taken as done.
      if (publication.kind === "alert" && !this.overlays) this.passed(publication.alert);
    });
    this.anchor = { atMs: fromMs, realMs: this.realMs() };
    this.source = this.sourceOf("first");
  }

  private readonly passed = ({ sale }: Alert): void => void (sale !== undefined && this.runner.shown([sale], "whole"));
  private readonly realMs = (): number => this.parts.realMs?.() ?? performance.now();

  /** Begins the show on the copy, and its time. */
  async begin(): Promise<Result<null>> {
    const show = this.runner.modules.list.find((m) => m.rules.snapshot !== undefined);
    if (show !== undefined) {
      const begun = await this.runner.requests.command(show.id, this.of.by, "rehearsal-begins", { do: "show", what: "on-air" });
      if (!begun.ok) return begun;
    }
    this.observer.begins();
    this.timer = setInterval(() => this.drive(), beatMs);
    this.timer.unref();
    return ok(null);
  }
  private sourceOf(crowd: string): Comings {
    const { source, row, ledger, fromMs } = this.of;
    const at = { row, ledger, fromMs, runner: this.runner, afterMs: this.clock.now() - fromMs, nowMs: this.clock.now };
    return crowd === "first" ? comingsOf(source, at, this.parts.logged) : comingsOfRoom(crowd, at);
  }

  /** Moves its time on by what went by here, as far as one slice allows. One drive at a time. */
  private drive(): void {
    if (this.moving || this.stopped || this.state === "paused" || this.state === "over") return;
    this.moving = true;
    this.driving = this.move()
      .catch((error: unknown) => {
        this.parts.onError("a rehearsal failed", error);
        this.end(refusal("rehearsal/broken"));
      })
      .finally(() => (this.moving = false));
  }

  private async move(): Promise<void> {
    const { fromMs } = this.of;
    const realMs = this.realMs();
    const jumps = this.state === "jumps";
    const target = Math.min(fromMs + longestMs, jumps ? this.jumpToMs : this.anchor.atMs + (realMs - this.anchor.realMs) * this.pace);
    let began = performance.now();
    while (!this.stopped && this.isMoving()) {
      this.next ??= await this.pull();
      const nextMs = this.next === null ? Infinity : Math.max(this.clock.now(), fromMs + this.next.afterMs);
      const dueMs = this.clock.dueMs;
      if (Math.min(nextMs, dueMs) > target) {
        this.clock.moveTo(target);
        break;
      }
      if (dueMs <= nextMs) {
        this.clock.ring();
        await this.settled();
      } else if (this.next !== null) {
        this.clock.moveTo(nextMs);
        const coming = this.next;
        this.next = null;
        this.give(coming);
        if (this.runner.busy) await this.settled();
      }
      if (performance.now() - began < sliceMs) continue;
      await breath();
      // It does not catch up with what it can't keep up with: then its pace is what it is. A jump goes on until it is there.
      if (!jumps && this.realMs() - realMs > 400) break;
      began = performance.now();
    }
    this.anchor = { atMs: this.clock.now(), realMs: this.realMs() };
    this.observer.look();
    if (this.state === "jumps" && this.clock.now() >= this.jumpToMs) {
      this.state = this.then;
      this.onChange();
    }
    if (this.clock.now() >= fromMs + longestMs) this.end(refusal("rehearsal/long"));
    // A crowd never ends; what was written down once does.
    const { from } = this.of.source;
    if (this.playedOut && this.crowd === "first" && (from === "log" || from === "lines")) this.end(refusal("rehearsal/played"));
  }
  private readonly isMoving = (): boolean => this.state === "runs" || this.state === "jumps";
  private async pull(): Promise<Coming | null> {
    const { source } = this;
    const said = await source.next();
    if (source !== this.source) return null;
    if (said.done === true) {
      this.playedOut = true;
      return null;
    }
    return said.value;
  }
  /** Until what was stepped is committed and told, and all that follows from it at this moment has begun. */
  private async settled(): Promise<void> {
    do await breath();
    while (this.runner.busy);
  }

  private give(coming: Coming): void {
    this.count += 1;
    give(this.runner, coming, `rehearsal-${this.count}`);
  }

  steer(what: Exclude<Steer, { do: "overlays" }>): Result<null> {
    if (this.state === "over") return refused("rehearsal/over");
    this.anchor = { atMs: this.clock.now(), realMs: this.realMs() };
    switch (what.do) {
      case "pause":
        this.state = "paused";
        break;
      case "go-on":
        this.state = "runs";
        break;
      case "pace":
        this.pace = what.pace;
        break;
      case "jump":
        if (this.state !== "jumps") this.then = this.state === "paused" ? "paused" : "runs";
        this.jumpToMs = Math.min(this.of.fromMs + longestMs, this.clock.now() + what.minutes * 60_000);
        this.state = "jumps";
        break;
      case "chat":
        this.chat = what.on;
        break;
      case "crowd":
        this.crowd = what.room;
        this.next = null;
        this.playedOut = false;
        this.source = this.sourceOf(what.room);
        break;
      case "end":
        this.end(null);
        break;
    }
    this.onChange();
    return ok(null);
  }

  /** One signal by hand, as any viewer: with the roles they have here. */
  async one(given: GivenAsk): Promise<Result<null>> {
    if (this.state === "over") return refused("rehearsal/over");
    const signal = signalOf(this.runner, given);
    if (signal === null) return refused("input/invalid", { why: "Somebody’s name is missing." });
    this.give({ afterMs: this.clock.now() - this.of.fromMs, signal });
    await this.settled();
    return ok(null);
  }

  /** It is over: because somebody said so, because all was played, or because the channel needs its own. */
  end(why: Refusal | null): void {
    if (this.state === "over") return;
    this.observer.look();
    this.state = "over";
    this.why = why;
    this.report = this.observer.learnt();
    if (this.timer !== null) clearInterval(this.timer);
    this.onChange();
  }
  get isOver(): boolean {
    return this.state === "over";
  }

  standing(): RehearsalStanding {
    const { of, state, pace, chat, crowd, overlays, why } = this;
    return {
      id: of.id,
      by: of.by,
      state,
      nowMs: this.clock.now(),
      fromMs: of.fromMs,
      pace,
      crowd: of.source.from === "nobody" ? "nobody" : of.source.name,
      crowdIs: crowd,
      chat,
      overlays,
      signals: this.count,
      why,
    };
  }

  async stop(): Promise<void> {
    this.stopped = true;
    this.end(this.why);
    await this.driving;
    this.unsubscribe();
    await this.runner.stop();
  }
}
