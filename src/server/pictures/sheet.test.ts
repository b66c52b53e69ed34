import { describe, expect, test } from "@jest/globals";
import sharp from "sharp";
import { pictureRefusalInWords } from "./words";
import { toSheet } from "./sheet";
import { cleanSvg } from "./svg";

const solid = (colour: string, width = 40, height = 30) => sharp({ create: { width, height, channels: 4, background: colour } });
const frames = async (colours: string[]): Promise<Buffer[]> => Promise.all(colours.map((c) => solid(c).png().toBuffer()));
const svg = (inner: string, head = 'viewBox="0 0 10 10"'): Buffer =>
  Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" ${head}>${inner}</svg>`);
const codeOf = async (bytes: Buffer): Promise<string> => {
  const sheet = await toSheet(bytes);
  return sheet.ok ? "taken" : sheet.refusal.code;
};

describe("pictures are checked by what they are", () => {
  test("PNG, WebP, GIF and SVG are taken", async () => {
    expect(await toSheet(await solid("#c40").png().toBuffer())).toMatchObject({
      ok: true,
      value: { kind: "png", frames: 1, frameWidth: 40, frameHeight: 30, frameMs: 0 },
    });
    expect(await codeOf(await solid("#c41").webp().toBuffer())).toBe("taken");
    expect(await codeOf(await solid("#c42").gif().toBuffer())).toBe("taken");
    expect(await toSheet(svg('<circle cx="5" cy="5" r="4" fill="red"/>'))).toMatchObject({
      ok: true,
      value: { kind: "svg", frameWidth: 256, frameHeight: 256 },
    });
  });
  test("an animation becomes a sheet of its frames, with their time", async () => {
    const gif = await sharp(await frames(["#263", "#264", "#265"]), { join: { animated: true } })
      .gif({ delay: [80, 80, 80] })
      .toBuffer();
    expect(await toSheet(gif)).toMatchObject({ ok: true, value: { kind: "gif", frames: 3, columns: 2, frameMs: 80 } });
  });
  test("an animation that flashes too often is slowed", async () => {
    const gif = await sharp(await frames(["#000", "#fff"]), { join: { animated: true } })
      .gif({ delay: [20, 20] })
      .toBuffer();
    const sheet = await toSheet(gif);
    expect(sheet.ok && sheet.value.frameMs).toBe(167);
  });
  test.each<[string, () => Promise<Buffer> | Buffer, string]>([
    ["nothing", () => Buffer.alloc(0), "picture/empty"],
    ["text under a picture's name", () => Buffer.from("this is not a picture"), "picture/unknown-kind"],
    ["a page", () => Buffer.from("<html><body><script>1</script></body></html>"), "picture/unknown-kind"],
    ["a JPEG", () => solid("#c40").jpeg().toBuffer(), "picture/unknown-kind"],
    ["a program", () => Buffer.from("7f454c4602010100000000000000000002003e00", "hex"), "picture/unknown-kind"],
    [
      "half a PNG",
      async () =>
        (
          await sharp({
            create: { width: 300, height: 300, channels: 3, noise: { type: "gaussian", mean: 128, sigma: 60 }, background: "#000" },
          })
            .png()
            .toBuffer()
        ).subarray(0, 40_000),
      "picture/broken",
    ],
    ["a transparent picture", () => solid("#0000").png().toBuffer(), "picture/nothing-visible"],
    ["a picture too wide", () => solid("#c40", 5_000, 4).png().toBuffer(), "picture/too-many-pixels"],
    ["over 2 MB", () => Buffer.alloc(2 * 1024 * 1024 + 1, 1), "picture/too-large"],
    [
      "an SVG that expands itself",
      () =>
        Buffer.from('<!DOCTYPE svg [<!ENTITY a "aaaa">]><svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1 1"><text>&a;</text></svg>'),
      "picture/unknown-kind",
    ],
  ])("%s is refused in words", async (_, make, code) => {
    expect(await codeOf(await make())).toBe(code);
    expect(pictureRefusalInWords(code)).toMatch(/^[A-Z].*\.$/);
  });
  test("an animation of more than 300 frames is refused", async () => {
    const many = await Promise.all(
      Array.from({ length: 301 }, (_, i) =>
        sharp({
          create: { width: 2, height: 2, channels: 4, background: { r: i % 256, g: i > 255 ? 200 : 20, b: (i * 37) % 256, alpha: 1 } },
        })
          .png()
          .toBuffer(),
      ),
    );
    expect(
      await codeOf(
        await sharp(many, { join: { animated: true } })
          .webp({ lossless: true, minSize: false })
          .toBuffer(),
      ),
    ).toBe("picture/too-many-frames");
  });
  test("two files that show the same have the same mark", async () => {
    const [a, b] = [
      await toSheet(await solid("#c40").png({ compressionLevel: 1 }).toBuffer()),
      await toSheet(await solid("#c40").png({ compressionLevel: 9, palette: true }).toBuffer()),
    ];
    expect(a.ok && b.ok && a.value.pixelsSha === b.value.pixelsSha).toBe(true);
  });
});

describe("cleaning an SVG", () => {
  test("leaves shapes and paint, and nothing that runs or reaches out", () => {
    const dirty = `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" onload="steal()" viewBox="0 0 9 9">
      <script>alert(1)</script><style>@import url(http://evil.invalid/x.css)</style><foreignObject><iframe src="http://evil.invalid"/></foreignObject>
      <image href="http://evil.invalid/x.png"/><use xlink:href="http://evil.invalid/#a"/><use href="#ok"/><a href="javascript:alert(1)"><rect width="1" height="1"/></a>
      <g id="ok" onclick="x()" style="fill:url(http://evil.invalid)"><path d="M0 0h9v9z" fill="url(#paint)" stroke="url(http://evil.invalid/p)"/></g><animate attributeName="href" to="javascript:1"/></svg>`;
    const clean = cleanSvg(dirty)!;
    expect(clean).not.toMatch(/script|evil|onload|onclick|javascript|style|foreignObject|iframe|<image|<animate|@import/i);
    expect(clean).toMatch(/<path d="M0 0h9v9z" fill="url\(#paint\)"/);
    expect(clean).toContain('href="#ok"');
    expect(clean).toContain('viewBox="0 0 9 9"');
  });
  test("what is no SVG is nothing", () => expect(cleanSvg("<html></html>")).toBeNull());
});
