import SvgPath from "svgpath";
import { mostPoints, outlineProblem, type Point, readOutline } from "../../core/games/brimful/outline";

/** Longer than any drawing of one line; what is longer is no outline but a picture. */
const mostLetters = 600_000;
const mostDrawn = 40_000;
const curveSteps = 10;

export type ReadPath = Readonly<{ ok: true; points: readonly (readonly [number, number])[] }> | Readonly<{ ok: false; words: string }>;
const no = (words: string): ReadPath => ({ ok: false, words });

/** The path itself, where somebody gave the file it stands in. */
function pathIn(text: string): string {
  if (!text.includes("<")) return text.trim();
  const found = [...text.matchAll(/<path\b[^>]*?\sd\s*=\s*(?:"([^"]*)"|'([^']*)')/g)].map((m) => m[1] ?? m[2] ?? "");
  // Of several the longest is the outline; the others are trimmings.
  return found.reduce((a, b) => (b.length > a.length ? b : a), "").trim();
}

/** Every line of a path as points, its curves in short straight steps. Only its first part counts: an outline is one line. */
function pointsOf(path: InstanceType<typeof SvgPath>): Readonly<{ points: Point[]; closed: boolean; parts: number }> {
  const points: Point[] = [];
  let closed = false;
  let parts = 0;
  const put = (x: number, y: number): void => void (parts === 1 && !closed && points.length < mostDrawn && points.push([x, y]));
  path
    .abs()
    .unshort()
    .unarc()
    .iterate((segment, _, x, y) => {
      // The library gives each segment as its letter and its numbers.
      const [kind, ...n] = segment as unknown as [string, ...number[]];
      switch (kind) {
        case "M":
          parts += 1;
          return put(n[0] ?? 0, n[1] ?? 0);
        case "L":
          return put(n[0] ?? 0, n[1] ?? 0);
        case "H":
          return put(n[0] ?? 0, y);
        case "V":
          return put(x, n[0] ?? 0);
        case "C":
        case "Q": {
          const cubic = kind === "C";
          const [ex, ey] = [n[n.length - 2] ?? 0, n[n.length - 1] ?? 0];
          const [ax, ay] = cubic ? [n[0] ?? 0, n[1] ?? 0] : [x + ((n[0] ?? 0) - x) * (2 / 3), y + ((n[1] ?? 0) - y) * (2 / 3)];
          const [bx, by] = cubic ? [n[2] ?? 0, n[3] ?? 0] : [ex + ((n[0] ?? 0) - ex) * (2 / 3), ey + ((n[1] ?? 0) - ey) * (2 / 3)];
          for (let k = 1; k <= curveSteps; k += 1) {
            const t = k / curveSteps;
            const s = 1 - t;
            const mix = (p: number, q: number, r: number, e: number): number =>
              s * s * s * p + 3 * s * s * t * q + 3 * s * t * t * r + t * t * t * e;
            put(mix(x, ax, bx, ex), mix(y, ay, by, ey));
          }
          return;
        }
        case "Z":
        case "z":
          if (parts === 1) closed = true;
          return;
      }
    });
  return { points, closed, parts };
}

/** Fewer points of the same line (Ramer, Douglas and Peucker), without calling itself: a drawing may have thousands. */
export function simplified(points: readonly Point[], tolerance: number): readonly Point[] {
  if (points.length < 3) return points;
  const keep = new Uint8Array(points.length);
  keep[0] = keep[points.length - 1] = 1;
  const stack: [number, number][] = [[0, points.length - 1]];
  for (let range = stack.pop(); range !== undefined; range = stack.pop()) {
    const [from, to] = range;
    const [ax, ay] = points[from] ?? [0, 0];
    const [bx, by] = points[to] ?? [0, 0];
    const length = Math.hypot(bx - ax, by - ay);
    let far = 0;
    let at = 0;
    for (let i = from + 1; i < to; i += 1) {
      const [x, y] = points[i] ?? [0, 0];
      const off = length === 0 ? Math.hypot(x - ax, y - ay) : Math.abs((bx - ax) * (ay - y) - (ax - x) * (by - ay)) / length;
      if (off > far) [far, at] = [off, i];
    }
    if (far <= tolerance) continue;
    keep[at] = 1;
    stack.push([from, at], [at, to]);
  }
  return points.filter((_, i) => keep[i] === 1);
}

/** An SVG path, or the file it stands in, as the points of a vessel; or why it is none, and what to do. */
export function readPath(text: string): ReadPath {
  if (text.length > mostLetters) return no("This is too long for an outline. Draw one line with fewer points.");
  const d = pathIn(text);
  if (d === "") return no("There is no path in this. Paste the d of an SVG path, or drop an SVG file that has one.");
  const path = new SvgPath(d);
  // The library keeps what was wrong with it in a field its types don't name.
  const { err } = path as unknown as { err?: string };
  if (err !== undefined && err !== "") return no("This is no SVG path. It begins with M and goes on with letters and numbers.");
  const { points, closed, parts } = pointsOf(path);
  if (parts > 1 && points.length < 3) return no("An outline is one line; this path has several.");
  const ys = points.map((p) => p[1]);
  const height = ys.reduce((a, b) => Math.max(a, b), -Infinity) - ys.reduce((a, b) => Math.min(a, b), Infinity);
  let few = points as readonly Point[];
  for (let tolerance = height / 800; few.length > mostPoints - 10 && tolerance < height; tolerance *= 1.6)
    few = simplified(points, tolerance);
  const read = readOutline(few, closed);
  if (!read.ok) return no(outlineProblem(read.refusal.code));
  return { ok: true, points: read.value.wall.map(([x, y]) => [Math.round(x * 1000), Math.round(y * 1000)] as const) };
}
