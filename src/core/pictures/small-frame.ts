/** Where a plane of a decoded frame lies in its bytes. */
export type Plane = Readonly<{ offset: number; stride: number }>;
/** How the pixels of a decoded frame lie, in the words of the WebCodecs registry; others are not read here. */
export const readablePixels = ["I420", "I420A", "NV12", "RGBA", "RGBX", "BGRA", "BGRX"] as const;
export type PixelForm = (typeof readablePixels)[number];
export const isReadable = (form: string | null): form is PixelForm => (readablePixels as readonly (string | null)[]).includes(form);

/** At most so many pixels of a cell are looked at each way: the mean of them is the cell's. */
const looksEachWay = 6;

/**
 * A decoded frame made small, into RGBA cells: each is the mean of pixels spread over it. Colours by BT.709 in the limited
 * range, which is near enough to see flashes by.
 */
export function smallFrame(
  frame: Readonly<{ form: PixelForm; data: Uint8Array; planes: readonly Plane[]; width: number; height: number }>,
  into: Readonly<{ data: Uint8ClampedArray; width: number; height: number }>,
): void {
  const pixel = readerOf(frame.form, frame.data, frame.planes);
  for (let row = 0; row < into.height; row += 1)
    for (let column = 0; column < into.width; column += 1) {
      const sum: [number, number, number, number] = [0, 0, 0, 0];
      let looked = 0;
      for (const y of spread(row, into.height, frame.height))
        for (const x of spread(column, into.width, frame.width)) {
          pixel(x, y, sum);
          looked += 1;
        }
      const at = (row * into.width + column) * 4;
      for (let i = 0; i < 4; i += 1) into.data[at + i] = (sum[i] ?? 0) / looked;
    }
}

/** The pixels of one row or column of a cell that are looked at: at least one. */
function spread(cell: number, cells: number, size: number): readonly number[] {
  const from = Math.floor((cell * size) / cells);
  const to = Math.max(from + 1, Math.floor(((cell + 1) * size) / cells));
  const step = Math.max(1, Math.floor((to - from) / looksEachWay));
  const at: number[] = [];
  for (let i = from; i < to; i += step) at.push(Math.min(i, size - 1));
  return at;
}

type Reader = (x: number, y: number, sum: [number, number, number, number]) => void;
function readerOf(form: PixelForm, data: Uint8Array, planes: readonly Plane[]): Reader {
  const value = (plane: number, x: number, y: number): number => {
    const at = planes[plane] ?? { offset: 0, stride: 0 };
    return data[at.offset + y * at.stride + x] ?? 0;
  };
  if (form === "I420" || form === "I420A" || form === "NV12")
    return (x, y, sum) => {
      const [cx, cy] = [x >> 1, y >> 1];
      const luma = 1.164 * (value(0, x, y) - 16);
      const blue = (form === "NV12" ? value(1, cx * 2, cy) : value(1, cx, cy)) - 128;
      const red = (form === "NV12" ? value(1, cx * 2 + 1, cy) : value(2, cx, cy)) - 128;
      add(sum, luma + 1.793 * red, luma - 0.213 * blue - 0.533 * red, luma + 2.112 * blue, form === "I420A" ? value(3, x, y) : 255);
    };
  const [red, blue] = form.startsWith("RGB") ? [0, 2] : [2, 0];
  const clear = form.endsWith("A");
  return (x, y, sum) =>
    add(sum, value(0, x * 4 + red, y), value(0, x * 4 + 1, y), value(0, x * 4 + blue, y), clear ? value(0, x * 4 + 3, y) : 255);
}
const inByte = (v: number): number => Math.min(255, Math.max(0, v));
const add = (sum: [number, number, number, number], r: number, g: number, b: number, a: number): void => {
  sum[0] += inByte(r);
  sum[1] += inByte(g);
  sum[2] += inByte(b);
  sum[3] += a;
};
