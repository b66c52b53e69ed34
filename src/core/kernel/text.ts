import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import { fold } from "./fold";

/**
 * Whatever comes from outside is a stranger: half an emoji (a surrogate without its other half) and NUL
 * are legal in JSON and in JavaScript, and no database, file or other program takes them.
 */
// With the u flag only halves that stand alone match; whole characters beyond the first plane don't.
const halves = /\p{Surrogate}/gu;
// eslint-disable-next-line no-control-regex -- NUL is what is looked for
const unfit = /[\u0000\uD800-\uDFFF]/;

/** The text with NUL left out and each half character shown as U+FFFD; the same text where it was sound. */
export const wellFormed = (text: string): string => (unfit.test(text) ? text.replaceAll("\u0000", "").replace(halves, "\uFFFD") : text);

/** At most `most` UTF-16 units, never cutting a character in half. */
export function cut(text: string, most: number): string {
  if (text.length <= most) return text;
  const last = text.charCodeAt(most - 1);
  return text.slice(0, last >= 0xd800 && last <= 0xdbff ? most - 1 : most);
}

/** Every text in a plain value made well-formed, keys included; the same value where all was sound. */
export function cleaned(value: unknown): unknown {
  if (typeof value === "string") return wellFormed(value);
  if (typeof value !== "object" || value === null) return value;
  if (Array.isArray(value)) return value.map(cleaned);
  const made: Record<string, unknown> = {};
  // Defined, not assigned: a key `__proto__` stays an ordinary key.
  for (const [key, part] of Object.entries(value))
    Object.defineProperty(made, wellFormed(key), { value: cleaned(part), enumerable: true, writable: true, configurable: true });
  return made;
}

/** Only texts that spell a half or a NUL as an escape can bring one: UTF-8 itself can't carry a half. */
// eslint-disable-next-line no-control-regex -- NUL is what is looked for
const mayBring = /\\u(?:[dD][89a-fA-F]|0000)|[\u0000\uD800-\uDFFF]/;
/** JSON from outside, its texts made well-formed. Throws a SyntaxError like JSON.parse. */
export function parseJson(text: string): unknown {
  const value: unknown = JSON.parse(text);
  return mayBring.test(text) ? cleaned(value) : value;
}

/** The same, or null for what is no JSON. */
export function jsonOrNull(text: string): unknown {
  try {
    return parseJson(text);
  } catch {
    return null;
  }
}

/**
 * The form in which operators' names are compared, everywhere: in the column, by the limiter, when somebody
 * signs in. No two operators go by names that look alike.
 */
export const loginKey = (given: string): string => cut(fold(wellFormed(given)).trim().replace(/\s+/g, " "), 60);

/**
 * The one form of a viewer's id, made where it comes in, by chat and by events alike: well-formed,
 * composed (NFC), trimmed, in lower case, at most 64 units. After that ids are compared byte by byte.
 * Folding can make an id longer. A longer one ends with a hash of its whole self, so that two ids which
 * differ only at their ends stay two viewers.
 */
export function viewerId(given: string): string {
  const whole = wellFormed(given).normalize("NFC").trim().toLowerCase();
  if (whole.length <= mostId) return whole;
  const end = bytesToHex(sha256(utf8ToBytes(whole))).slice(0, 20);
  return `${cut(whole, mostId - end.length - 1)}~${end}`;
}
const mostId = 64;

/** A name where it stands as a word of its own, whatever is in it and in whichever case it is written. */
export const alone = (name: string): RegExp =>
  new RegExp(`(?<![\\p{L}\\p{N}_])${name.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")}(?![\\p{L}\\p{N}_])`, "giu");
