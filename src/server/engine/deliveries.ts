/** So many are written down at once. */
const most = 200;
const againMs = 1_000;

/**
 * Sales that a page has shown, on their way to being written down as such. What can't be written now stays, and
 * is tried again until it is.
 */
export class Deliveries {
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
