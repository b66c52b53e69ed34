/**
 * Settings with one game put in another's place, wherever an effect, a cue, a reward or a moderator's word names it.
 * In all of them the id of a game stands under `game`; nothing else does. What does not name it stays the same object.
 */
export function putInPlace<T>(settings: T, from: string, to: string): T {
  const walk = (value: unknown): unknown => {
    if (Array.isArray(value)) {
      const next = value.map(walk);
      return next.some((v, i) => v !== value[i]) ? next : value;
    }
    if (typeof value !== "object" || value === null) return value;
    const entries = Object.entries(value).map(([k, v]) => [k, k === "game" && v === from ? to : walk(v)] as const);
    return entries.some(([k, v]) => v !== (value as Record<string, unknown>)[k]) ? Object.fromEntries(entries) : value;
  };
  return walk(settings) as T;
}
