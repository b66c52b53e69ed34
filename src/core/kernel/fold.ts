/**
 * Invisible characters that let two texts look alike and compare unlike: zero-width spaces and joiners,
 * soft hyphen, variation selectors, bidirectional marks, the byte order mark and tag characters.
 */
// eslint-disable-next-line no-misleading-character-class -- joiners and selectors are meant one by one
const invisible = /[\u00AD\u061C\u180E\u200B-\u200F\u202A-\u202E\u2060-\u206F\uFE00-\uFE0F\uFEFF]|\uDB40[\uDC00-\uDFFF]/g;
const marks = /\p{M}+/gu;

export const withoutInvisible = (text: string): string => text.replace(invisible, "");

/**
 * The form in which names and words are compared: without case, accents or invisible characters.
 * "Wöbble", "wobble" and "WOBBLE\u200B" are one word. Works on Unicode NFKD, without any locale.
 */
export function fold(text: string): string {
  return withoutInvisible(text).normalize("NFKD").replace(marks, "").toLowerCase();
}

/** Orders by code units: the same on every machine, whatever its language. */
export const byCodeUnits = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
