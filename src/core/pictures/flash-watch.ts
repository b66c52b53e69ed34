/**
 * Watches a picture as it is drawn for flashes, by WCAG 2.3.1: more than three in any one second, general or of saturated
 * red, that happen together over a quarter of any ten degrees of the visual field. Fed with small copies of the frames.
 *
 * A general flash is a pair of opposing changes of relative luminance of a tenth or more where the darker is below 0.80; ten
 * degrees are a third of the picture's width and height (341 × 256 of 1,024 × 768 pixels).
 */
export type FlashKind = "general" | "red";
const leastChange = 0.1;
const darkBelow = 0.8;
const leastRed = 20;
const aQuarter = 0.25;
const nearlyAll = 0.9;
/** Of what changes in a field, so much must change the same way. */
const mostly = 0.6;
/** Changes of neighbouring cells within this time are one. */
const togetherMs = 90;
/** A frame comes when it comes: what is three a second is not taken for more. */
const secondMs = 970;
/** Three flashes are six changes; the seventh begins a fourth. */
const mostChanges = 6;
const remembered = mostChanges + 1;

const linear = Float32Array.from({ length: 256 }, (_, v) => (v <= 10 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4));

/** One value of every cell: where it stands, and when it last turned which way. */
class Turns {
  private readonly extreme: Float32Array;
  private readonly way: Int8Array;
  private readonly upMs: Float64Array;
  private readonly downMs: Float64Array;
  /** When each cell turned, the last few times. */
  private readonly lately: Float64Array;
  private readonly at: Uint8Array;
  private fresh = true;
  constructor(
    cells: number,
    private readonly counts: (low: number, high: number) => boolean,
  ) {
    this.extreme = new Float32Array(cells);
    this.way = new Int8Array(cells);
    this.upMs = new Float64Array(cells).fill(-Infinity);
    this.downMs = new Float64Array(cells).fill(-Infinity);
    this.lately = new Float64Array(cells * remembered).fill(-Infinity);
    this.at = new Uint8Array(cells);
  }
  take(values: Float32Array, atMs: number): void {
    const { extreme, way } = this;
    for (let i = 0; i < values.length; i += 1) {
      const value = values[i] ?? 0;
      const from = extreme[i] ?? 0;
      const going = way[i] ?? 0;
      if (this.fresh || (going > 0 && value > from) || (going < 0 && value < from)) extreme[i] = value;
      else if (this.counts(Math.min(value, from), Math.max(value, from))) {
        way[i] = value > from ? 1 : -1;
        extreme[i] = value;
        if (value > from) this.upMs[i] = atMs;
        else this.downMs[i] = atMs;
        const next = this.at[i] ?? 0;
        this.lately[i * remembered + next] = atMs;
        this.at[i] = (next + 1) % remembered;
      }
    }
    this.fresh = false;
  }
  /** Whether this cell by itself flashed too often in the last second: something that crosses it does not. */
  hot(i: number, nowMs: number): boolean {
    // The oldest of those remembered is the next to be written over.
    return nowMs - (this.lately[i * remembered + (this.at[i] ?? 0)] ?? -Infinity) < secondMs;
  }
  /** One number for all the times at which it turned lately: that of another cell is the same when it turned with it. */
  rhythm(i: number): number {
    let sum = 0;
    for (let k = 0; k < remembered; k += 1)
      sum = sum * 1.000_173 + (this.lately[i * remembered + (((this.at[i] ?? 0) + k) % remembered)] ?? 0);
    return sum;
  }
  turned(i: number, up: boolean, sinceMs: number): boolean {
    return ((up ? this.upMs[i] : this.downMs[i]) ?? -Infinity) > sinceMs;
  }
}

export class FlashWatch {
  private readonly light: Turns;
  private readonly red: Turns;
  private readonly lights: Float32Array;
  private readonly reds: Float32Array;
  private readonly sums: Int32Array;
  private readonly others: Int32Array;
  private readonly steps: Float64Array;
  private events: Record<FlashKind, { up: boolean; atMs: number }[]> = { general: [], red: [] };

  constructor(
    private readonly width: number,
    private readonly height: number,
  ) {
    const cells = width * height;
    this.light = new Turns(cells, (low, high) => high - low >= leastChange && low < darkBelow);
    this.red = new Turns(cells, (low, high) => high - low > leastRed);
    this.lights = new Float32Array(cells);
    this.reds = new Float32Array(cells);
    this.sums = new Int32Array((width + 1) * (height + 1));
    this.others = new Int32Array((width + 1) * (height + 1));
    this.steps = new Float64Array(cells);
  }

