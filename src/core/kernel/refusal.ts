/**
 * An expected "no". Refusals are values, never thrown: a thrown error means a defect.
 * `code` is namespaced (`game/cannot`); `facts` hold what a reply needs to say it in words.
 */
export type Facts = Readonly<Record<string, string | number | boolean | null>>;
export type Refusal = Readonly<{ code: string; facts: Facts }>;

export const refusal = (code: string, facts: Facts = {}): Refusal => ({ code, facts });

export type Result<T> = Readonly<{ ok: true; value: T }> | Readonly<{ ok: false; refusal: Refusal }>;
export const ok = <T>(value: T): Result<T> => ({ ok: true, value });
export const refused = (code: string, facts: Facts = {}): Result<never> => ({
  ok: false,
  refusal: refusal(code, facts),
});

/** Ends a switch over a union: the compiler rejects it when a member is not handled. */
export function exhaustive(value: never): never {
  throw new Error(`unhandled case: ${JSON.stringify(value)}`);
}
