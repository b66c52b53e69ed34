import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { dressDefaults, dressOf, fontProblem } from "./dress";

const font = new Uint8Array(
  readFileSync("node_modules/@fontsource-variable/bricolage-grotesque/files/bricolage-grotesque-latin-wght-normal.woff2"),
);

describe("a font of one's own", () => {
  test("is a WOFF2 file", () => expect(fontProblem(font)).toBeNull());
  test("is none where it only says so", () => {
    expect(fontProblem(new Uint8Array([119, 79, 70, 50]))).toBe("font/none");
    expect(fontProblem(new TextEncoder().encode("<svg onload=alert(1)>".repeat(10)))).toBe("font/none");
    expect(fontProblem(new Uint8Array(0))).toBe("font/none");
  });
  test("is refused where it is cut short, longer than it says, or too large", () => {
    expect(fontProblem(font.slice(0, font.length - 100))).toBe("font/damaged");
    expect(fontProblem(new Uint8Array([...font, 1, 2, 3]))).toBe("font/damaged");
    const large = new Uint8Array(2_000_001);
    large.set(font.slice(0, 48));
    expect(fontProblem(large)).toBe("font/too-large");
  });
});
describe("how an overlay is dressed", () => {
  test("is the usual where nothing was stored, or nothing that can be read", () => {
    for (const stored of [null, undefined, {}, { look: "neon" }, "x"]) expect(dressOf(stored)).toEqual(dressDefaults);
    expect(dressOf({ ...dressDefaults, font: { url: "https://elsewhere.invalid/f.woff2", name: "" } })).toEqual(dressDefaults);
    expect(dressOf({ ...dressDefaults, look: "ledger" }).look).toBe("ledger");
  });
});