  /** One frame, row by row, red, green, blue, alpha of each cell; what flashes too often, if anything does. */
  take(rgba: ArrayLike<number>, atMs: number): FlashKind | null {
    for (let i = 0; i < this.lights.length; i += 1) {
      const alpha = (rgba[i * 4 + 3] ?? 0) / 255;
      const r = (linear[rgba[i * 4] ?? 0] ?? 0) * alpha;
      const g = (linear[rgba[i * 4 + 1] ?? 0] ?? 0) * alpha;
      const b = (linear[rgba[i * 4 + 2] ?? 0] ?? 0) * alpha;
      this.lights[i] = 0.2126 * r + 0.7152 * g + 0.0722 * b;
      // Saturated red: four fifths of it or more; its strength as WCAG weighs it.
      this.reds[i] = r + g + b > 0 && r / (r + g + b) >= 0.8 ? Math.max(0, (r - g - b) * 320) : 0;
    }
    this.light.take(this.lights, atMs);
    this.red.take(this.reds, atMs);
    const general = this.counted("general", this.light, atMs);
    const saturated = this.counted("red", this.red, atMs);
    return general ? "general" : saturated ? "red" : null;
  }

  /** Whether the last second had too many opposing changes that came together. */
  private counted(kind: FlashKind, turns: Turns, atMs: number): boolean {
    const events = this.events[kind].filter((e) => atMs - e.atMs < secondMs);
    const last = events[events.length - 1];
    const sinceMs = Math.max(atMs - togetherMs, last?.atMs ?? -Infinity);
    const ups = (i: number): number => (turns.turned(i, true, sinceMs) ? 1 : 0);
    const downs = (i: number): number => (turns.turned(i, false, sinceMs) ? 1 : 0);
    // Things that fly about make some places lighter and as many darker: what is left over went one way together.
    const any = (i: number): number => Math.max(ups(i), downs(i));
    const lighter = last?.up !== true && this.together((i) => ups(i) - downs(i), aQuarter, any);
    const darker = last?.up !== false && this.together((i) => downs(i) - ups(i), aQuarter, any);
    // And what changes nearly everywhere at once flashes, whichever way each place goes: a board whose squares change places.
    const all = !lighter && !darker && this.together(any, nearlyAll);
    if (lighter || darker || all) events.push({ up: lighter || (all && last?.up !== true), atMs });
    this.events[kind] = events;
    if (this.inStep(turns, atMs)) return true;
    // Changes that come together, over cells that each flash: neither alone is one.
    return events.length > mostChanges && this.together((i) => (turns.hot(i, atMs) ? 1 : 0), aQuarter);
  }

  /**
   * Whether a quarter of a field flashes too often in step, some of it growing lighter while the rest grows darker: stripes and
   * boards that change places. Things that fly about turn the cells under them one after another, never all at once again and again.
   */
  private inStep(turns: Turns, atMs: number): boolean {
    const { width, height, steps } = this;
    const groups = new Map<number, number>();
    let [most, many] = [0, 0];
    for (let i = 0; i < steps.length; i += 1) {
      // Cells that turned at the very same looks have one sum.
      const step = turns.hot(i, atMs) ? turns.rhythm(i) : 0;
      steps[i] = step;
      if (step === 0) continue;
      const of = (groups.get(step) ?? 0) + 1;
      groups.set(step, of);
      if (of > many) [most, many] = [step, of];
    }
    const enough = Math.ceil(Math.max(1, Math.round(width / 3)) * Math.max(1, Math.round(height / 3)) * aQuarter);
    return many >= enough && this.together((i) => (steps[i] === most ? 1 : 0), aQuarter);
  }

  /** Whether in any field of ten degrees such a share is so, and most of what moves at all: by sums over rectangles. */
  private together(of: (cell: number) => number, share: number, all?: (cell: number) => number): boolean {
    const { width, height } = this;
    const [w, h] = [Math.max(1, Math.round(width / 3)), Math.max(1, Math.round(height / 3))];
    const enough = Math.ceil(w * h * share);
    this.fill(this.sums, of);
    if (all !== undefined) this.fill(this.others, all);
    for (let y = h; y <= height; y += 1)
      for (let x = w; x <= width; x += 1) {
        const found = this.within(this.sums, x, y, w, h);
        if (found >= enough && (all === undefined || found >= mostly * this.within(this.others, x, y, w, h))) return true;
      }
    return false;
  }
  private fill(sums: Int32Array, of: (cell: number) => number): void {
    const row = this.width + 1;
    for (let y = 0; y < this.height; y += 1)
      for (let x = 0; x < this.width; x += 1)
        sums[(y + 1) * row + x + 1] =
          of(y * this.width + x) + (sums[y * row + x + 1] ?? 0) + (sums[(y + 1) * row + x] ?? 0) - (sums[y * row + x] ?? 0);
  }
  private within(sums: Int32Array, x: number, y: number, w: number, h: number): number {
    const row = this.width + 1;
    return (sums[y * row + x] ?? 0) - (sums[(y - h) * row + x] ?? 0) - (sums[y * row + x - w] ?? 0) + (sums[(y - h) * row + x - w] ?? 0);
  }
}
