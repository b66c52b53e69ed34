import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { zipSync } from "fflate";
import { createServer, type Server, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import sharp from "sharp";
import { pictureDefaults, pictureSettingsSchema, type PictureSettings } from "../../core/props/settings";
import { fetchFile } from "./address";
import { makeProp } from "./make";
import { filesInZip, isZip } from "./zip";

const png = (colour: string, width = 60, height = 40): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 4, background: colour } })
    .png()
    .toBuffer();
/** Four tiles in a row: red, green, blue, white. */
const strip = async (): Promise<Buffer> => {
  const tiles = await Promise.all(["#f00", "#0f0", "#00f", "#fff"].map((c) => png(c, 20, 20)));
  return sharp({ create: { width: 80, height: 20, channels: 4, background: "#0000" } })
    .composite(tiles.map((input, i) => ({ input, left: i * 20, top: 0 })))
    .png()
    .toBuffer();
};
const shape = (part: Partial<PictureSettings>): PictureSettings => pictureSettingsSchema.parse({ ...pictureDefaults, ...part });
const made = async (bytes: Buffer, settings?: PictureSettings) => {
  const prop = await makeProp(bytes, settings === undefined ? undefined : { kind: "picture", settings });
  if (!prop.ok) throw new Error(prop.refusal.code);
  return prop.value;
};
const colourAt = async (bytes: Buffer, x: number, y: number): Promise<number[]> => {
  const { data, info } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const i = (y * info.width + x) * 4;
  return [...data.subarray(i, i + 3)].map((v) => Math.round(v / 64));
};

describe("pictures", () => {
  test("keep their size up to what a stage needs", async () => {
    expect((await made(await png("#c40", 900, 300))).facts).toMatchObject({
      frames: 1,
      frameWidth: 900,
      frameHeight: 300,
      sourceWidth: 900,
    });
    expect((await made(await png("#c40", 3_000, 300))).facts).toMatchObject({ frameWidth: 1_024, sourceWidth: 3_000 });
  });
  test("are cut where it is set", async () => {
    const { facts, made: file } = await made(await strip(), shape({ crop: { x: 0.25, y: 0, width: 0.25, height: 1 } }));
    expect(facts).toMatchObject({ frameWidth: 20, frameHeight: 20 });
    expect(await colourAt(file.bytes, 10, 10)).toEqual([0, 4, 0]);
  });
  test("a sheet's grid becomes frames, in reading order, with the time that is set", async () => {
    const { facts, made: file } = await made(await strip(), shape({ grid: { columns: 4, rows: 1, frames: 3 }, frameMs: 250 }));
    expect(facts).toMatchObject({ frames: 3, columns: 2, frameWidth: 20, frameHeight: 20, frameMs: 250 });
    expect([await colourAt(file.bytes, 5, 5), await colourAt(file.bytes, 25, 5), await colourAt(file.bytes, 5, 25)]).toEqual([
      [4, 0, 0],
      [0, 4, 0],
      [0, 0, 4],
    ]);
  });
  test("an SVG is cut at the sharpness it is drawn with", async () => {
    const svg = Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 20" width="40" height="20"><rect width="20" height="20" fill="#f00"/><rect x="20" width="20" height="20" fill="#00f"/></svg>',
    );
    const { facts, made: file } = await made(svg, shape({ crop: { x: 0.5, y: 0, width: 0.5, height: 1 } }));
    expect(facts).toMatchObject({ frameWidth: 1_024, frameHeight: 1_024 });
    expect(await colourAt(file.bytes, 60, 500)).toEqual([0, 0, 4]);
  });
  test("a cut over the edge and more frames than places can't be set", () => {
    expect(pictureSettingsSchema.safeParse({ ...pictureDefaults, crop: { x: 0.6, y: 0, width: 0.6, height: 1 } }).success).toBe(false);
    expect(pictureSettingsSchema.safeParse({ ...pictureDefaults, grid: { columns: 2, rows: 2, frames: 5 } }).success).toBe(false);
  });
  test("a GIF of 20,000 frames is refused before its frames are made", async () => {
    // Head, then the same small frame over and over.
    const head = Buffer.from("474946383961010001008000000000ffffff00", "hex");
    const frame = Buffer.from("21f9040400000000002c00000000010001000002024401 00".replace(/ /g, ""), "hex");
    const gif = Buffer.concat([head, ...Array.from({ length: 20_000 }, () => frame), Buffer.from("3b", "hex")]);
    const prop = await makeProp(gif);
    expect(prop.ok ? "taken" : prop.refusal.code).toMatch(/^picture\/(too-many-frames|broken)$/);
  });
});

