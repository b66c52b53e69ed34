import type { ChannelId } from "../kernel/ids";

/**
 * One voice: of all open pages of a channel exactly one makes sound. It is a lease that expires by itself:
 * the page has to say every 600 ms that it still speaks, and a page that hears nothing from here for two
 * seconds falls silent of its own accord.
 */
export type VoicePage = Readonly<{
  id: string;
  channel: ChannelId;
  overlay: string;
  sinceMs: number;
  sounds: boolean;
  ready: boolean;
  hidden: boolean;
}>;
export const leaseMs = 1_800;

export class OneVoice {
  private readonly held = new Map<ChannelId, { page: string; heardMs: number }>();
  private readonly wanted = new Map<ChannelId, string>();

  constructor(
    private readonly now: () => number,
    private readonly tell: (page: string, on: boolean) => void,
  ) {}

  holder(channel: ChannelId): string | null {
    return this.held.get(channel)?.page ?? null;
  }

  /** An operator chooses which page speaks; it keeps the voice as long as it can. Empty: whichever. */
  choose(channel: ChannelId, page: string): void {
    if (page === "") this.wanted.delete(channel);
    else this.wanted.set(channel, page);
  }

  /** The page that has the voice says so. */
  heard(channel: ChannelId, page: string): void {
    const held = this.held.get(channel);
    if (held?.page !== page) return this.tell(page, false);
    held.heardMs = this.now();
    this.tell(page, true);
  }

  /** Looks who should have the voice among the pages that are open; called on every change and twice a second. */
  settle(channel: ChannelId, pages: readonly VoicePage[]): void {
    const able = pages.filter((p) => p.channel === channel && p.sounds && p.ready);
    const held = this.held.get(channel);
    const wanted = able.find((p) => p.id === this.wanted.get(channel));
    const alive = held !== undefined && this.now() - held.heardMs < leaseMs ? able.find((p) => p.id === held.page) : undefined;
    // Shown before hidden, then whoever was there first: the order is the same whoever asks.
    const rest = able
      .filter((p) => p.id !== held?.page)
      .sort((a, b) => Number(a.hidden) - Number(b.hidden) || a.sinceMs - b.sinceMs || (a.id < b.id ? -1 : 1));
    const next = wanted ?? alive ?? rest[0] ?? able.find((p) => p.id === held?.page);
    if (held !== undefined && next?.id === held.page) {
      // Not heard of for a lease: it may have stalled, and let the voice go by itself. It is told again until it says it speaks.
      if (this.now() - held.heardMs >= leaseMs) this.tell(next.id, true);
      return;
    }
    if (next === undefined && held === undefined) return;
    if (held !== undefined) this.tell(held.page, false);
    if (next === undefined) this.held.delete(channel);
    else {
      this.held.set(channel, { page: next.id, heardMs: this.now() });
      this.tell(next.id, true);
    }
  }
}
