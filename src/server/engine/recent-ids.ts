import { LRUCache } from "lru-cache";

/** Ids that were seen lately, and no more of them than so many. */
export class RecentIds {
  private readonly ids: LRUCache<string, true>;

  constructor(kept: number) {
    this.ids = new LRUCache({ max: kept });
  }

  has(id: string): boolean {
    return this.ids.has(id);
  }

  /** False when the id was seen already. */
  add(id: string): boolean {
    if (this.ids.has(id)) return false;
    this.ids.set(id, true);
    return true;
  }
}
