/**
 * Brings together what two people changed, each from the same beginning. What only one of them changed is that one's;
 * where both changed the same to different things they clash, and mine stands until somebody decides.
 * Of lists whose entries have an id, entries are brought together one by one; other lists are one thing.
 */
export type Merged = Readonly<{ value: unknown; clashes: number }>;
type Plain = Readonly<Record<string, unknown>>;
const isPlain = (v: unknown): v is Plain => typeof v === "object" && v !== null && !Array.isArray(v);
const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);
type Entry = Readonly<{ id: string }> & Plain;
const entries = (v: unknown): readonly Entry[] | null =>
  Array.isArray(v) && v.every((e): e is Entry => isPlain(e) && typeof e["id"] === "string") && new Set(v.map((e) => e.id)).size === v.length
    ? v
    : null;

export function merge(base: unknown, mine: unknown, theirs: unknown): Merged {
  if (same(mine, theirs) || same(theirs, base)) return { value: mine, clashes: 0 };
  if (same(mine, base)) return { value: theirs, clashes: 0 };
  if (isPlain(base) && isPlain(mine) && isPlain(theirs)) {
    let clashes = 0;
    // Through a Map: names may be anything, `__proto__` too.
    const out = new Map<string, unknown>();
    for (const key of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
      const at = (of: Plain): unknown => (Object.hasOwn(of, key) ? of[key] : undefined);
      const part = merge(at(base), at(mine), at(theirs));
      clashes += part.clashes;
      if (part.value !== undefined) out.set(key, part.value);
    }
    return { value: Object.fromEntries(out), clashes };
  }
  const [was, my, their] = [entries(base), entries(mine), entries(theirs)];
  return was !== null && my !== null && their !== null ? mergeEntries(was, my, their) : { value: mine, clashes: 1 };
}

/** In my order; what they added comes behind what it stood behind with them. */
function mergeEntries(base: readonly Entry[], mine: readonly Entry[], theirs: readonly Entry[]): Merged {
  const find = (list: readonly Entry[], id: string): Entry | undefined => list.find((e) => e.id === id);
  let clashes = 0;
  const out: unknown[] = [];
  for (const own of mine) {
    const was = find(base, own.id);
    const other = find(theirs, own.id);
    // They took it out: it goes, unless I changed it meanwhile.
    if (was !== undefined && other === undefined) {
      if (same(was, own)) continue;
      clashes += 1;
      out.push(own);
      continue;
    }
    const part = other === undefined ? { value: own, clashes: 0 } : merge(was, own, other);
    clashes += part.clashes;
    out.push(part.value);
  }
  theirs.forEach((other, i) => {
    if (find(mine, other.id) !== undefined) return;
    const was = find(base, other.id);
    if (was !== undefined && same(was, other)) return;
    // I took out what they changed.
    if (was !== undefined) clashes += 1;
    const before = theirs[i - 1];
    const at = before === undefined ? 0 : out.findIndex((e) => isPlain(e) && e["id"] === before.id) + 1;
    out.splice(at === 0 && before !== undefined ? out.length : at, 0, other);
  });
  const order = (list: readonly Entry[]): string =>
    list
      .filter((e) => find(mine, e.id) && find(theirs, e.id))
      .map((e) => e.id)
      .join(" ");
  // Both put them in another order.
  if (order(mine) !== order(theirs) && order(mine) !== order(base) && order(theirs) !== order(base)) clashes += 1;
  const sorted = order(mine) === order(base) && order(theirs) !== order(base) ? inOrderOf(theirs, out) : out;
  return { value: sorted, clashes };
}

/** Only they changed the order: theirs it is. */
function inOrderOf(theirs: readonly Entry[], list: readonly unknown[]): readonly unknown[] {
  const at = (e: unknown): number => (isPlain(e) ? theirs.findIndex((t) => t.id === e["id"]) : -1);
  return [...list].sort((a, b) => (at(a) === -1 || at(b) === -1 ? 0 : at(a) - at(b)));
}
