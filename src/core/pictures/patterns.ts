/** Patterns of a glaze: what stands for different things is told apart by them too, never by colour alone. */
export const patterns = ["plain", "dots", "stripes", "waves", "crosses", "triangles", "net", "grain"] as const;
export type Pattern = (typeof patterns)[number];
