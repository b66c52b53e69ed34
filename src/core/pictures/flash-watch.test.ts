import { describe, expect, test } from "@jest/globals";
import { chanceFrom } from "../kernel/chance";
import { type FlashKind, FlashWatch } from "./flash-watch";

const [width, height] = [48, 27];
type Cell = readonly [r: number, g: number, b: number, a?: number];
const black: Cell = [0, 0, 0];
const white: Cell = [255, 255, 255];
const red: Cell = [255, 0, 0];
/** Frames of a picture, so many a second; the first that was found to flash too often, and when. */
function watch(
  seconds: number,
  perSecond: number,
  cell: (x: number, y: number, atMs: number) => Cell,
): { kind: FlashKind; atMs: number } | null {
  const own = new FlashWatch(width, height);
  const rgba = new Uint8Array(width * height * 4);
  for (let n = 0; n < seconds * perSecond; n += 1) {
    const atMs = (n * 1_000) / perSecond;
    for (let y = 0; y < height; y += 1)
      for (let x = 0; x < width; x += 1) {
        const [r, g, b, a = 255] = cell(x, y, atMs);
        const i = (y * width + x) * 4;
        rgba[i] = r;
        rgba[i + 1] = g;
        rgba[i + 2] = b;
        rgba[i + 3] = a;
      }
    const kind = own.take(rgba, atMs);
    if (kind !== null) return { kind, atMs };
  }
  return null;
}
/** Which cells spots cover at a time: found once for each frame, not by asking every spot for every cell. */
function litBy(
  at: (atMs: number) => Readonly<{ r: number; square: boolean; spots: readonly Readonly<{ x: number; y: number }>[] }>,
): (x: number, y: number, atMs: number) => boolean {
  const lit = new Uint8Array(width * height);
  let drawnMs = -1;
  return (x, y, atMs) => {
    if (atMs !== drawnMs) {
      drawnMs = atMs;
      lit.fill(0);
      const { r, square, spots } = at(atMs);
      for (const spot of spots)
        for (let cy = Math.max(0, Math.ceil(spot.y - r)); cy <= Math.min(height - 1, spot.y + r); cy += 1)
          for (let cx = Math.max(0, Math.ceil(spot.x - r)); cx <= Math.min(width - 1, spot.x + r); cx += 1) {
            const [dx, dy] = [Math.abs(spot.x - cx), Math.abs(spot.y - cy)];
            if (square ? dx < r && dy < r : Math.hypot(dx, dy) < r) lit[cy * width + cx] = 1;
          }
    }
    return lit[y * width + x] === 1;
  };
}
/** On and off, so many times a second. */
const strobe = (hz: number, atMs: number): boolean => Math.floor((atMs * hz * 2) / 1_000) % 2 === 0;

