import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { mkdtemp, mkdir, rm, writeFile } from "node:fs/promises";
import { createServer, request, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { EngineStore } from "../ports/engine-store";
import { memoryEngineStore } from "../adapters/memory/engine-store";
import { lastingFiles } from "./lasting-files";

let root: string;
let server: Server;
let away = false;
const film = Buffer.from(Array.from({ length: 900_000 }, (_, i) => (i * 7_919) % 251));
const picture = { mime: "image/webp", bytes: Buffer.from("a picture") };
beforeAll(async () => {
  root = await mkdtemp(join(tmpdir(), "izzam-built-"));
  const built = join(root, "built");
  await mkdir(join(built, "folder"), { recursive: true });
  await writeFile(join(built, "page.js"), "let page;");
  await writeFile(join(built, ".secret"), "no");
  await writeFile(join(root, "above.txt"), "above");
  const memory = memoryEngineStore();
  const fileOf = (mime: string, bytes: Buffer) => ({
    mime,
    size: bytes.length,
    async *read(from: number, to: number) {
      for (let at = from; at < to; at += 100_000) yield bytes.subarray(at, Math.min(to, at + 100_000));
    },
  });
  const store: EngineStore = {
    ...memory,
    media: {
      ...memory.media,
      file: async (sha) => {
        if (away) throw new Error("away");
        if (sha === "film") return fileOf("video/webm", film);
        // A part of it has gone missing.
        if (sha === "torn") return { ...fileOf("video/webm", film), read: (from) => fileOf("", film).read(from, 200_000) };
        return sha === "known" ? fileOf(picture.mime, picture.bytes) : null;
      },
    },
  };
  const files = lastingFiles(store, built);
  server = createServer((req, res) => {
    const name = (req.url ?? "/").slice(1);
    if (name.startsWith("props/")) files.prop(req, res, name.slice(6)).catch(() => res.writeHead(503).end());
    else files.file(req, res, name, name.includes("page"));
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
});
afterAll(async () => {
  await new Promise((resolve) => server.close(resolve));
  await rm(root, { recursive: true, force: true });
});
type Answer = Readonly<{ status: number; text: string; bytes: Buffer; headers: Readonly<Record<string, string | string[] | undefined>> }>;
/** Exactly that path: `fetch` would tidy it first. */
const get = (path: string, headers: Record<string, string> = {}): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const { port } = server.address() as AddressInfo;
    request({ host: "127.0.0.1", port, path, headers }, (res) => {
      const parts: Buffer[] = [];
      res.on("data", (part: Buffer) => parts.push(part));
      res.on("error", reject);
      res.on("end", () => {
        const bytes = Buffer.concat(parts);
        resolve({ status: res.statusCode ?? 0, text: bytes.toString(), bytes, headers: res.headers });
      });
    })
      .on("error", reject)
      .end();
  });

describe("built files", () => {
  test("come with their type, what a page may do, and for how long they last", async () => {
    const { status, text, headers } = await get("/page.js");
    expect([status, text]).toEqual([200, "let page;"]);
    expect(headers).toMatchObject({
      "content-type": expect.stringContaining("text/javascript"),
      "x-content-type-options": "nosniff",
      "content-security-policy": expect.stringContaining("default-src 'none'"),
      "referrer-policy": "no-referrer",
      "cache-control": "public, max-age=31536000, immutable",
    });
    expect((await get("/page.js", { "if-none-match": String(headers["etag"]) })).status).toBe(304);
  });
  test.each([
    "/../above.txt",
    "/%2e%2e/above.txt",
    "/..%2fabove.txt",
    "/folder/../../above.txt",
    "/.secret",
    "/folder",
    "/folder/",
    "/page.js%00.txt",
    "/%",
    "/none.js",
    "/",
  ])("nothing else: %s", async (path) => {
    const { status, text } = await get(path);
    expect([status, text]).toEqual([404, "not found"]);
  });
});

describe("moving pictures, which are large", () => {
  test("a piece of one is had by itself, as players ask for it; all of it where nobody asks for a piece", async () => {
    const { status, headers, bytes } = await get("/props/film", { range: "bytes=250000-449999" });
    expect([status, headers["content-range"], headers["accept-ranges"]]).toEqual([206, "bytes 250000-449999/900000", "bytes"]);
    expect(bytes.equals(film.subarray(250_000, 450_000))).toBe(true);
    expect((await get("/props/film", { range: "bytes=899999-" })).bytes.length).toBe(1);
    expect((await get("/props/film", { range: "bytes=-10" })).headers["content-range"]).toBe("bytes 899990-899999/900000");
    const all = await get("/props/film");
    expect([all.status, all.headers["content-length"], all.bytes.equals(film)]).toEqual([200, "900000", true]);
  });
  test.each([
    ["past its end", "bytes=900000-", 416],
    ["words", "pages=1-2", 200],
    ["several pieces", "bytes=0-1,5-6", 200],
    ["the wrong way round", "bytes=9-1", 416],
  ])("a range of %s", async (_, range, status) => expect((await get("/props/film", { range })).status).toBe(status));
  test("one of which a part is missing breaks off: nobody takes it for whole", async () => {
    await expect(get("/props/torn")).rejects.toThrow();
  });
});

describe("props", () => {
  test("what was asked for once is there while the database is away; what is not there is told so", async () => {
    expect(await get("/props/known")).toMatchObject({ status: 200, text: "a picture", headers: { "content-type": "image/webp" } });
    away = true;
    expect(await get("/props/known")).toMatchObject({ status: 200, text: "a picture" });
    expect((await get("/props/other")).status).toBe(503);
    away = false;
    expect(await get("/props/other")).toMatchObject({ status: 404, text: "not found" });
  });
});
