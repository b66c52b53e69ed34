/** What was changed, newest last, so that it can be taken back. */
export type Trail = (() => void)[];
/** A map whose changes leave a trail. Values in it are never written into. */
export class Traced<V> {
  map = new Map<string, V>();
  constructor(private readonly trail: Trail) {}
  load(entries: Iterable<readonly [string, V]>): void {
    this.map = new Map(entries);
  }
  get = (key: string): V | undefined => this.map.get(key);
  set(key: string, value: V): void {
    const { map } = this;
    const before = map.get(key);
    const had = before !== undefined || map.has(key);
    map.set(key, value);
    this.trail.push(had ? () => void map.set(key, before as V) : () => void map.delete(key));
  }
  delete(key: string): void {
    const { map } = this;
    const before = map.get(key);
    if (before === undefined) return;
    map.delete(key);
    this.trail.push(() => void map.set(key, before));
  }
}
