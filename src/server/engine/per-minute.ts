/** How many in the last minute, counted by the second. */
export class PerMinute {
  private readonly seconds = new Map<number, number>();

  add(nowMs: number): void {
    const second = Math.floor(nowMs / 1000);
    this.seconds.set(second, (this.seconds.get(second) ?? 0) + 1);
    if (this.seconds.size > 70) for (const s of this.seconds.keys()) if (s < second - 60) this.seconds.delete(s);
  }

  last(nowMs: number): number {
    const second = Math.floor(nowMs / 1000);
    let sum = 0;
    for (const [s, n] of this.seconds) if (s > second - 60) sum += n;
    return sum;
  }
}
