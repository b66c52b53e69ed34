import { expect, test } from "@jest/globals";
import { isReadable, type PixelForm, smallFrame } from "./small-frame";

/** A frame of 8 × 4 whose left half is one colour and whose right half is another, as Y, U, V or R, G, B. */
type Three = readonly [number, number, number];
function frame(form: PixelForm, left: Three, right: Three, alpha = 255) {
  const [width, height, pad] = [8, 4, 3];
  const half = <T>(x: number, w: number, a: T, b: T): T => (x < w / 2 ? a : b);
  const planes: { offset: number; stride: number }[] = [];
  const bytes: number[] = [];
  const plane = (w: number, h: number, at: (x: number) => readonly number[]): void => {
    const from = bytes.length;
    let stride = 0;
    for (let y = 0; y < h; y += 1) {
      const row = Array.from({ length: w }, (_, x) => at(x)).flat();
      bytes.push(...row, ...Array.from({ length: pad }, () => 99));
      stride = row.length + pad;
    }
    planes.push({ offset: from, stride });
  };
  if (form.startsWith("I420")) {
    for (const i of [0, 1, 2])
      plane(i === 0 ? width : width / 2, i === 0 ? height : height / 2, (x) => [half(x, i === 0 ? width : width / 2, left, right)[i] ?? 0]);
    if (form === "I420A") plane(width, height, () => [alpha]);
  } else if (form === "NV12") {
    plane(width, height, (x) => [half(x, width, left, right)[0]]);
    plane(width / 2, height / 2, (x) => half(x, width / 2, left, right).slice(1));
  } else
    plane(width, height, (x) => {
      const [r, g, b] = half(x, width, left, right);
      return form.startsWith("RGB") ? [r, g, b, alpha] : [b, g, r, alpha];
    });
  return { form, data: Uint8Array.from(bytes), planes, width, height };
}
function cells(given: ReturnType<typeof frame>, width = 2, height = 1): number[][] {
  const data = new Uint8ClampedArray(width * height * 4);
  smallFrame(given, { data, width, height });
  return Array.from({ length: width * height }, (_, i) => [...data.subarray(i * 4, i * 4 + 4)]);
}
const near = (got: readonly number[] | undefined, want: readonly number[]): void => {
  want.forEach((v, i) => expect(Math.abs((got?.[i] ?? -999) - v)).toBeLessThanOrEqual(3));
};
// BT.709, limited: white, black and pure red.
const [white, black, red]: readonly [Three, Three, Three] = [
  [235, 128, 128],
  [16, 128, 128],
  [63, 102, 240],
];

test.each(["I420", "NV12"] as const)("%s: the halves are the colours they are, whatever lies behind a row", (form) => {
  const got = cells(frame(form, white, red));
  near(got[0], [255, 255, 255, 255]);
  near(got[1], [255, 0, 0, 255]);
  near(cells(frame(form, black, white))[0], [0, 0, 0, 255]);
});

test("what can be seen through stays so", () => {
  near(cells(frame("I420A", white, black, 64))[0], [255, 255, 255, 64]);
  near(cells(frame("RGBA", [200, 10, 30], [0, 0, 0], 128))[0], [200, 10, 30, 128]);
  near(cells(frame("BGRX", [200, 10, 30], [0, 0, 0], 0))[0], [200, 10, 30, 255]);
});

test("a cell is the mean of what is in it; more cells than pixels repeat them", () => {
  near(cells(frame("RGBX", [200, 0, 0], [0, 100, 0]), 1)[0], [100, 50, 0, 255]);
  const many = cells(frame("RGBX", [200, 0, 0], [0, 100, 0]), 32, 16);
  expect(many).toHaveLength(512);
  near(many[0], [200, 0, 0, 255]);
  near(many.at(-1), [0, 100, 0, 255]);
});

test("a form that isn't known is not read", () => {
  expect(isReadable(null)).toBe(false);
  expect(isReadable("I444")).toBe(false);
  expect(isReadable("constructor")).toBe(false);
  expect(isReadable("NV12")).toBe(true);
});
