/** What a prop is, and where it can be used: a moving picture is a picture, and a sound where there is something to hear. */
export const propKinds = ["picture", "sound", "video"] as const;
export type PropKind = (typeof propKinds)[number];
export type PropUse = "picture" | "sound";

export const usesOf = (kind: PropKind, facts: unknown): readonly PropUse[] =>
  kind !== "video" ? [kind] : hasSound(facts) ? ["picture", "sound"] : ["picture"];
const hasSound = (facts: unknown): boolean => typeof facts === "object" && facts !== null && "audible" in facts && facts.audible === true;
