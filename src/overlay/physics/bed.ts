import type { At, Carrier, Space } from "./engine";
import { type Live, type Lying, rowLength, toLocal } from "./pile-parts";

/** What has become part of the pile: it lies still in the vessel, goes with it, and holds the others up. */
export class Bed {
  private lying: Lying[] = [];
  /** Whether it changed since somebody asked for its rows. */
  changed = false;
  constructor(
    private readonly space: Space,
    private readonly vessel: Carrier | null,
  ) {}
  get size(): number {
    return this.lying.length;
  }
  add(p: Live, stands: At): void {
    if (this.vessel === null) return;
    const { ref, index, piece } = p;
    const local = toLocal(stands, p);
    this.lying.push({ ref, index, piece, fixture: this.space.join(p.body, piece, this.vessel, local), local });
    this.changed = true;
  }
  private take(gone: readonly Lying[]): void {
    if (gone.length === 0) return;
    for (const l of gone) this.space.take(l.fixture);
    const left = new Set(gone);
    this.lying = this.lying.filter((l) => !left.has(l));
    this.changed = true;
  }
  clear(): void {
    this.take(this.lying);
  }
  dropOldest(): void {
    this.take(this.lying.slice(0, 1));
  }
  /** So many of one ref, the newest first. */
  takeOf(ref: number, count: number): void {
    if (count > 0)
      this.take(
        this.lying
          .filter((l) => l.ref === ref)
          .reverse()
          .slice(0, count),
      );
  }
  each(put: (ref: number) => void): void {
    for (const l of this.lying) put(l.ref);
  }
  rows(): Float32Array<ArrayBuffer> {
    const out = new Float32Array(this.lying.length * rowLength);
    this.lying.forEach((l, i) => out.set([l.ref, l.index, l.local.x, l.local.y, l.local.angle, 0, 1], i * rowLength));
    this.changed = false;
    return out;
  }
}
