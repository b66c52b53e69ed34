import { ok, refused, type Result } from "../../kernel/refusal";

/**
 * The inner wall of a vessel: a line from its left rim down and up to its right rim. Lengths are in heights of the
 * vessel, x to the right, y down; the highest point stands at 0 and the lowest at 1, the leftmost at 0.
 */
export type Point = readonly [x: number, y: number];
export type Outline = Readonly<{
  wall: readonly Point[];
  /** What of it holds anything: the area below the lower end of the rim, in heights squared. */
  area: number;
  width: number;
  /** Where the lower end of the rim stands. */
  rimY: number;
  mouth: Readonly<{ left: number; right: number }>;
}>;

export const mostPoints = 160;
/** How much of its top a closed outline loses, to have a mouth. */
const cutShare = 0.03;
const leastDepth = 0.25;
const leastArea = 0.04;
const ratio = { least: 0.15, most: 5 };

const shipped: Readonly<Record<string, readonly Point[]>> = {
  // Half the width at each height; from rim to foot.
  bowl: [
    [0.62, 0],
    [0.605, 0.2],
    [0.57, 0.42],
    [0.49, 0.66],
    [0.36, 0.87],
    [0.24, 1],
  ],
  glass: [
    [0.29, 0],
    [0.275, 0.35],
    [0.255, 0.7],
    [0.235, 0.96],
    [0.215, 1],
  ],
  teapot: [
    [0.27, 0],
    [0.26, 0.07],
    [0.38, 0.17],
    [0.5, 0.36],
    [0.54, 0.56],
    [0.5, 0.77],
    [0.39, 0.93],
    [0.28, 1],
  ],
  crucible: [
    [0.45, 0],
    [0.44, 0.26],
    [0.41, 0.5],
    [0.35, 0.74],
    [0.25, 0.93],
    [0.15, 1],
  ],
  basket: [
    [0.62, 0],
    [0.585, 0.3],
    [0.55, 0.6],
    [0.52, 0.9],
    [0.47, 1],
  ],
  sack: [
    [0.38, 0],
    [0.3, 0.09],
    [0.35, 0.19],
    [0.47, 0.38],
    [0.54, 0.6],
    [0.53, 0.82],
    [0.45, 0.96],
    [0.34, 1],
  ],
};
export const shapes = ["bowl", "glass", "teapot", "crucible", "basket", "sack"] as const;
export type Shape = (typeof shapes)[number] | "own";

/** A soft line through points (Catmull–Rom), with `steps` between each two. */
function softened(points: readonly Point[], steps: number): readonly Point[] {
  const at = (i: number): Point => points[Math.max(0, Math.min(points.length - 1, i))] ?? [0, 0];
  const out: Point[] = [];
  for (let i = 0; i < points.length - 1; i += 1) {
    const [a, b, c, d] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
    for (let s = 0; s < steps; s += 1) {
      const t = s / steps;
      const mix = (k: 0 | 1): number =>
        0.5 *
        (2 * b[k] + (c[k] - a[k]) * t + (2 * a[k] - 5 * b[k] + 4 * c[k] - d[k]) * t * t + (3 * b[k] - a[k] - 3 * c[k] + d[k]) * t ** 3);
      out.push([mix(0), mix(1)]);
    }
  }
  out.push(at(points.length - 1));
  return out;
}

function fromProfile(profile: readonly Point[]): readonly Point[] {
  const side = softened(profile, 4);
  return [...side.map(([half, y]): Point => [-half, y]), ...[...side].reverse().map(([half, y]): Point => [half, y])];
}

const twiceArea = (ring: readonly Point[]): number =>
  ring.reduce((sum, [x, y], i) => {
    const [nx, ny] = ring[(i + 1) % ring.length] ?? [0, 0];
    return sum + x * ny - nx * y;
  }, 0);

/** What of a ring lies below a height. */
function below(ring: readonly Point[], height: number): readonly Point[] {
  const out: Point[] = [];
  ring.forEach((to, i) => {
    const from = ring[(i + ring.length - 1) % ring.length] ?? to;
    const crosses = from[1] >= height !== to[1] >= height;
    if (crosses) out.push([from[0] + ((to[0] - from[0]) * (height - from[1])) / (to[1] - from[1]), height]);
    if (to[1] >= height) out.push(to);
  });
  return out;
}

const side = (a: Point, b: Point, c: Point): number => Math.sign((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]));
const cross = (a: Point, b: Point, c: Point, d: Point): boolean => side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;

function crossesItself(line: readonly Point[]): boolean {
  for (let i = 0; i + 1 < line.length; i += 1)
    for (let k = i + 2; k + 1 < line.length; k += 1) {
      const [a, b, c, d] = [line[i], line[i + 1], line[k], line[k + 1]];
      if (a !== undefined && b !== undefined && c !== undefined && d !== undefined && cross(a, b, c, d)) return true;
    }
  return false;
}

