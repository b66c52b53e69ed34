/** Nobody is told twice within so long that nothing can be bought, and no more than so many are. */
const againMs = 30_000;
const most = 8;

/** Whom to tell that nothing can be stored: now and then, since many may ask at once. */
export class ToldAway {
  private readonly told = new Map<string, number>();

  /** Whether this one is to be told now. */
  may(viewer: string, nowMs: number): boolean {
    for (const [id, atMs] of this.told) if (nowMs - atMs > againMs || nowMs < atMs) this.told.delete(id);
    if (this.told.has(viewer) || this.told.size >= most) return false;
    this.told.set(viewer, nowMs);
    return true;
  }
}
