import { ok, refused, type Result } from "../../core/kernel/refusal";

/**
 * One's own style sheet stays within its overlay: the page it styles shows nothing else, its policy loads
 * nothing from elsewhere, and what could try to is refused here already, with its name.
 */
export function boxedCss(css: string): Result<null> {
  // A comment's beginning within quotes is none: what a browser reads as text is kept, and looked at.
  const plain = css.replace(/"(?:[^"\\\n]|\\.)*"|'(?:[^'\\\n]|\\.)*'|\/\*[\s\S]*?(?:\*\/|$)/g, (found) =>
    found.startsWith("/*") ? " " : found,
  );
  const found = (
    [
      [/@import/i, "@import"],
      [/@charset|@namespace/i, "@charset or @namespace"],
      [/<\s*\/?\s*[a-z!]/i, "a tag"],
      [/expression\s*\(|-moz-binding|behavior\s*:/i, "code"],
      [/\\/, "a backslash"],
    ] as const
  ).find(([pattern]) => pattern.test(plain));
  if (found !== undefined) return refused("css/leaves-its-box", { what: found[1] });
  for (const [, address = ""] of plain.matchAll(/(?:url|image-set|src)\s*\(\s*['"]?([^'")]*)/gi))
    if (!/^(\/props\/[0-9a-f]{64}|#[\w-]+|data:image\/(png|webp|gif);base64,)/.test(address.trim()))
      return refused("css/leaves-its-box", { what: "an address other than /props/…" });
  return ok(null);
}
