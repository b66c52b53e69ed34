import type { Logger } from "pino";
import type { ChannelId } from "../../core/kernel/ids";
import type { Clock } from "../ports/clock";
import type { EngineStore } from "../ports/engine-store";

const nightMs = 86_400_000;

/** What is done once a day and soon after a start: old data goes, ledgers are checked. Nobody waits for it. */
export class Nightly {
  private readonly timers: NodeJS.Timeout[] = [];
  private readonly found = new Map<ChannelId, number>();

  constructor(
    private readonly store: EngineStore,
    private readonly clock: Clock,
    private readonly log: Logger,
    private readonly channels: () => readonly ChannelId[],
  ) {}

  start(): void {
    const { store, log } = this;
    this.timers.push(
      setInterval(
        () => void store.sweepDetails().catch((error: unknown) => log.warn({ err: String(error) }, "details could not be swept")),
        60_000,
      ),
      setInterval(() => void this.upkeep(), nightMs),
      setTimeout(() => void this.upkeep(), 90_000).unref(),
      setInterval(() => void this.checkLedgers(), nightMs),
      setTimeout(() => void this.checkLedgers(), 20_000).unref(),
    );
  }

  stop(): void {
    for (const timer of this.timers) clearInterval(timer);
  }

  /** In how many places a channel's ledger did not balance when it was last checked. */
  faults(id: ChannelId): number {
    return this.found.get(id) ?? 0;
  }

  /** Once a day, and soon after a start: what is old enough goes, and is told. By the computer's own clock: a leap must not empty the log. */
  private async upkeep(): Promise<void> {
    const { store, clock, log } = this;
    try {
      const swept = await store.upkeep(Math.min(clock.now(), clock.wall?.() ?? clock.now()));
      if (swept !== null) log.info({ swept }, "what was old enough is gone");
    } catch (error) {
      log.warn({ err: String(error) }, "old data could not be swept");
    }
  }

  /** Once a day, and soon after a start: what differs is logged and shown as the health of the points. */
  private async checkLedgers(): Promise<void> {
    const { store, log } = this;
    for (const id of this.channels())
      try {
        const faults = await store.ledgerFaults(id);
        this.found.set(id, faults.length);
        if (faults.length > 0) log.error({ channel: id, faults: faults.slice(0, 20) }, "the ledger does not balance");
      } catch (error) {
        log.warn({ err: String(error) }, "the ledger could not be checked");
      }
  }
}
