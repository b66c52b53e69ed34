import { viewerId } from "../kernel/text";

/**
 * Whom a name means, as an id: the viewer who signs in by it; otherwise the one viewer with this display name. Null when nobody, or
 * several, have it: anybody may choose another's name as a display name. `called` are the ids of all who do.
 */
export function whoIsMeant(name: string, exists: (id: string) => boolean, called: readonly string[]): string | null {
  const own = viewerId(name);
  if (exists(own)) return own;
  return called.length === 1 ? (called[0] ?? null) : null;
}
