/**
 * Bytes to lines. Decodes whole lines only, so that a character cut in two by the network stays whole;
 * broken UTF-8 becomes replacement characters. A line longer than the limit is dropped to its end and
 * counted, so that a server that never ends a line can't fill the memory.
 */
export class LineSplitter {
  private rest: Buffer = Buffer.alloc(0);
  private skipping = false;
  dropped = 0;

  constructor(
    private readonly onLine: (line: string) => void,
    private readonly longest = 16_384,
  ) {}

  push(chunk: Buffer): void {
    const last = chunk.lastIndexOf(10);
    if (last < 0) {
      this.hold(chunk);
      return;
    }
    const head = this.rest.length === 0 ? chunk.subarray(0, last) : Buffer.concat([this.rest, chunk.subarray(0, last)]);
    this.rest = Buffer.alloc(0);
    const text = head.toString("utf8");
    let from = 0;
    while (from <= text.length) {
      let to = text.indexOf("\n", from);
      if (to < 0) to = text.length;
      const end = to > from && text.charCodeAt(to - 1) === 13 ? to - 1 : to;
      if (this.skipping) this.skipping = false;
      else if (end - from > this.longest) this.dropped += 1;
      else if (end > from) this.onLine(text.slice(from, end));
      from = to + 1;
    }
    if (last + 1 < chunk.length) this.hold(chunk.subarray(last + 1));
  }

  private hold(part: Buffer): void {
    if (this.skipping) return;
    if (this.rest.length + part.length > this.longest) {
      this.rest = Buffer.alloc(0);
      this.skipping = true;
      this.dropped += 1;
      return;
    }
    this.rest = this.rest.length === 0 ? Buffer.from(part) : Buffer.concat([this.rest, part]);
  }
}
