import { randomBytes } from "node:crypto";
import { channelId, type ChannelId } from "../../core/kernel/ids";
import { refusal, refused, ok, type Result } from "../../core/kernel/refusal";
import { type GivenAsk, mostRehearsals, type Source, type Steer } from "../../core/rehearsal/plan";
import type { ReportPart } from "../../core/rehearsal/report";
import type { RehearsalStanding } from "../../core/wire/messages";
import { readChannel } from "../engine/recall";
import { readLedger, type Runner } from "../engine/runner";
import type { Bus } from "../ports/bus";
import type { Clock } from "../ports/clock";
import type { ChannelRow, EngineStore } from "../ports/engine-store";
import { Rehearsal, type RehearsalParts } from "./rehearsal";

/** What was learnt is kept for so long, unless newer ones push it out. */
const keptMs = 6 * 3_600_000;
const mostKept = 6;
/** With nobody looking it stands still after so long, and is over after longer. */
const lonelyMs = { pause: 120_000, end: 30 * 60_000 };

export type RehearsalsParts = Pick<RehearsalParts, "onError"> &
  Readonly<{
    bus: Bus;
    clock: Clock;
    store: EngineStore;
    runners: ReadonlyMap<ChannelId, Runner>;
    /** Why a channel that does not run is not to be had. */
    absent: (channel: ChannelId) => Result<never>;
    say: (channel: ChannelId, text: string) => boolean;
    speech: RehearsalParts["speech"];
    lookUp: (channel: ChannelId, name: string) => ReturnType<NonNullable<RehearsalParts["lookUp"]>>;
    /** Who looks at it. */
    watchers: (rehearsal: ChannelId) => number;
    lend: (channel: ChannelId, to: ChannelId | null) => void;
    beat: (rehearsal: ChannelId, nowMs: number, pace: number) => void;
    frames: (rehearsal: ChannelId) => readonly Readonly<{ framesPerSecond: number; late: number }>[];
    gone: (rehearsal: ChannelId) => void;
    tell: () => void;
  }>;
type Kept = { rehearsal: Rehearsal; seenMs: number; overMs: number | null };
export type Begun = Readonly<{ source: Source; pace: number; chat: boolean; overlays: boolean; by: string }>;

/** All rehearsals of the channels of this process. In memory only: none of them is anybody's truth. */
export class Rehearsals {
  private readonly all = new Map<ChannelId, Kept>();
  private readonly beginning = new Set<ChannelId>();
  private readonly timer: NodeJS.Timeout;
  private readonly unsubscribe: () => void;

  constructor(private readonly parts: RehearsalsParts) {
    this.timer = setInterval(() => this.look(), 500);
    this.timer.unref();
    // When the show begins, by hand or on the platform's word, the picture, the chat and this machine are the show's.
    this.unsubscribe = parts.bus.subscribe((channel, publication) => {
      if (!parts.runners.has(channel)) return;
      if (publication.kind === "state") this.giveWay(channel);
      if (publication.kind === "stage") this.takeUp(channel);
    });
  }

  runner(id: ChannelId): Runner | undefined {
    return this.all.get(id)?.rehearsal.runner;
  }
  /** A rehearsal of this channel; null when it is none of its. */
  of(channel: ChannelId, id: string): Rehearsal | null {
    const found = this.all.get(channelId(id))?.rehearsal;
    return found?.of.channel === channel ? found : null;
  }
  channelOf(id: ChannelId): ChannelId {
    return this.all.get(id)?.rehearsal.of.channel ?? id;
  }
  standings(channel: ChannelId): RehearsalStanding[] {
    return this.ofChannel(channel).map((k) => k.rehearsal.standing());
  }
  standing(id: ChannelId): RehearsalStanding | null {
    return this.all.get(id)?.rehearsal.standing() ?? null;
  }
  report(channel: ChannelId, id: string): Result<Readonly<{ standing: RehearsalStanding; parts: readonly ReportPart[] | null }>> {
    const found = this.of(channel, id);
    return found === null ? refused("rehearsal/unknown") : ok({ standing: found.standing(), parts: found.report });
  }
  private ofChannel(channel: ChannelId): readonly Kept[] {
    return [...this.all.values()].filter((k) => k.rehearsal.of.channel === channel);
  }

