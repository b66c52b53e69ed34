import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { build } from "esbuild";
import { deflateRawSync } from "node:zlib";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import sharp from "sharp";
import { childDecoder, type Decoder, limits } from "./decoder";
import { filesInZip } from "../props/zip";

/** Files that were made to stop a server: each costs at most its deadline, in a process of its own. */
let folder: string;
let decoder: Decoder;
let hanging: Decoder;
beforeAll(async () => {
  // Beside the packages it loads.
  folder = mkdtempSync(join(process.cwd(), ".data-test", "decoder-"));
  const made = { bundle: true, platform: "node", format: "esm", target: "node20", packages: "external", logLevel: "error" } as const;
  await build({ ...made, entryPoints: [new URL("./main.ts", import.meta.url).pathname], outfile: join(folder, "decoder.mjs") });
  await build({
    ...made,
    stdin: {
      contents: `import { writeFileSync } from "node:fs";
        process.on("message", (m) => { if (m.job.bytes[0] === 7) { for (;;) {} } if (m.job.bytes[0] === 8) { const all = []; setInterval(() => all.push(Buffer.alloc(40e6, 1)), 5); }
        if (m.job.bytes[0] === 9) process.exit(3); if (m.job.bytes[0] === 1) process.send({ id: m.id, result: { ok: true, value: process.env } }); });
        process.send({ ready: true });`,
    },
    outfile: join(folder, "hanging.mjs"),
  });
  decoder = childDecoder(join(folder, "decoder.mjs"));
  hanging = childDecoder(join(folder, "hanging.mjs"), {
    ...limits,
    deadlineMs: { picture: 1_000, face: 5_000, prop: 4_000, unzip: 1_000 },
    mostBytes: 300 * 1024 * 1024,
    mostWaiting: 3,
  });
});
afterAll(() => {
  decoder.stop();
  hanging.stop();
  rmSync(folder, { recursive: true, force: true });
});

const code = (result: { ok: true } | { ok: false; refusal: { code: string } }): string => (result.ok ? "taken" : result.refusal.code);
/** How long this process worked itself meanwhile, milliseconds: by its own clock, which stands while others have the processor. */
async function ownWork(work: () => Promise<unknown>): Promise<number> {
  const before = process.cpuUsage();
  await work();
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1_000;
}
const svg = (inner: string): Buffer => Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">${inner}</svg>`);
const masks = svg(
  `<defs>${Array.from({ length: 24 }, (_, i) => `<mask id="m${i}"><g mask="url(#m${i + 1})"><rect width="99" height="99" mask="url(#m${i + 1})"/></g></mask>`).join("")}</defs><rect width="99" height="99" mask="url(#m0)"/>`,
);