describe("ZIP files", () => {
  test("give their pictures and sounds, by name, and nothing else", async () => {
    const zip = Buffer.from(
      zipSync({
        "a/two.png": await png("#111"),
        "one.svg": Buffer.from("<svg/>"),
        "b/notes.txt": Buffer.from("x"),
        "__MACOSX/._one.svg": Buffer.from("x"),
        ".hidden.png": Buffer.from("x"),
      }),
    );
    expect(isZip(zip)).toBe(true);
    const files = await filesInZip(zip, 1e6);
    expect(files.ok && files.value.map((f) => f.name)).toEqual(["one.svg", "two.png"]);
  });
  test("that unpack to more than is allowed, or hold nothing, or are damaged, are refused", async () => {
    const bomb = Buffer.from(zipSync({ "bomb.png": new Uint8Array(30 * 1024 * 1024) }));
    expect(bomb.length).toBeLessThan(200_000);
    expect(await filesInZip(bomb, 12 * 1024 * 1024)).toMatchObject({ ok: false, refusal: { code: "prop/bad-zip" } });
    expect(await filesInZip(Buffer.from(zipSync({ "a.txt": Buffer.from("x") })), 1e6)).toMatchObject({
      ok: false,
      refusal: { code: "prop/nothing-in-zip" },
    });
    expect(await filesInZip(Buffer.from("PK\u0003\u0004 and then nothing"), 1e6)).toMatchObject({ ok: false });
  });
});

describe("files by address", () => {
  let server: Server;
  let base: string;
  const held: ServerResponse[] = [];
  beforeAll(async () => {
    const picture = await png("#c40");
    server = createServer((req, res) => {
      switch (req.url) {
        case "/boat.png":
          return res.writeHead(200, { "content-type": "image/png" }).end(picture);
        case "/moved":
          return res.writeHead(302, { location: "/boat.png" }).end();
        case "/round":
          return res.writeHead(302, { location: "/round" }).end();
        case "/away":
          return res.writeHead(302, { location: "ftp://x.invalid/y" }).end();
        case "/elsewhere":
          return res.writeHead(302, { location: `http://127.0.0.1:1/x` }).end();
        case "/moved-on":
          res.writeHead(302, { location: "/boat.png" });
          held.push(res);
          return void setInterval(() => res.destroyed || res.write(Buffer.alloc(60_000)), 5).unref();
        case "/endless":
          res.writeHead(200);
          return void setInterval(() => res.destroyed || res.write(Buffer.alloc(60_000)), 5).unref();
        default:
          return res.writeHead(404).end();
      }
    });
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterAll(async () => {
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
  });
  const code = async (address: string, inside = true, most = 1e6): Promise<string> => {
    const got = await fetchFile(address, most, { inside: inside ? [base] : [] });
    return got.ok ? `${got.value.name} ${got.value.bytes.length > 50}` : got.refusal.code;
  };
  test("of an address that leads on nothing more is read", async () => {
    expect(await code(`${base}/moved-on`)).toBe("boat.png true");
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(held.map((res) => res.destroyed)).toEqual([true]);
  });
  test("are fetched, also where they have moved to", async () => {
    expect([await code(`${base}/boat.png`), await code(`${base}/moved`)]).toEqual(["boat.png true", "boat.png true"]);
  });
  test.each([
    "127.0.0.1",
    "localhost",
    "[::1]",
    "10.1.2.3",
    "192.168.0.1",
    "169.254.169.254",
    "0.0.0.0",
    "[fe80::1]",
    "[::ffff:127.0.0.1]",
    "[::127.0.0.1]",
    "[::10.0.0.1]",
    "[64:ff9b::7f00:1]",
    "[2002:7f00:1::]",
    "[fec0::1]",
    "[::]",
    "2130706433",
  ])("http://%s leads inside and is refused", async (host) =>
    expect(await code(`http://${host}/x.png`, false)).toBe("prop/address-inside"),
  );
  test("one that may be inside leads to no other that is", async () => {
    expect(await code(`${base}/elsewhere`)).toBe("prop/address-inside");
  });
  test("what is missing, too large, endless, goes round or is no address of the web is refused", async () => {
    expect(await code(`${base}/gone`)).toBe("prop/address-failed");
    expect(await code(`${base}/boat.png`, true, 20)).toBe("prop/too-large");
    expect(await code(`${base}/endless`, true, 500_000)).toBe("prop/too-large");
    expect(await code(`${base}/round`)).toBe("prop/address-failed");
    expect(await code(`${base}/away`)).toBe("prop/bad-address");
    for (const bad of ["file:///etc/passwd", "gopher://x", "no address", "http://user:pw@x.invalid/"])
      expect(await code(bad)).toBe("prop/bad-address");
    expect(await code("http://no-such-name.invalid/")).toBe("prop/address-failed");
  });
});
