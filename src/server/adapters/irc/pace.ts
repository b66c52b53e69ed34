/** So long lines are taken at a time before everybody else has a turn. */
const sliceMs = 4;
/** While so many wait no more is read from the server; it is read again when few are left. */
const [mostWaiting, fewWaiting] = [2_000, 500];
/** So many of the last lines are taken when a connection ends. */
const mostAtEnd = 200;
/** How long it rests while all that was taken is still being worked off. */
const restMs = 15;

type Source = Readonly<{ pause: () => void; resume: () => void }>;

/**
 * Lines in their order, a few milliseconds of them at a time: a server that floods takes what is left over by buttons, tips and
 * pages, and not the other way round. While lines wait, or `behind` says that others do, less is read from the server.
 */
export class Pace {
  private lines: string[] = [];
  private next = 0;
  private running = false;
  private held = false;
  private ended = false;

  constructor(
    private readonly take: (line: string) => void,
    private readonly source: Source,
    private readonly behind: () => boolean,
    private readonly now: () => number = () => performance.now(),
  ) {}

  get waiting(): number {
    return this.lines.length - this.next;
  }
  push(line: string): void {
    if (this.ended) return;
    this.lines.push(line);
    if (!this.held && this.waiting > mostWaiting) {
      this.held = true;
      this.source.pause();
    }
    if (this.running) return;
    this.running = true;
    setImmediate(this.slice);
  }
  /** The connection ended: the last of what waits is taken at once, and nothing after it. */
  finish(): void {
    for (const line of this.lines.slice(this.next).slice(-mostAtEnd)) this.take(line);
    this.ended = true;
    this.lines = [];
    this.next = 0;
  }

  private readonly slice = (): void => {
    const untilMs = this.now() + sliceMs;
    while (this.waiting > 0 && !this.behind()) {
      const line = this.lines[this.next] ?? "";
      this.next += 1;
      this.take(line);
      if (this.now() >= untilMs) break;
    }
    if (this.next > 0 && (this.waiting === 0 || this.next > mostWaiting)) {
      this.lines = this.lines.slice(this.next);
      this.next = 0;
    }
    if (this.held && this.waiting < fewWaiting) {
      this.held = false;
      this.source.resume();
    }
    this.running = this.waiting > 0;
    if (!this.running) return;
    if (this.behind()) setTimeout(this.slice, restMs);
    else setImmediate(this.slice);
  };
}
