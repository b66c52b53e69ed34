import { gameId, type ChannelId } from "../../core/kernel/ids";
import type { HealthItem } from "../../core/wire/messages";
import type { Clock } from "../ports/clock";
import type { EngineStore, Fence, KeptRow } from "../ports/engine-store";
import type { Runner } from "./runner";

/** What was wrong for a while in a show, as its record has it. */
export type FaultBody = Readonly<{ item: string; name: string; says: string; means: string }>;
type Open = FaultBody & Readonly<{ fromMs: number; looks: number }>;
const lookMs = 2_000;
/** What is wrong for one look only is a hiccup. */
const leastLooks = 2;
const mostWaiting = 500;
const means = "What was typed in chat meanwhile reached no game. Everything stood as it was when it ran again.";

/**
 * What goes wrong while a show runs (chat away, the database away, an overlay that stalls), from when to when, kept with the
 * show for Review. It is written once it is over, or the show is: when the database itself was what failed, that is when it
 * answers again.
 */
export class FaultWatch {
  private readonly open = new Map<ChannelId, Map<string, Open>>();
  private readonly over = new Map<ChannelId, KeptRow[]>();
  private readonly timer: NodeJS.Timeout;
  private writing = false;
  /** Under which epoch it was said of a channel that nobody ran it for a while. */
  private readonly said = new Map<ChannelId, number>();

  constructor(
    private readonly runners: ReadonlyMap<ChannelId, Runner>,
    private readonly store: Pick<EngineStore, "commit">,
    private readonly clock: Clock,
    private readonly healthOf: (id: ChannelId) => readonly HealthItem[],
    private readonly fence: (id: ChannelId) => Fence | undefined,
  ) {
    this.timer = setInterval(() => void this.look(), lookMs);
    this.timer.unref();
  }

  async look(): Promise<void> {
    for (const [id, runner] of this.runners) {
      const show = runner.modules.show();
      const onAir = show?.state === "on";
      this.wasAway(id, onAir ? show.sinceMs : null);
      this.lookAt(id, onAir);
    }
    if (this.writing) return;
    this.writing = true;
    for (const [id, rows] of [...this.over]) {
      const kept = rows.splice(0);
      if (kept.length === 0) continue;
      const done = await this.store.commit(id, { rows: [], states: [], kept }, this.fence(id)).catch(() => null);
      // It is tried again with the next look; who lost the channel leaves it to nobody.
      if (done === null) rows.unshift(...kept.slice(-mostWaiting));
    }
    this.writing = false;
  }

  private lookAt(id: ChannelId, onAir: boolean): void {
    const open = this.open.get(id) ?? new Map<string, Open>();
    this.open.set(id, open);
    const nowMs = this.clock.now();
    const bad = onAir ? this.healthOf(id).filter((h) => h.state === "bad") : [];
    for (const { id: item, name, says, means } of bad) {
      const known = open.get(item);
      open.set(item, known === undefined ? { item, name, says, means, fromMs: nowMs, looks: 1 } : { ...known, looks: known.looks + 1 });
    }
    for (const [item, fault] of [...open]) {
      if (bad.some((h) => h.id === item)) continue;
      open.delete(item);
      if (fault.looks < leastLooks) continue;
      const { fromMs, looks: _, ...body } = fault;
      this.keep(id, fromMs, body);
    }
  }
  /** In the middle of a show nobody ran the channel: the process was ended, or the machine was. */
  private wasAway(id: ChannelId, sinceMs: number | null): void {
    const fence = this.fence(id);
    if (fence === undefined || this.said.get(id) === fence.epoch) return;
    this.said.set(id, fence.epoch);
    const fromMs = fence.idleFromMs ?? null;
    if (fromMs === null || sinceMs === null || sinceMs >= fromMs || this.clock.now() - fromMs < lookMs) return;
    this.keep(id, fromMs, { item: "engine", name: "Izzam", says: "It did not run.", means });
  }
  private keep(id: ChannelId, fromMs: number, body: FaultBody): void {
    const rows = this.over.get(id) ?? [];
    this.over.set(id, rows);
    rows.push({ kind: "fault", viewer: null, fromMs, toMs: this.clock.now(), body, gameId: gameId("show"), seq: 0 });
  }

  stop(): void {
    clearInterval(this.timer);
  }
}
