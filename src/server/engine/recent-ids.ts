/** Remembers the last ids seen; two generations, so that forgetting costs nothing per id. */
export class RecentIds {
  private young = new Set<string>();
  private old = new Set<string>();

  constructor(private readonly kept: number) {}

  has(id: string): boolean {
    return this.young.has(id) || this.old.has(id);
  }

  /** False when the id was seen already. */
  add(id: string): boolean {
    if (this.has(id)) return false;
    this.young.add(id);
    if (this.young.size >= this.kept) {
      this.old = this.young;
      this.young = new Set();
    }
    return true;
  }

  forget(id: string): void {
    this.young.delete(id);
    this.old.delete(id);
  }
}
