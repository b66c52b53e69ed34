import type { Place } from "../../../../../core/wire/messages";

/** Placing on the stage: shares of it, snapped to what is near. */
export type Guide = Readonly<{ axis: "x" | "y"; at: number }>;
const near = 0.008;

const lines = (others: readonly Place[], axis: "x" | "y"): readonly number[] => [
  0,
  0.5,
  1,
  ...others.flatMap((p) => {
    const [from, size] = axis === "x" ? [p.x, p.width] : [p.y, p.height];
    return [from, from + size / 2, from + size];
  }),
];

/** Moves a place so that its edges or its middle meet those of the stage and of others, where they are near. */
export function snap(place: Place, others: readonly Place[]): Readonly<{ place: Place; guides: readonly Guide[] }> {
  const guides: Guide[] = [];
  const along = (axis: "x" | "y", from: number, size: number): number => {
    let best: { by: number; at: number } | null = null;
    for (const at of lines(others, axis))
      for (const edge of [from, from + size / 2, from + size]) {
        const by = at - edge;
        if (Math.abs(by) <= near && (best === null || Math.abs(by) < Math.abs(best.by))) best = { by, at };
      }
    if (best === null) return from;
    guides.push({ axis, at: best.at });
    return from + best.by;
  };
  const x = along("x", place.x, place.width);
  const y = along("y", place.y, place.height);
  return { place: within({ ...place, x, y }), guides };
}

const round = (n: number): number => Math.round(n * 10_000) / 10_000;
/** Keeps a place on the stage and large enough to be taken hold of. */
export function within(place: Place): Place {
  const width = Math.max(0.03, Math.min(1, place.width));
  const height = Math.max(0.03, Math.min(1, place.height));
  return {
    ...place,
    width: round(width),
    height: round(height),
    x: round(Math.max(0, Math.min(1 - width, place.x))),
    y: round(Math.max(0, Math.min(1 - height, place.y))),
  };
}

export const aligns = ["left", "middle", "right", "top", "centre", "bottom", "whole"] as const;
export type Align = (typeof aligns)[number];
export function align(place: Place, how: Align): Place {
  switch (how) {
    case "left":
      return { ...place, x: 0 };
    case "middle":
      return within({ ...place, x: (1 - place.width) / 2 });
    case "right":
      return within({ ...place, x: 1 - place.width });
    case "top":
      return { ...place, y: 0 };
    case "centre":
      return within({ ...place, y: (1 - place.height) / 2 });
    case "bottom":
      return within({ ...place, y: 1 - place.height });
    case "whole":
      return { ...place, x: 0, y: 0, width: 1, height: 1 };
  }
}
