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
const picture = { mime: "image/webp", bytes: Buffer.from("a picture") };
beforeAll(async () => {
  root = await mkdtemp(join(tmpdir(), "izzam-built-"));
  const built = join(root, "built");
  await mkdir(join(built, "folder"), { recursive: true });
  await writeFile(join(built, "page.js"), "let page;");
  await writeFile(join(built, ".secret"), "no");
  await writeFile(join(root, "above.txt"), "above");
  const store: EngineStore = {
    ...memoryEngineStore(),
    prop: async (sha) => {
      if (away) throw new Error("away");
      return sha === "known" ? picture : null;
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
type Answer = Readonly<{ status: number; text: string; headers: Readonly<Record<string, string | string[] | undefined>> }>;
/** Exactly that path: `fetch` would tidy it first. */
const get = (path: string, headers: Record<string, string> = {}): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const { port } = server.address() as AddressInfo;
    request({ host: "127.0.0.1", port, path, headers }, (res) => {
      let text = "";
      res.on("data", (part: Buffer) => (text += part.toString()));
      res.on("end", () => resolve({ status: res.statusCode ?? 0, text, headers: res.headers }));
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
