import type { PartName } from "../../../core/props/figure";

/** A colour of the figure's own glaze, lighter or darker; one of those that all figures share; or its own. */
export type Paint = "glaze" | "dark" | "light" | "pale" | "ink" | "white" | "blush" | `#${string}`;
/** One shape of a part: filled, with a dark line around it; or `limb`, a thick stroke with that line around. */
export type Shape = Readonly<{ d: string; fill?: Paint; line?: number; stroke?: Paint; limb?: number }>;
/** A part in the order of drawing, and the point about which it turns. Drawn in a square of 100; y runs down. */
export type DrawnPart = Readonly<{ name: PartName; at: readonly [number, number]; shapes: readonly Shape[] }>;
/** How far arms and tail follow what a pose asks: a claw that points up already swings less than a paw. */
export type Drawn = Readonly<{
  parts: readonly DrawnPart[];
  /** Which way it looks when it is not turned. */
  looks: "left" | "right";
  arms: number;
  /** Where its head ends: bubbles point there. */
  top: number;
  /** So wide does it stand, of 100. */
  wide: number;
  /** It gives light, the more the better its mood. */
  glows?: true;
}>;

const round = (x: number, y: number, rx: number, ry: number): string =>
  `M${x - rx} ${y} A${rx} ${ry} 0 1 1 ${x + rx} ${y} A${rx} ${ry} 0 1 1 ${x - rx} ${y} Z`;
/** Two eyes: their white, what looks out of them, and the lids over them. */
export function eyes(y: number, [left, right]: readonly [number, number], size: number, lid: Paint): readonly DrawnPart[] {
  const at = [(left + right) / 2, y] as const;
  const both = (make: (x: number) => readonly Shape[]): Shape[] => [left, right].flatMap(make);
  return [
    { name: "eyes", at, shapes: both((x) => [{ d: round(x, y, size, size * 1.08), fill: "white", line: 1.7 }]) },
    {
      name: "pupils",
      at,
      shapes: both((x) => [
        { d: round(x, y + 0.6, size * 0.5, size * 0.56), fill: "ink" },
        { d: round(x + size * 0.2, y - size * 0.22, size * 0.17, size * 0.17), fill: "white" },
      ]),
    },
    {
      name: "lids",
      at,
      shapes: both((x) => [
        { d: round(x, y, size + 0.4, size * 1.08 + 0.4), fill: lid, line: 1.7 },
        { d: `M${x - size * 0.7} ${y + size * 0.2} Q${x} ${y + size * 0.85} ${x + size * 0.7} ${y + size * 0.2}`, stroke: "ink", line: 2 },
      ]),
    },
  ];
}
export const ellipse = round;
/** The same shapes seen in a mirror. Paths are of absolute commands with pairs only. */
export const mirrored = (d: string): string =>
  d.replace(/(-?[\d.]+) (-?[\d.]+)/g, (_, x: string, y: string) => `${Math.round((100 - Number(x)) * 100) / 100} ${y}`);
