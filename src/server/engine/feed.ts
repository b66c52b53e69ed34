import type { Alert } from "../../core/alerts/alert";
import { type ToOverlay, wireVersion } from "../../core/wire/messages";

const flushEveryMs = 30;
const ringLength = 400;
const dustFreshMs = 2_000;
const mostEmotesPerFlush = 2_000;

type Item = { game: string; effect: unknown };
type Kept = Readonly<{ seq: number; atMs: number; text: string; transient: boolean }>;
type Body = { type: "stage" | "hush" | "alert-end" } & Record<string, unknown>;
type View = Record<string, unknown>;

const weight = (item: Item): number => {
  const { effect } = item;
  return typeof effect === "object" && effect !== null && "count" in effect && typeof effect.count === "number" ? effect.count : 1;
};

/**
 * What one overlay's pages are sent. A text is made once for all of them; effects are gathered for at
 * most 30 ms, the first after a pause goes at once. Keeps the last few, so that a page that was away for
 * an alert gets just what it missed.
 */
export class Feed {
  private ring: Kept[] = [];
  private items: Item[] = [];
  private views = new Map<string, View>();
  private lastFlushMs = -Infinity;
  private timer: NodeJS.Timeout | null = null;
  seq = 0;

  constructor(
    private readonly send: (text: string, transient: boolean) => void,
    private readonly now: () => number,
  ) {}

  effects(game: string, effects: readonly unknown[]): void {
    for (const effect of effects) this.items.push({ game, effect });
    this.soon();
  }

  /** What a game shows now: the newest of a batch goes, behind the effects of that batch. */
  view(game: string, view: View): void {
    this.views.set(game, view);
    this.soon();
  }

  /** An alert goes at once; who was away while it began never sees it late. */
  alert(alert: Alert): void {
    this.flush();
    this.keep({ v: wireVersion, type: "alert", seq: (this.seq += 1), alert }, true);
  }

  private soon(): void {
    if (this.timer !== null) return;
    const waitMs = Math.max(0, this.lastFlushMs + flushEveryMs - this.now());
    this.timer = setTimeout(() => this.flush(), waitMs);
  }

  /** A change of state: goes at once, behind the effects that came before it. */
  state(body: Body): void {
    this.flush();
    this.keep({ v: wireVersion, seq: (this.seq += 1), ...body }, false);
  }

  /** Hush also drops what was about to be shown. */
  drop(): void {
    this.items = [];
  }

  private flush(): void {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    if (this.items.length === 0 && this.views.size === 0) return;
    this.lastFlushMs = this.now();
    if (this.items.length > 0) {
      const items = newest(this.items);
      this.items = [];
      const message: ToOverlay = { v: wireVersion, type: "effects", seq: (this.seq += 1), items };
      this.keep(message, true);
    }
    if (this.views.size > 0) {
      const views = [...this.views].map(([game, view]) => ({ game, view }));
      this.views.clear();
      this.keep({ v: wireVersion, type: "views", seq: (this.seq += 1), views } satisfies ToOverlay, false);
    }
  }

  private keep(message: { seq: number } & Record<string, unknown>, transient: boolean): void {
    const text = JSON.stringify(message);
    this.ring.push({ seq: message.seq, atMs: this.now(), text, transient });
    if (this.ring.length > ringLength) this.ring.splice(0, ringLength / 2);
    this.send(text, transient);
  }

  /** What a page that has everything up to `seq` missed; null when that is no longer known. Old effects are left out. */
  since(seq: number): readonly string[] | null {
    if (seq > this.seq) return null;
    if (seq === this.seq) return [];
    const first = this.ring[0];
    if (first === undefined || first.seq > seq + 1) return null;
    const now = this.now();
    return this.ring.filter((k) => k.seq > seq && (!k.transient || now - k.atMs < dustFreshMs)).map((k) => k.text);
  }

  stop(): void {
    if (this.timer !== null) clearTimeout(this.timer);
  }
}

/** No page can show more at once, so in a storm the oldest of a batch are left out. */
function newest(items: Item[]): Item[] {
  let total = 0;
  for (let i = items.length - 1; i >= 0; i -= 1) {
    const item = items[i];
    total += item === undefined ? 0 : weight(item);
    if (total > mostEmotesPerFlush && i < items.length - 1) return items.slice(i + 1);
  }
  return items;
}
