/**
 * Freezes a plain value all the way down, so that a step that writes into a state it was given fails
 * at once. Used in development and tests; production skips it for speed.
 */
export function deepFreeze<T>(value: T): T {
  if (typeof value !== "object" || value === null || Object.isFrozen(value)) return value;
  Object.freeze(value);
  for (const part of Object.values(value)) deepFreeze(part);
  return value;
}
