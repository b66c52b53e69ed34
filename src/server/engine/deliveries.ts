import type { ShownPart } from "../../core/wire/open-page";

export type { ShownPart } from "../../core/wire/open-page";

/** So many are written down at once. */
const most = 200;
const againMs = 1_000;

/**
 * Sales that a page has shown, on their way to being written down as such. What can't be written now stays, and
 * is tried again until it is.
 */
export class Deliveries {
  readonly halves = new Halves();
  private readonly waiting = new Set<string>();
  private writing = false;
  private stopped = false;

  constructor(
    private readonly write: (sales: readonly string[]) => Promise<void>,
    private readonly later: (work: () => void) => void = (work) => void setTimeout(work, againMs).unref(),
  ) {}

  /** Those that are not written down yet. */
  get pending(): Iterable<string> {
    return this.waiting;
  }

  add(sales: readonly string[]): void {
    for (const sale of sales) this.waiting.add(sale);
    if (this.waiting.size === 0 || this.writing || this.stopped) return;
    this.writing = true;
    const some = [...this.waiting].slice(0, most);
    void this.write(some)
      .then(
        () => some.forEach((sale) => this.waiting.delete(sale)),
        () => undefined,
      )
      .finally(() => {
        this.writing = false;
        if (this.waiting.size > 0 && !this.stopped) this.later(() => this.add([]));
      });
  }

  stop(): void {
    this.stopped = true;
  }
}

/** So many are remembered by halves; older ones count as not shown. */
const mostHalves = 2_000;

/**
 * A sale with a picture and a sound is shown once both were, each by whichever page: what was sold and not heard is not
 * shown. Where no overlay of the channel is for sound the picture is all of it, and the other way round.
 */
export class Halves {
  private readonly first = new Map<string, "picture" | "sound">();

  /** Those of these sales of which nothing is missing now. */
  whole(sales: readonly string[], part: ShownPart, overlays: readonly Readonly<{ shows: boolean; sounds: boolean }>[]): readonly string[] {
    const missing = part === "picture" ? overlays.some((o) => o.sounds) : part === "sound" && overlays.some((o) => o.shows);
    return sales.filter((sale) => {
      const known = this.first.get(sale);
      if (!missing || part === "whole" || (known !== undefined && known !== part)) {
        this.first.delete(sale);
        return true;
      }
      this.first.set(sale, part);
      for (const old of this.first.keys()) {
        if (this.first.size <= mostHalves) break;
        this.first.delete(old);
      }
      return false;
    });
  }
}