describe("files that were made to stop a server", () => {
  test.each([
    ["masks within masks", masks],
    ["a hundred thousand groups, one in another", svg("<g>".repeat(100_000) + '<rect width="9" height="9"/>' + "</g>".repeat(100_000))],
    [
      "shapes that use each other",
      svg(
        `<defs><rect id="u0" width="9" height="9"/>${Array.from({ length: 20 }, (_, i) => `<g id="u${i + 1}">${`<use href="#u${i}"/>`.repeat(10)}</g>`).join("")}</defs><use href="#u20"/>`,
      ),
    ],
    ["shapes that use themselves", svg('<g id="a"><use href="#a"/></g>')],
    [
      "a long dashed path",
      svg(`<path stroke="red" stroke-width="2" stroke-dasharray="0.001 0.001" d="M0 0${" L99 0 L0 99".repeat(80_000)}"/>`),
    ],
    ["a fine dash on a long line", svg('<path stroke="red" stroke-dasharray="0.0001" d="M0 0L90000 0"/>')],
  ])("%s: refused in words, and nothing waits for it", async (_, bytes) => {
    let result: Awaited<ReturnType<Decoder["picture"]>> | null = null;
    const worked = await ownWork(async () => (result = await decoder.picture(bytes)));
    expect(code(result!)).toBe("picture/too-complex");
    expect(worked).toBeLessThan(500);
  });
  test("what hangs is ended at its deadline, and the next file is opened", async () => {
    const [stuck, well] = await Promise.all([
      hanging.picture(Buffer.from([7])),
      decoder.picture(
        await sharp({ create: { width: 9, height: 9, channels: 4, background: "#c40" } })
          .png()
          .toBuffer(),
      ),
    ]);
    expect([code(stuck), code(well)]).toEqual(["file/too-heavy", "taken"]);
  });
  test("what wants too much memory is ended, and so is one that falls over", async () => {
    expect(code(await hanging.prop(Buffer.from([8])))).toBe("file/too-heavy");
    expect(code(await hanging.picture(Buffer.from([9])))).toBe("file/undecodable");
  });
  test("a process that is still starting says nothing about the file: not now, and never that it is too heavy", async () => {
    writeFileSync(join(folder, "asleep.mjs"), "setInterval(() => undefined, 1e3);");
    const asleep = childDecoder(join(folder, "asleep.mjs"), { ...limits, deadlineMs: { ...limits.deadlineMs, face: 50 }, startMs: 400 });
    expect(code(await asleep.face(Buffer.from([1])))).toBe("file/too-many");
    asleep.stop();
  });
  test("a flood of bad files is turned away, and does not pile up", async () => {
    const all = await Promise.all(Array.from({ length: 8 }, () => hanging.picture(Buffer.from([7]))));
    expect(all.map(code).filter((c) => c === "file/too-many").length).toBeGreaterThanOrEqual(2);
  });
  test("the process that opens files holds no key and no password", async () => {
    process.env["IZZAM_APP_KEY"] = "secret-of-the-installation";
    const fresh = childDecoder(join(folder, "hanging.mjs"));
    const env = await fresh.picture(Buffer.from([1]));
    fresh.stop();
    delete process.env["IZZAM_APP_KEY"];
    expect(JSON.stringify(env)).toContain("NODE_ENV");
    expect(JSON.stringify(env)).not.toMatch(/IZZAM|PASSWORD|secret-of/);
  });
  test("ordinary pictures, sounds and ZIP files come out as before", async () => {
    const png = await sharp({ create: { width: 30, height: 20, channels: 4, background: "#375" } })
      .png()
      .toBuffer();
    expect(await decoder.picture(png)).toMatchObject({ ok: true, value: { kind: "png", frameWidth: 30 } });
    expect(await decoder.prop(png)).toMatchObject({ ok: true, value: { kind: "picture" } });
    const drawn = new URL("../../../demo/emotes/", import.meta.url);
    const names = readdirSync(drawn).filter((name) => name.endsWith(".svg"));
    expect(names.length).toBeGreaterThan(5);
    for (const name of names) expect([name, code(await decoder.picture(readFileSync(new URL(name, drawn))))]).toEqual([name, "taken"]);
  });
});

/** A ZIP of entries that all say they are at one place, with sizes that are not true. */
function trap(entries: number, said: number): Buffer {
  const data = deflateRawSync(Buffer.alloc(1_000_000));
  const name = (i: number): Buffer => Buffer.from(`${i}.png`);
  const head = Buffer.alloc(30);
  head.writeUInt32LE(0x04034b50, 0);
  head.writeUInt16LE(20, 4);
  head.writeUInt16LE(8, 8);
  head.writeUInt32LE(data.length, 18);
  head.writeUInt32LE(said, 22);
  head.writeUInt16LE(name(0).length, 26);
  const first = Buffer.concat([head, name(0), data]);
  const central = Array.from({ length: entries }, (_, i) => {
    const c = Buffer.alloc(46);
    c.writeUInt32LE(0x02014b50, 0);
    c.writeUInt16LE(20, 4);
    c.writeUInt16LE(20, 6);
    c.writeUInt16LE(8, 10);
    c.writeUInt32LE(data.length, 20);
    c.writeUInt32LE(said, 24);
    c.writeUInt16LE(name(i).length, 28);
    return Buffer.concat([c, name(i)]);
  });
  const size = central.reduce((sum, c) => sum + c.length, 0);
  const end = Buffer.alloc(22);
  end.writeUInt32LE(0x06054b50, 0);
  end.writeUInt16LE(entries, 8);
  end.writeUInt16LE(entries, 10);
  end.writeUInt32LE(size, 12);
  end.writeUInt32LE(first.length, 16);
  return Buffer.concat([first, ...central, end]);
}

describe("ZIP files that were made to stop a server", () => {
  test("many names for one stream, and sizes that are not true, are refused before they cost anything", async () => {
    expect(code(await filesInZip(trap(190, 1_000_000), 12e6))).toBe("prop/bad-zip");
    expect(code(await filesInZip(trap(1, 100), 12e6))).toBe("prop/bad-zip");
    expect(code(await filesInZip(trap(1, 1_000_000), 500_000))).toBe("prop/bad-zip");
    expect(code(await filesInZip(trap(1, 1_000_000), 12e6))).toBe("taken");
    const path = join(folder, "trap.zip");
    writeFileSync(path, trap(190, 1_000_000));
    const worked = await ownWork(async () => expect(code(await decoder.unzip(path, 12e6, folder))).toBe("prop/bad-zip"));
    expect(worked).toBeLessThan(500);
  });
});
