import { z } from "zod";
import { currencyDigits, moneyInWords } from "../signals/money-words";
import type { Role } from "../signals/names";
import { type Blank, count, type Part, rolesInWords, seconds, type Sentence, valueAt } from "./sentence";

/** The dot-separated paths to what can be set: `hits.follow.rate.give`. */
export type PathIn<T> = T extends readonly unknown[]
  ? never
  : T extends object
    ? { [K in keyof T & string]: K | `${K}.${PathIn<NonNullable<T[K]>>}` }[keyof T & string]
    : never;

/** The schema that stands at a path: what a blank there may hold. */
function schemaAt(schema: z.ZodType, path: string): z.ZodType {
  return path.split(".").reduce<z.ZodType>((at, key) => {
    const inner = bare(at);
    const next: unknown = inner instanceof z.ZodObject && Object.hasOwn(inner.shape, key) ? inner.shape[key] : undefined;
    if (!(next instanceof z.ZodType)) throw new Error(`no setting stands at ${path}`);
    return next;
  }, schema);
}
function bare(schema: z.ZodType): z.ZodType {
  let at: unknown = schema;
  while (at instanceof z.ZodOptional || at instanceof z.ZodNullable || at instanceof z.ZodDefault) at = at.unwrap();
  return at as z.ZodType;
}
function rangeAt(schema: z.ZodType, path: string): Readonly<{ min: number; max: number }> {
  const number = bare(schemaAt(schema, path));
  if (!(number instanceof z.ZodNumber)) throw new Error(`no number stands at ${path}`);
  return { min: number.minValue ?? Number.MIN_SAFE_INTEGER, max: number.maxValue ?? Number.MAX_SAFE_INTEGER };
}

export const say = (id: string, ...parts: readonly Part[]): Sentence => ({ id, parts });

/**
 * Blanks of settings: each by its path and what it is called. How far a number may go, and what it is now, stand
 * in the schema and the settings and nowhere else. A path that leads nowhere is a mistake of ours and throws.
 */
export function blanksOf<S extends z.ZodObject>(schema: S, settings: z.output<S>) {
  type Path = PathIn<z.output<S>>;
  const number = (path: string): number => Number(valueAt(settings, path));
  return {
    /** A whole number; `least` where another setting keeps it higher than its schema does. */
    whole: (path: Path, label: string, least?: number): Blank => {
      const range = rangeAt(schema, path);
      return { path, label, text: count(number(path)), field: { kind: "whole", ...range, min: Math.max(range.min, least ?? range.min) } };
    },
    time: (path: Path, label: string): Blank => {
      const { min, max } = rangeAt(schema, path);
      return { path, label, text: seconds(number(path)), field: { kind: "seconds", minMs: min, maxMs: max } };
    },
    money: (path: Path, label: string, currency: string): Blank => ({
      path,
      label,
      text: moneyInWords(number(path), currency),
      // No more than a million of it, however it is divided.
      field: {
        kind: "money",
        ...rangeAt(schema, path),
        max: Math.min(rangeAt(schema, path).max, 1_000_000 * 10 ** currencyDigits(currency)),
        currency,
      },
    }),
    toggle: (path: Path, label: string, on: string, off: string): Blank => ({
      path,
      label,
      text: valueAt(settings, path) === true ? on : off,
      field: { kind: "toggle", on, off },
    }),
    choice: (path: Path, label: string, options: Readonly<Record<string, string>>): Blank => {
      const value = String(valueAt(settings, path));
      const words = Object.hasOwn(options, value) ? options[value] : undefined;
      return {
        path,
        label,
        text: words ?? value,
        field: { kind: "choice", options: Object.entries(options).map(([v, w]) => ({ value: v, words: w })) },
      };
    },
    roles: (path: Path, label: string): Blank => ({
      path,
      label,
      text: rolesInWords(valueAt(settings, path) as readonly Role[]),
      field: { kind: "roles" },
    }),
    text: (path: Path, label: string, placeholder: string): Blank => {
      const text = bare(schemaAt(schema, path));
      const most = text instanceof z.ZodString ? (text.maxLength ?? 200) : 200;
      return { path, label, text: String(valueAt(settings, path)), field: { kind: "text", most, placeholder } };
    },
  };
}