/** A closed line cut open at its top: from the cut's left end around the bottom to its right end. */
function opened(ring: readonly Point[]): readonly Point[] {
  const highest = Math.min(...ring.map((p) => p[1]));
  const lowest = Math.max(...ring.map((p) => p[1]));
  const cut = highest + (lowest - highest) * cutShare;
  const deepest = ring.findIndex((p) => p[1] === lowest);
  const n = ring.length;
  const walk = (step: 1 | -1): Point[] => {
    const out: Point[] = [];
    for (let k = 1; k <= n; k += 1) {
      const to = ring[(deepest + step * k + n * n) % n] ?? [0, 0];
      const from = ring[(deepest + step * (k - 1) + n * n) % n] ?? to;
      if (to[1] <= cut) {
        const share = from[1] === to[1] ? 0 : (from[1] - cut) / (from[1] - to[1]);
        out.push([from[0] + (to[0] - from[0]) * share, cut]);
        return out;
      }
      out.push(to);
    }
    return out;
  };
  const one = walk(1);
  const other = walk(-1);
  return [...one.reverse(), ring[deepest] ?? [0, 0], ...other];
}

/**
 * A drawn line read as a vessel. Refused with its reason: too few points, no number, a line that crosses itself, one
 * that would hold nothing because it is open at the bottom or at a side, one of no area, one far too wide or narrow.
 */
export function readOutline(given: readonly Point[], closed: boolean): Result<Outline> {
  const points = given.filter((p, i) => i === 0 || p[0] !== given[i - 1]?.[0] || p[1] !== given[i - 1]?.[1]);
  if (points.some(([x, y]) => !Number.isFinite(x) || !Number.isFinite(y))) return refused("outline/no-number");
  const first = points[0];
  const last = points[points.length - 1];
  const meets = first !== undefined && last !== undefined && first[0] === last[0] && first[1] === last[1];
  const ringed = closed || meets;
  const line = meets ? points.slice(0, -1) : points;
  if (line.length < 3) return refused("outline/too-few", { points: line.length });
  if (line.length > mostPoints) return refused("outline/too-many", { points: line.length, most: mostPoints });
  if (Math.abs(twiceArea(line)) < 1e-9) return refused("outline/no-area");
  if (crossesItself(ringed ? [...line, line[0] ?? [0, 0]] : line)) return refused("outline/crosses");
  const open = ringed ? opened(line) : line;
  const ys = open.map((p) => p[1]);
  const xs = open.map((p) => p[0]);
  const [top, bottom, left, right] = [Math.min(...ys), Math.max(...ys), Math.min(...xs), Math.max(...xs)];
  const height = bottom - top;
  if (!(height > 0)) return refused("outline/no-area");
  const width = (right - left) / height;
  if (width < ratio.least) return refused("outline/too-narrow");
  if (width > ratio.most) return refused("outline/too-wide");
  const scaled = open.map(([x, y]): Point => [(x - left) / height, (y - top) / height]);
  const from = scaled[0] ?? [0, 0];
  const to = scaled[scaled.length - 1] ?? [0, 0];
  const wall = from[0] <= to[0] ? scaled : [...scaled].reverse();
  const rimY = Math.max(from[1], to[1]);
  if (1 - rimY < leastDepth) return refused(Math.min(from[1], to[1]) > 0.5 ? "outline/open-below" : "outline/open-side");
  const holds = below(wall, rimY);
  const area = Math.abs(twiceArea(holds)) / 2;
  if (area < leastArea) return refused("outline/no-area");
  return ok({ wall, area, width, rimY, mouth: { left: Math.min(from[0], to[0]), right: Math.max(from[0], to[0]) } });
}

const known = new Map<string, Outline>();
/** A shipped vessel, or one's own by its points in thousandths of its height; a bowl where that is no vessel. */
export function outlineOf(vessel: Readonly<{ shape: Shape; points: readonly (readonly [number, number])[] }>): Outline {
  const key = vessel.shape === "own" ? JSON.stringify(vessel.points) : vessel.shape;
  const before = known.get(key);
  if (before !== undefined) return before;
  const own =
    vessel.shape === "own"
      ? readOutline(
          vessel.points.map(([x, y]): Point => [x / 1000, y / 1000]),
          false,
        )
      : null;
  const read = own?.ok === true ? own : readOutline(fromProfile(shipped[vessel.shape] ?? shipped["bowl"] ?? []), false);
  if (!read.ok) throw new Error(`a shipped vessel is none: ${vessel.shape}`);
  if (known.size > 50) known.clear();
  known.set(key, read.value);
  return read.value;
}

/** Why a line is no vessel, in words, and what to do. */
export function outlineProblem(code: string): string {
  switch (code) {
    case "outline/open-below":
      return "This outline is open at the bottom: everything would fall through. Draw it from one rim down and up to the other.";
    case "outline/open-side":
      return "One rim of this outline stands so low that it would hold hardly anything. Draw both rims near the top.";
    case "outline/crosses":
      return "This outline crosses itself. Draw one line that never meets itself.";
    case "outline/no-area":
      return "This outline has no room inside.";
    case "outline/too-few":
      return "An outline needs at least three points.";
    case "outline/too-many":
      return `An outline has at most ${mostPoints} points once it is smoothed.`;
    case "outline/too-narrow":
      return "This outline is too narrow to hold anything.";
    case "outline/too-wide":
      return "This outline is too flat: it is more than five times as wide as it is high.";
    default:
      return "This is no outline: it holds something that is no number.";
  }
}
