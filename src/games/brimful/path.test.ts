import { describe, expect, test } from "@jest/globals";
import { outlineOf } from "../../core/games/brimful/outline";
import { brimfulDefaults, brimfulSettingsSchema } from "../../core/games/brimful/settings";
import { readPath } from "./path";

const good = (text: string) => {
  const read = readPath(text);
  if (!read.ok) throw new Error(read.words);
  return read.points;
};
const bad = (text: string): string => {
  const read = readPath(text);
  return read.ok ? "" : read.words;
};

describe("a path of one's own", () => {
  test("with straight lines, relative ones and curves becomes a vessel that can be published", () => {
    for (const d of [
      "M0 0 L10 100 H60 L70 0",
      "m0 0 l10 100 h50 l10 -100",
      "M0 0 C0 60 20 100 35 100 S70 60 70 0",
      "M0 0 Q0 100 35 100 T70 0",
      "M0,0 V50 A35 50 0 0 0 70 50 V0",
    ]) {
      const points = good(d);
      const settings = { ...brimfulDefaults, vessel: { ...brimfulDefaults.vessel, shape: "own", points } };
      expect(brimfulSettingsSchema.safeParse(settings).success).toBe(true);
      expect(outlineOf({ shape: "own", points }).area).toBeGreaterThan(0.3);
    }
  });
  test("is taken out of the file it stands in, the longest of several", () => {
    const file = `<svg xmlns="http://www.w3.org/2000/svg"><path d="M1 1L2 2"/><path id='v' d='M0 0 L10 100 H60 L70 0'/></svg>`;
    expect(good(file)).toEqual(good("M0 0 L10 100 H60 L70 0"));
  });
  test("with ten thousand points is made simple at once, and is the same vessel", () => {
    const d = Array.from({ length: 10_000 }, (_, i) => {
      const a = Math.PI - (i / 9_999) * Math.PI;
      return `${i === 0 ? "M" : "L"}${(Math.cos(a) * 50).toFixed(3)} ${(Math.sin(a) * 80).toFixed(3)}`;
    }).join(" ");
    const points = good(d);
    expect(points.length).toBeLessThan(160);
    // Half an ellipse, 100 wide and 80 high.
    expect(outlineOf({ shape: "own", points }).area).toBeCloseTo((Math.PI * 50 * 80) / 2 / 80 ** 2, 2);
  });
  test.each([
    ["M0 100 L0 0 L100 0 L100 100", "open at the bottom"],
    ["M0 0 L100 100 L0 100 L100 0 L50 40", "crosses itself"],
    ["M0 0 L50 50 L100 100", "no room inside"],
    ["hello", "no SVG path"],
    ["", "no path"],
    ["<svg></svg>", "no path"],
    ["M0 0", "at least three points"],
    ["M0 0 L nan 4", "no SVG path"],
    ["M0 0 L1e999 5 L3 3", ""],
    [`M${"0 0 ".repeat(200_000)}`, "too long"],
  ])("%.30s is refused with its reason", (d, words) => {
    const said = bad(d);
    expect(said.length).toBeGreaterThan(10);
    expect(said).toContain(words);
  });
});