  async begin(channel: ChannelId, asked: Begun): Promise<Result<Readonly<{ id: string }>>> {
    const { parts } = this;
    const live = parts.runners.get(channel);
    if (live === undefined) return parts.absent(channel);
    if ((live.modules.show()?.state ?? "off") !== "off") return refused("rehearsal/show-runs");
    const running = this.ofChannel(channel).filter((k) => !k.rehearsal.isOver).length;
    if (running >= mostRehearsals) return refused("rehearsal/too-many", { most: mostRehearsals });
    if (this.beginning.has(channel)) return refused("rehearsal/one-begins");
    if (asked.overlays) {
      const by = this.borrower(channel);
      if (by !== null) return refused("rehearsal/overlays-lent", { by });
    }
    this.beginning.add(channel);
    try {
      const row = await readChannel(parts.store, channel);
      if (row === null) return refused("channel/unknown");
      const fromMs = parts.clock.now();
      const ledger = await readLedger(parts.store, row, fromMs);
      const id = channelId(`rh-${randomBytes(8).toString("hex")}`);
      const rehearsal = new Rehearsal(
        {
          bus: parts.bus,
          onError: parts.onError,
          say: (text) => parts.say(channel, text),
          speech: parts.speech,
          lookUp: (name) => parts.lookUp(channel, name),
          logged: (at) => parts.store.logged(channel, { ...at, limit: 2_000 }),
        },
        { id, channel, row: copyOf(row, id), ledger, fromMs, by: asked.by, source: asked.source, pace: asked.pace, chat: asked.chat },
      );
      this.all.set(id, { rehearsal, seenMs: fromMs, overMs: null });
      rehearsal.onChange = () => parts.tell();
      const begun = await rehearsal.begin();
      if (!begun.ok) {
        await this.drop(id);
        return begun;
      }
      if (asked.overlays) this.overlays(rehearsal, true);
      // It may have begun while the copy was made.
      this.giveWay(channel);
      parts.tell();
      return ok({ id });
    } finally {
      this.beginning.delete(channel);
    }
  }

  steer(channel: ChannelId, id: string, what: Steer): Result<null> {
    const found = this.of(channel, id);
    if (found === null) return refused("rehearsal/unknown");
    if (what.do === "overlays") {
      if (found.isOver) return refused("rehearsal/over");
      const by = what.on && !found.overlays ? this.borrower(channel) : null;
      if (by !== null) return refused("rehearsal/overlays-lent", { by });
      this.overlays(found, what.on);
      return ok(null);
    }
    const done = found.steer(what);
    this.look();
    return done;
  }
  async one(channel: ChannelId, id: string, given: GivenAsk): Promise<Result<null>> {
    return (await this.of(channel, id)?.one(given)) ?? refused("rehearsal/unknown");
  }

  private borrower(channel: ChannelId): string | null {
    return this.ofChannel(channel).find((k) => k.rehearsal.overlays && !k.rehearsal.isOver)?.rehearsal.of.by ?? null;
  }
  private overlays(rehearsal: Rehearsal, on: boolean): void {
    rehearsal.overlays = on;
    this.parts.lend(rehearsal.of.channel, on ? rehearsal.of.id : null);
    this.parts.tell();
  }

  /** The channel's show runs: whatever rehearses it is over, and gives back what it borrowed. */
  private giveWay(channel: ChannelId): void {
    if (this.parts.runners.get(channel)?.modules.show()?.state !== "on") return;
    for (const { rehearsal } of this.ofChannel(channel)) if (!rehearsal.isOver) rehearsal.end(refusal("rehearsal/gave-way"));
    this.look();
  }

  /** What is published, placed or added meanwhile is in the next signal of its rehearsals too. */
  private takeUp(channel: ChannelId): void {
    const row = this.parts.runners.get(channel)?.row;
    if (row === undefined) return;
    for (const { rehearsal } of this.ofChannel(channel))
      if (!rehearsal.isOver && rehearsal.runner.row.revision !== row.revision) rehearsal.runner.reload(copyOf(row, rehearsal.of.id));
  }

  private look(): void {
    const { parts } = this;
    const nowMs = parts.clock.now();
    for (const [id, kept] of [...this.all]) {
      const { rehearsal } = kept;
      // The channel was removed, or belongs to another engine now.
      if (!parts.runners.has(rehearsal.of.channel)) rehearsal.end(refusal("rehearsal/gone"));
      const { state, nowMs: theirs, pace } = rehearsal.standing();
      rehearsal.observer.pages(parts.frames(id));
      if (parts.watchers(id) > 0) kept.seenMs = nowMs;
      if (rehearsal.isOver) {
        if (rehearsal.overlays) this.overlays(rehearsal, false);
        kept.overMs ??= nowMs;
        const newer = this.ofChannel(rehearsal.of.channel).filter((k) => k.overMs !== null && k.overMs > (kept.overMs ?? 0)).length;
        if (nowMs - kept.overMs > keptMs || newer >= mostKept) void this.drop(id);
        continue;
      }
      if (nowMs - kept.seenMs > lonelyMs.end) rehearsal.end(refusal("rehearsal/lonely"));
      else if (nowMs - kept.seenMs > lonelyMs.pause && state === "runs") rehearsal.steer({ do: "pause" });
      parts.beat(id, theirs, state === "paused" ? 0 : pace);
    }
  }

  private async drop(id: ChannelId): Promise<void> {
    const kept = this.all.get(id);
    this.all.delete(id);
    if (kept === undefined) return;
    if (kept.rehearsal.overlays) this.overlays(kept.rehearsal, false);
    await kept.rehearsal.stop();
    this.parts.gone(id);
  }

  async stop(): Promise<void> {
    clearInterval(this.timer);
    this.unsubscribe();
    for (const id of [...this.all.keys()]) await this.drop(id);
  }
}

/** What a rehearsal must not share with its channel: its name, its addresses, its secrets. */
const copyOf = (row: ChannelRow, id: ChannelId): ChannelRow => ({
  ...row,
  id,
  hushed: false,
  triggers: [],
  events: null,
  chat: null,
  studio: null,
  overlays: row.overlays.map((o) => ({ ...o, tokenHash: null })),
});
