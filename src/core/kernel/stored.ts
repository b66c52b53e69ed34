import type { z } from "zod";
import { ok, refused, type Refusal, type Result } from "./refusal";

/**
 * What makes of something stored what the next version stores: the first step leads from version 1 to 2.
 * A step that was ever published is never changed and never taken out.
 */
export type Steps = readonly ((old: unknown) => unknown)[];
export const versionOf = (steps: Steps = []): number => steps.length + 1;

/**
 * Something stored, as this version reads it. Refused, and never replaced by something fresh: what a newer
 * version wrote (`stored/newer`), and what can't be read (`stored/unreadable`, with where).
 */
export function readStored<T>(schema: z.ZodType<T>, steps: Steps = [], version: number, stored: unknown): Result<T> {
  if (!Number.isInteger(version) || version < 1) return refused("stored/unreadable", { why: `its version is ${String(version)}` });
  if (version > versionOf(steps)) return refused("stored/newer", { version, most: versionOf(steps) });
  let value = stored;
  for (const [i, step] of steps.slice(version - 1).entries()) {
    try {
      value = step(value);
    } catch {
      return refused("stored/unreadable", { why: `the step from version ${version + i} to ${version + i + 1} failed` });
    }
  }
  const read = schema.safeParse(value);
  if (read.success) return ok(read.data);
  const issue = read.error.issues[0];
  return refused("stored/unreadable", { why: `${issue?.path.join(".") || "all of it"}: ${issue?.message ?? "not as described"}` });
}

/** Why something stored can't be read, after "its settings:" or a name. */
export const storedInWords = ({ code, facts }: Refusal): string =>
  code === "stored/newer"
    ? `it was stored by a newer Izzam (version ${String(facts["version"])}; this one reads up to ${String(facts["most"])})`
    : `it can’t be read (${String(facts["why"])})`;

/** Settings carry their version themselves. */
export const settingsVersion = (stored: unknown): number => {
  const schema = typeof stored === "object" && stored !== null ? (stored as { schema?: unknown }).schema : undefined;
  return typeof schema === "number" ? schema : 1;
};
