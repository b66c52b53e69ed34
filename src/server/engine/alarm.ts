import { type Clock, later } from "../ports/clock";
import type { Modules, Running } from "./modules";

const longestSleepMs = 60_000;

/** Wakes modules when a wait or a timer of theirs is due, one after another. */
export class Alarm {
  private callOff: (() => void) | null = null;
  private ringing = false;
  private stopped = false;

  constructor(
    private readonly modules: Modules,
    private readonly clock: Clock,
    /** While nothing can be stored, what is due stays due. */
    private readonly away: () => boolean,
    private readonly ring: (module: Running, atMs: number) => Promise<unknown>,
  ) {}

  set(): void {
    this.callOff?.();
    this.callOff = null;
    if (this.stopped) return;
    const next = this.modules.list.reduce<number | null>((first, m) => {
      const at = dueOf(m);
      return at === null || (first !== null && first <= at) ? first : at;
    }, null);
    if (next === null) return;
    // While the database is away, looking twice a second is enough.
    const leastMs = this.away() ? 500 : 1;
    this.callOff = later(this.clock, Math.min(longestSleepMs, Math.max(leastMs, next - this.clock.now())), () => void this.wake());
  }

  private async wake(): Promise<void> {
    this.callOff = null;
    if (this.ringing || this.stopped) return;
    this.ringing = true;
    try {
      const nowMs = this.clock.now();
      for (const module of this.modules.list) {
        const at = dueOf(module);
        if (at !== null && at <= nowMs && !this.away()) await this.ring(module, nowMs);
      }
    } finally {
      this.ringing = false;
      this.set();
    }
  }

  stop(): void {
    this.stopped = true;
    this.callOff?.();
  }
}
const dueOf = (m: Running): number | null => m.rules.dueMs?.(m.settings, m.durable) ?? null;
