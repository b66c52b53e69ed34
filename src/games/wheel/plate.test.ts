import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { glazes, newSegment, wheelDefaults } from "../../core/games/wheel/settings";
import { lettersOn, shade } from "../../overlay/colour";
import { shortened } from "../../overlay/letters";
import { namesFit, plateKey } from "./plate";

type Brush = Parameters<typeof shortened>[0];
/** Letters of one width each. */
const brush = { measureText: (text: string) => ({ width: [...text].length * 10 }) } as unknown as Brush;

const channel = (c: number): number => (c / 255 <= 0.03928 ? c / 255 / 12.92 : ((c / 255 + 0.055) / 1.055) ** 2.4);
const luminance = (hex: string): number => {
  const [r = 0, g = 0, b = 0] = [1, 3, 5].map((i) => channel(parseInt(hex.slice(i, i + 2), 16)));
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
};
const contrast = (a: string, b: string): number => {
  const [high = 0, low = 0] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (high + 0.05) / (low + 0.05);
};

describe("letters on a glaze", () => {
  test("can be read on every glaze that ships: at least 4.5 to 1", () => {
    for (const { colour } of glazes) expect([colour, contrast(colour, lettersOn(colour)) >= 4.5]).toEqual([colour, true]);
  });
  test("and on whatever colour somebody chooses: large letters need 3 to 1", () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 0xffffff }), (n) => {
        const colour = `#${n.toString(16).padStart(6, "0")}`;
        return contrast(colour, lettersOn(colour)) >= 3;
      }),
    ));
});

test("names stand on the plate while most of them can be read there; else a list beside it takes over", () => {
  const arcs = (n: number) =>
    Array.from({ length: n }, (_, i) => ({ segment: i, from: Math.round((i * 1_000_000) / n), to: Math.round(((i + 1) * 1_000_000) / n) }));
  const fits = (n: number, r: number): boolean => namesFit({ arcs: arcs(n), looks: wheelDefaults.looks }, r, 0.024 * 1_080);
  expect([2, 8, 24].map((n) => fits(n, 400))).toEqual([true, true, true]);
  // A wheel as high as the picture holds sixty; a small one does not.
  expect([fits(60, 500), fits(60, 130), fits(61, 500)]).toEqual([true, false, false]);
});

describe("a name that is too long", () => {
  test("is shortened by whole graphemes, with a sign that it was", () => {
    expect(shortened(brush, "Celadon", 70)).toBe("Celadon");
    expect(shortened(brush, "Sea green", 60)).toBe("Sea g…");
    expect(shortened(brush, "Sea green", 50)).toBe("Sea…");
    expect(shortened(brush, "👩‍🏭👩‍🏭👩‍🏭", 50)).toBe("👩‍🏭…");
    expect(shortened(brush, "Celadon", 5)).toBe("");
  });
});

test("tones go towards white and towards black, and stay colours", () => {
  expect(shade("#808080", 1)).toBe("rgb(255,255,255)");
  expect(shade("#808080", -1)).toBe("rgb(0,0,0)");
  expect(shade("#804020", 0)).toBe("rgb(128,64,32)");
});

test("the plate is painted anew when something on it changed, and not before", () => {
  const plate = {
    segments: [newSegment("a", "A", 0)].map(({ label, colour, pattern, picture }) => ({
      label,
      colour,
      pattern,
      picture,
      rests: false,
      chance: "100.00 %",
    })),
    arcs: [{ segment: 0, from: 0, to: 1_000_000 }],
    looks: wheelDefaults.looks,
  };
  expect(plateKey({ ...plate })).toBe(plateKey(plate));
  expect(plateKey({ ...plate, looks: { ...plate.looks, rim: "#000000" } })).not.toBe(plateKey(plate));
  expect(plateKey({ ...plate, segments: plate.segments.map((s) => ({ ...s, rests: true })) })).not.toBe(plateKey(plate));
});
