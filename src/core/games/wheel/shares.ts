/** What of a kept spin tells how fair it went. */
export type SpinRow = Readonly<{
  segment?: string;
  label?: string;
  proof?: Readonly<{
    list: readonly Readonly<{ id: string; weight: number }>[];
    settings: unknown;
  }> | null;
}>;
export type Share = Readonly<{ id: string; label: string; came: number; expected: number }>;

/** How often each segment came, and how often by its chance at each of those spins; the most expected first. */
export function sharesOf(spins: readonly SpinRow[]): readonly Share[] {
  const found = new Map<string, { id: string; label: string; came: number; expected: number }>();
  const of = (id: string) => {
    let share = found.get(id);
    if (share === undefined) found.set(id, (share = { id, label: id, came: 0, expected: 0 }));
    return share;
  };
  // Newest first, as they are kept: the newest name of a segment is the one it goes by.
  for (const { segment, label, proof } of [...spins].reverse()) {
    const list = proof?.list ?? [];
    const total = list.reduce((sum, t) => sum + t.weight, 0);
    const names = labelsOf(proof?.settings);
    for (const { id, weight } of list) {
      const share = of(id);
      share.expected += total > 0 ? weight / total : 0;
      share.label = names.get(id) ?? share.label;
    }
    if (segment === undefined || label === undefined) continue;
    const share = of(segment);
    share.came += 1;
    share.label = label;
  }
  return [...found.values()].sort((a, b) => b.expected - a.expected || (a.id < b.id ? -1 : 1));
}
function labelsOf(settings: unknown): ReadonlyMap<string, string> {
  const { segments } = (settings ?? {}) as { segments?: unknown };
  if (!Array.isArray(segments)) return new Map();
  return new Map((segments as { id?: unknown; label?: unknown }[]).map((s) => [String(s.id), String(s.label)]));
}
