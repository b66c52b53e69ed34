import { describe, expect, test } from "@jest/globals";
import { flashesPerLoop, type Frame, safeFrameMs } from "./flash";

const side = 4;
/** One colour all over, or over the first `share` of the pixels with black in the rest. */
const frame = (r: number, g: number, b: number, share = 1): Frame => ({
  width: side,
  height: side,
  rgba: Uint8Array.from({ length: side * side * 4 }, (_, i) =>
    i % 4 === 3 ? 255 : Math.floor(i / 4) < side * side * share ? [r, g, b][i % 4]! : 0,
  ),
});
const black = frame(0, 0, 0);
const white = frame(255, 255, 255);

describe("flashes (WCAG 2.3.1)", () => {
  test("black and white by turns is one flash a pair", () => {
    expect(flashesPerLoop([black, white])).toBe(1);
    expect(flashesPerLoop([black, white, black, white, black, white])).toBe(3);
  });
  test("a slow swell counts once, however many steps it takes", () =>
    expect(flashesPerLoop([0, 60, 120, 180, 255, 180, 120, 60].map((v) => frame(v, v, v)))).toBe(1));
  test("changes below a tenth, or between light and lighter, are no flash", () => {
    expect(flashesPerLoop([frame(100, 100, 100), frame(110, 110, 110)])).toBe(0);
    expect(flashesPerLoop([frame(240, 240, 240), white])).toBe(0);
  });
  test("less than a quarter of the picture does not count, a quarter does", () => {
    expect(flashesPerLoop([black, frame(255, 255, 255, 3 / 16)])).toBe(0);
    expect(flashesPerLoop([black, frame(255, 255, 255, 4 / 16)])).toBe(1);
  });
  test("saturated red counts by its own rule", () => expect(flashesPerLoop([frame(80, 0, 0), frame(130, 0, 0)])).toBe(1));
  test("an animation is slowed just so far that it flashes three times a second", () => {
    expect(safeFrameMs([black, white], 20)).toBe(167);
    expect(safeFrameMs([black, white], 400)).toBe(400);
    expect(safeFrameMs([frame(90, 90, 90), frame(95, 95, 95)], 20)).toBe(20);
    expect(safeFrameMs([white], 0)).toBe(0);
  });
});
