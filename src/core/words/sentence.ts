import { type Role, roleWords } from "../signals/names";

/**
 * The sentence is the form: a game's rules are these sentences, edited through their blanks in the
 * editor and told without blanks to viewers. `path` names the setting a blank changes, dot-separated.
 */
export type Choice = Readonly<{ value: string; words: string }>;
export type BlankField =
  | Readonly<{ kind: "whole"; min: number; max: number }>
  /** Shown in seconds, kept in milliseconds. */
  | Readonly<{ kind: "seconds"; minMs: number; maxMs: number }>
  /** Minor units of a currency, typed as 12.34. */
  | Readonly<{ kind: "money"; min: number; max: number; currency: string }>
  | Readonly<{ kind: "text"; most: number; placeholder: string }>
  | Readonly<{ kind: "choice"; options: readonly Choice[] }>
  | Readonly<{ kind: "toggle"; on: string; off: string }>
  | Readonly<{ kind: "roles" }>
  | Readonly<{ kind: "emotes" }>;
export type Blank = Readonly<{ path: string; label: string; text: string; field: BlankField }>;
export type Part = string | Blank;
export type Sentence = Readonly<{ id: string; parts: readonly Part[] }>;

export const plain = (sentence: Sentence): string => sentence.parts.map((part) => (typeof part === "string" ? part : part.text)).join("");

/** A whole number with thousands set apart: 1,000. Written out here, so that no machine's language changes it. */
export const count = (n: number): string => String(n).replace(/\B(?=(\d{3})+$)/g, ",");

/** So many of a thing, in the right form: 1 viewer, 1,204 viewers. */
export const counted = (n: number, one: string, many = `${one}s`): string => `${count(n)} ${n === 1 ? one : many}`;

/** 1st, 2nd, 23rd, 1,112th. */
export function ordinal(n: number): string {
  const teen = n % 100 >= 11 && n % 100 <= 13;
  const ending = teen ? "th" : (["th", "st", "nd", "rd"][n % 10] ?? "th");
  return `${count(n)}${ending}`;
}

/** Seconds without needless digits: 10 s, 0.5 s. */
export const seconds = (ms: number): string => `${Number((ms / 1000).toFixed(2))} s`;

export function rolesInWords(roles: readonly Role[]): string {
  if (roles.includes("viewer")) return "everyone";
  const words = roles.map((role) => roleWords[role]);
  return words.length < 2 ? (words[0] ?? "nobody") : `${words.slice(0, -1).join(", ")} and ${words[words.length - 1]}`;
}

type Plain = Readonly<Record<string, unknown>>;
const isPlain = (value: unknown): value is Plain => typeof value === "object" && value !== null && !Array.isArray(value);

export const valueAt = (settings: unknown, path: string): unknown =>
  path.split(".").reduce<unknown>((at, key) => (isPlain(at) && Object.hasOwn(at, key) ? at[key] : undefined), settings);

/** A copy with one setting changed; an unknown path changes nothing. The caller validates the outcome. */
export function withValueAt(settings: unknown, path: string, value: unknown): unknown {
  const [key, ...rest] = path.split(".");
  if (key === undefined || !isPlain(settings) || !Object.hasOwn(settings, key)) return settings;
  return { ...settings, [key]: rest.length === 0 ? value : withValueAt(settings[key], rest.join("."), value) };
}
