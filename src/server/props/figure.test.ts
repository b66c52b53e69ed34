import { describe, expect, test } from "@jest/globals";
import { zipSync } from "fflate";
import sharp from "sharp";
import { figureFormat, figureJsonSchema } from "../../core/props/figure";
import { pictureFactsSchema } from "../../core/props/settings";
import { makeProp } from "./make";

const json = (value: unknown): Uint8Array => Buffer.from(JSON.stringify(value));
const zip = (files: Record<string, Uint8Array>): Buffer => Buffer.from(zipSync(files));
const tile = (colour: string, width = 40, height = 60): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 4, background: colour } })
    .png()
    .toBuffer();
/** Tiles of 40 by 60 in a row. */
async function strip(...colours: string[]): Promise<Buffer> {
  const tiles = await Promise.all(colours.map((c) => tile(c)));
  return sharp({ create: { width: 40 * colours.length, height: 60, channels: 4, background: "#0000" } })
    .composite(tiles.map((input, i) => ({ input, left: i * 40, top: 0 })))
    .png()
    .toBuffer();
}
const figureIn = async (bytes: Buffer) => {
  const made = await makeProp(bytes);
  if (!made.ok) throw new Error(JSON.stringify(made.refusal));
  const facts = pictureFactsSchema.parse(made.value.facts);
  const { data, info } = await sharp(made.value.made.bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const at = (cell: number, x: number, y: number): number[] => {
    const left = (cell % facts.columns) * facts.frameWidth + Math.floor(x * facts.frameWidth);
    const top = Math.floor(cell / facts.columns) * facts.frameHeight + Math.floor(y * facts.frameHeight);
    return [...data.subarray((top * info.width + left) * 4, (top * info.width + left) * 4 + 4)].map((v) => Math.round(v / 64));
  };
  return { ...facts, figure: facts.figure!, name: made.value.name, at };
};
const refusalOf = async (files: Record<string, Uint8Array>) => {
  const made = await makeProp(zip(files));
  return made.ok ? { code: "taken", facts: {} } : made.refusal;
};
const head = { format: figureFormat, name: "Kiln hare" };
const drawing = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" width="100" height="100">
  <rect x="0" y="90" width="100" height="10" fill="#0f0"/>
  <g id="body"><rect x="30" y="50" width="40" height="40" fill="#f00"/></g>
  <g transform="translate(0 0)"><g id="head"><rect x="35" y="20" width="30" height="30" fill="#00f"/><circle id="lids" cx="50" cy="35" r="6" fill="#fff"/></g></g>
</svg>`;

describe("a figure drawn frame by frame", () => {
  test("has its states one after the other in one sheet, rest first, on one ground", async () => {
    const made = await figureIn(
      zip({
        "hare/figure.json": json({
          ...head,
          states: {
            walk: { picture: "walk.png", columns: 3, frameMs: 150 },
            rest: { picture: "rest.png" },
            cheer: { picture: "tall.png", loop: false },
          },
        }),
        "hare/walk.png": await strip("#f00", "#0f0", "#00f"),
        "hare/rest.png": await tile("#fff"),
        "hare/tall.png": await tile("#ff0", 40, 120),
      }),
    );
    expect(made.name).toBe("Kiln hare");
    expect([made.frames, made.frameWidth, made.frameHeight]).toEqual([1, 40, 120]);
    expect(made.figure.states).toMatchObject({
      rest: { first: 0, frames: 1 },
      walk: { first: 1, frames: 3, frameMs: 150, loop: true },
      cheer: { first: 4, frames: 1, loop: false },
    });
    // Half as high as the highest, it stands on the ground and not in the air.
    expect([made.at(0, 0.5, 0.2)[3], made.at(0, 0.5, 0.9)]).toEqual([0, [4, 4, 4, 4]]);
    expect([made.at(1, 0.5, 0.9), made.at(2, 0.5, 0.9), made.at(3, 0.5, 0.9)]).toEqual([
      [4, 0, 0, 4],
      [0, 4, 0, 4],
      [0, 0, 4, 4],
    ]);
  });
  test("that would flash is played slower", async () => {
    const flicker = await figureIn(
      zip({
        "figure.json": json({ ...head, states: { rest: { picture: "a.png", columns: 2, frameMs: 20 } } }),
        "a.png": await strip("#000", "#fff"),
      }),
    );
    expect(flicker.figure.states.rest!.frameMs).toBeGreaterThanOrEqual(160);
  });
});

describe("a figure in parts", () => {
  test("is taken apart by the names of its groups: each on a cell of its own, turning where it hangs", async () => {
    const made = await figureIn(
      zip({
        "figure.json": json({ ...head, drawing: "h.svg", parts: { body: {}, head: { turnsAt: [0.5, 0.5] } } }),
        "h.svg": Buffer.from(drawing),
      }),
    );
    const { parts, under } = made.figure;
    expect(parts.map((p) => p.name).sort()).toEqual(["body", "head", "lids"]);
    const cell = (name: string) => parts.find((p) => p.name === name)!.cell;
    // The whole: eyes open.
    expect([made.at(0, 0.5, 0.35), made.at(0, 0.5, 0.7), made.at(0, 0.5, 0.95)]).toEqual([
      [0, 0, 4, 4],
      [4, 0, 0, 4],
      [0, 4, 0, 4],
    ]);
    expect([made.at(cell("head"), 0.5, 0.35), made.at(cell("head"), 0.5, 0.7)[3]]).toEqual([[0, 0, 4, 4], 0]);
    expect([made.at(cell("lids"), 0.5, 0.35), made.at(cell("lids"), 0.36, 0.22)[3]]).toEqual([[4, 4, 4, 4], 0]);
    expect([made.at(under!, 0.5, 0.95), made.at(under!, 0.5, 0.7)[3]]).toEqual([[0, 4, 0, 4], 0]);
    expect(parts.find((p) => p.name === "head")).toMatchObject({ x: 0.5, y: 0.5 });
    expect(parts.find((p) => p.name === "body")!.y).toBeCloseTo(0.9, 1);
  });
});

describe("what a figure can’t be", () => {
  test("a ZIP without a manifest is no figure", async () => {
    expect(await refusalOf({ "a.png": await tile("#fff") })).toMatchObject({ code: "figure/no-manifest" });
    expect(await refusalOf({ "a.txt": Buffer.from("x") })).toMatchObject({ code: "figure/no-manifest" });
  });
  test("a manifest that can’t be read says what is wrong, and where", async () => {
    const a = await tile("#fff");
    const why = async (manifest: unknown) => {
      const { code, facts } = await refusalOf({ "figure.json": json(manifest), "a.png": a });
      return `${code} ${String(facts["where"])}${String(facts["why"])}`;
    };
    expect(await why({ ...head, states: { walk: { picture: "a.png" } } })).toContain("“rest” is missing");
    expect(await why({ ...head, name: " ", states: { rest: { picture: "a.png" } } })).toContain("name: A figure needs a name");
    expect(await why({ ...head, states: { rest: { picture: "../../etc/passwd" } } })).toContain("states → rest → picture");
    expect(await why({ ...head, states: { rest: { picture: "a.png" }, somersault: { picture: "a.png" } } })).toContain(
      "figure/bad-manifest",
    );
    expect(await why({ ...head, states: { rest: { picture: "a.png", columns: 2, frames: 9 } } })).toContain("more frames than places");
    expect(await why({ ...head, drawing: "a.png", parts: { body: {} } })).toContain("drawing: A drawing in parts is an SVG file");
    expect(await why({ format: "other", name: "x", states: {} })).toContain("figure/bad-manifest");
    expect(await why([])).toContain("figure/bad-manifest");
    expect((await refusalOf({ "figure.json": Buffer.from("{") })).facts["why"]).toBe("it is no JSON");
    expect((await refusalOf({ "figure.json": Buffer.from(" ".repeat(70_000)) })).facts["why"]).toContain("64 kB");
    expect((await refusalOf({ "figure.json": json(JSON.parse('{"__proto__": {"format": "izzam-figure-1"}}')) })).code).toBe(
      "figure/bad-manifest",
    );
  });
  test("one that lies about its files, frames or parts is refused whole", async () => {
    const one = { ...head, states: { rest: { picture: "a.png" } } };
    expect(await refusalOf({ "figure.json": json(one) })).toMatchObject({ code: "figure/no-file", facts: { file: "a.png" } });
    expect(await refusalOf({ "figure.json": json(one), "a.png": Buffer.from("no picture") })).toMatchObject({ code: "figure/bad-file" });
    expect(await refusalOf({ "figure.json": json(one), "a.png": await tile("#0000") })).toMatchObject({ code: "figure/bad-file" });
    const many = {
      ...head,
      states: Object.fromEntries(["rest", "walk", "cheer"].map((s) => [s, { picture: "a.png", columns: 10, rows: 10 }])),
    };
    expect(await refusalOf({ "figure.json": json(many), "a.png": await tile("#fff", 100, 100) })).toMatchObject({
      code: "figure/too-many-frames",
      facts: { frames: 300 },
    });
    const parts = { ...head, drawing: "h.svg", parts: { tail: {} } };
    expect(await refusalOf({ "figure.json": json(parts), "h.svg": Buffer.from(drawing) })).toMatchObject({
      code: "figure/no-part",
      facts: { part: "tail" },
    });
    const bomb = zip({ "figure.json": json(one), "a.png": new Uint8Array(30 * 1024 * 1024) });
    expect(await makeProp(bomb)).toMatchObject({ ok: false, refusal: { code: "prop/bad-zip" } });
  });
  test("a name of half letters and turned lines is made fit", async () => {
    const a = await tile("#fff");
    const name = async (given: string) => {
      const made = await makeProp(
        zip({ "figure.json": json({ ...head, name: given, states: { rest: { picture: "a.png" } } }), "a.png": a }),
      );
      return made.ok ? made.value.name : made.refusal.code;
    };
    expect([await name("hare\u202e\ud83d"), await name("\u202e\ud83d"), await name("🐇 Häsin")]).toEqual(["hare", "a figure", "🐇 Häsin"]);
  });
  test("the published schema names every state", () => {
    const text = JSON.stringify(figureJsonSchema());
    for (const word of ["startle", "mouth-open", "turnsAt", "2020-12"]) expect(text).toContain(word);
  });
});
