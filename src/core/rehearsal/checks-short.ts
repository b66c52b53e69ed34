import type { Check } from "./checks";

/** The check-list in one line, for who goes on air; empty where all is well. Apart from the checks, which know every game. */
export function checksInShort(checks: readonly Check[]): string {
  const wrong = checks.filter((c) => c.tone === "wrong").length;
  if (checks.length === 0) return "";
  const first = checks.find((c) => c.tone === "wrong") ?? checks[0];
  const rest = checks.length - 1;
  return `${wrong > 0 ? "Not ready" : "Worth a look"}: ${first?.about ?? ""}${rest === 0 ? "" : ` and ${rest} more`}`;
}
