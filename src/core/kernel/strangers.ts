import { type Chance, pick } from "./chance";

/** Texts as strangers send them: legal somewhere, and poison somewhere else. For random tests of every intake. */
export const strangers: readonly string[] = [
  "__proto__",
  "constructor",
  "toString",
  "hasOwnProperty",
  "prototype",
  "null",
  "undefined",
  "1",
  "-0",
  "1e400",
  "cut \ud83d",
  "\udd25 cut",
  "\ud83d\ud83d",
  "a\u0000b",
  "\u0000",
  "\u202eevil\u202c",
  "\u200b",
  "ﷺ".repeat(20),
  "e\u0301".normalize("NFD"),
  "e\u0301".normalize("NFC"),
  "ADA",
  "ada",
  "áda",
  "ada ",
  "👩‍👩‍👧‍👦🔥",
  "'; drop table viewers; --",
  "<script>alert(1)</script>",
  "{viewer} {count, plural, one {#}",
  "%E0%A4%A",
  "\\ud83d",
  '"',
  "\r\nPRIVMSG #x :injected",
  "x".repeat(5_000),
  "𝕬".repeat(40),
];

/** One of them, alone or beside another. */
export function stranger(chance: Chance): string {
  const one = strangers[pick(chance, strangers.length)] ?? "";
  return chance() < 0.7 ? one : `${one}${strangers[pick(chance, strangers.length)] ?? ""}`;
}
