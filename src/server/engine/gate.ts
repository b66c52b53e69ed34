/** Lets so many pieces of work run at once; so many more may wait, in their order. */
export class Gate {
  private readonly waiting: (() => void)[] = [];
  private busy = 0;

  constructor(
    private readonly atOnce: number,
    private readonly mostWaiting: number,
  ) {}

  get full(): boolean {
    return this.waiting.length >= this.mostWaiting;
  }

  async run<T>(work: () => Promise<T>): Promise<T> {
    if (this.busy >= this.atOnce) await new Promise<void>((resolve) => this.waiting.push(resolve));
    else this.busy += 1;
    try {
      return await work();
    } finally {
      // Whoever waited takes the place over, so that nobody who comes now slips in between.
      const next = this.waiting.shift();
      if (next === undefined) this.busy -= 1;
      else next();
    }
  }
}