describe("flashes in what is drawn", () => {
  test.each([4, 5, 8, 12])("%d a second over all of it are too many, and are found within a second or so", (hz) => {
    const found = watch(4, 30, (_, __, atMs) => (strobe(hz, atMs) ? white : black));
    expect(found?.kind).toBe("general");
    expect(found!.atMs).toBeLessThan(1_300);
  });
  test.each([1, 2, 3])("%d a second are not", (hz) => {
    expect(watch(5, 30, (_, __, atMs) => (strobe(hz, atMs) ? white : black))).toBeNull();
  });
  test("saturated red counts for itself, even where it is hardly lighter", () => {
    const found = watch(3, 30, (_, __, atMs) => (strobe(6, atMs) ? red : ([110, 0, 0] as const)));
    expect(found).not.toBeNull();
    const dim = watch(3, 30, (_, __, atMs) => (strobe(6, atMs) ? ([150, 0, 0] as const) : ([40, 40, 40] as const)));
    expect(dim?.kind).toBe("red");
  });
  test("a quarter of ten degrees is enough, wherever; less is not", () => {
    const square = (side: number) =>
      watch(3, 30, (x, y, atMs) => (x >= 40 - side && x < 40 && y >= 20 - side && y < 20 && strobe(6, atMs) ? white : black));
    // A field of ten degrees has 16 × 9 cells, a quarter of it 36.
    expect(square(7)?.kind).toBe("general");
    expect(square(5)).toBeNull();
  });
  test("what is not there flashes as what comes and goes over black", () => {
    expect(watch(3, 30, (_, __, atMs) => [255, 255, 255, strobe(6, atMs) ? 255 : 0])?.kind).toBe("general");
    expect(watch(3, 30, (_, __, atMs) => [255, 255, 255, strobe(6, atMs) ? 70 : 50])).toBeNull();
  });
  test("a slow fade, a bright thing that crosses the picture, and a storm of small things are no flashes", () => {
    expect(
      watch(6, 30, (_, __, atMs) => {
        const v = Math.round(127 + 127 * Math.sin(atMs / 600));
        return [v, v, v];
      }),
    ).toBeNull();
    expect(watch(4, 30, (x, y, atMs) => (Math.hypot(x - ((atMs / 25) % 60), y - 13) < 6 ? white : black))).toBeNull();
    const chance = chanceFrom(5);
    const specks = Array.from({ length: 60 }, () => ({
      x: chance() * width,
      y: chance() * height,
      vx: (chance() - 0.5) * 0.05,
      vy: (chance() - 0.5) * 0.05,
    }));
    const wrap = (v: number, most: number): number => ((v % most) + most) % most;
    const lit = litBy((atMs) => ({
      r: 1,
      square: true,
      spots: specks.map((s) => ({ x: wrap(s.x + s.vx * atMs, width), y: wrap(s.y + s.vy * atMs, height) })),
    }));
    expect(watch(4, 30, (x, y, atMs) => (lit(x, y, atMs) ? [230, 190, 120] : black))).toBeNull();
  });
  test("a heap of large bright things that fall all over the picture is none either", () => {
    const chance = chanceFrom(9);
    const flames = Array.from({ length: 150 }, () => ({ x: chance() * width, y: chance() * height, v: 0.02 + chance() * 0.03 }));
    const lit = litBy((atMs) => ({ r: 1.5, square: false, spots: flames.map((f) => ({ x: f.x, y: (f.y + f.v * atMs) % height })) }));
    expect(watch(5, 24, (x, y, atMs) => (lit(x, y, atMs) ? [255, 200, 90] : [20, 16, 12]))).toBeNull();
  });
  test("a board whose squares change places flashes, though as much of it grows dark as light", () => {
    const found = watch(3, 30, (x, y, atMs) => (((Math.floor(x / 4) + Math.floor(y / 4)) % 2 === 0) === strobe(6, atMs) ? white : black));
    expect(found?.kind).toBe("general");
  });
  test.each([
    ["upright stripes over a third of the picture", (x: number, y: number) => x < 16 && y < 27, (x: number) => Math.floor(x / 2) % 2 === 0],
    [
      "level stripes over most of a field, with what stands still between",
      (x: number) => x % 4 !== 0,
      (_: number, y: number) => y % 2 === 0,
    ],
    [
      "a board of small squares over two thirds of a field",
      (x: number, y: number) => x > 20 && x < 32 && y < 9,
      (x: number, y: number) => (x + y) % 2 === 0,
    ],
  ] as const)("%s flash, though as much grows dark as light; slowly they do not", (_, within, even) => {
    const at = (hz: number, perSecond: number) =>
      watch(4, perSecond, (x, y, atMs) => (within(x, y) && even(x, y) === strobe(hz, atMs) ? white : black));
    expect([at(5, 30)?.kind, at(8, 30)?.kind, at(5, 20)?.kind, at(5, 12)?.kind]).toEqual(Array.from({ length: 4 }, () => "general"));
    expect([at(2, 30), at(3, 30), at(3, 12)]).toEqual([null, null, null]);
  });
  test.each([10, 12, 15])("looked at %d times a second, four and five flashes are still found", (perSecond) => {
    for (const hz of [4, 5])
      expect([hz, watch(6, perSecond, (_, __, atMs) => (strobe(hz, atMs) ? white : black))?.kind]).toEqual([hz, "general"]);
    expect(watch(6, perSecond, (_, __, atMs) => (strobe(3, atMs) ? white : black))).toBeNull();
  });
  test("hundreds of bright things that fly every way, thick and fast, are none", () => {
    for (const [seed, many, perSecond] of [
      [3, 120, 30],
      [4, 120, 20],
      [5, 60, 12],
    ] as const) {
      const chance = chanceFrom(seed);
      const flies = Array.from({ length: many }, () => ({
        x: chance() * width,
        y: chance() * height,
        vx: (chance() - 0.5) * 0.12,
        vy: (chance() - 0.5) * 0.12,
      }));
      const wrap = (v: number, most: number): number => ((v % most) + most) % most;
      const lit = litBy((atMs) => ({
        r: 1,
        square: true,
        spots: flies.map((f) => ({ x: wrap(f.x + f.vx * atMs, width), y: wrap(f.y + f.vy * atMs, height) })),
      }));
      expect(watch(4, perSecond, (x, y, atMs) => (lit(x, y, atMs) ? white : black))).toBeNull();
    }
  });
  test("between light and lighter nothing flashes", () => {
    // Relative luminance of 0.83 and 1.
    expect(watch(3, 30, (_, __, atMs) => (strobe(8, atMs) ? white : ([235, 235, 235] as const)))).toBeNull();
  });
});
