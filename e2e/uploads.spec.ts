import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect } from "@playwright/test";
import { unzipSync, zipSync } from "fflate";
import sharp from "sharp";
import { film, films } from "../src/server/testing/films";
import { base, control, signIn, test, viewerPage } from "./support";

/** Files as large as is promised: what is told of a limit is true only if somebody reached it. */
const megabyte = 1024 * 1024;
const folder = mkdtempSync(join(tmpdir(), "izzam-large-"));
test.beforeAll(() => control("/demo/reset"));
test.afterAll(() => rmSync(folder, { recursive: true, force: true }));

const large = (name: string, bytes: Buffer): string => {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
};
/** The film, and behind it a box of nothing that players pass over, up to this size. */
function filmOf(seconds: number, size: number): Buffer {
  const short = film(films.plain(seconds));
  const free = Buffer.alloc(size - short.length);
  free.writeUInt32BE(free.length, 0);
  free.write("free", 4, "latin1");
  return Buffer.concat([short, free]);
}
/** Stored, not packed, so that it is as large as what is in it. */
const zipOf = (files: Record<string, Uint8Array>): Buffer => Buffer.from(zipSync(files, { level: 0 }));

test("films of 64 MB and ZIPs of 120 MB come in; what is larger is refused before it is sent; one on its way is called back", async ({
  page,
}) => {
  await signIn(page, "owner", "/prepare/props");
  const files = page.getByLabel("Files to add");
  const adding = page.getByRole("status", { name: "Files being added" });
  await files.setInputFiles(large("a long one.mp4", filmOf(2, 64 * megabyte)));
  await expect(page.locator("[data-prop='a long one']")).toBeVisible({ timeout: 60_000 });

  const tile = await sharp({ create: { width: 40, height: 40, channels: 4, background: "#395" } })
    .png()
    .toBuffer();
  await files.setInputFiles(large("many.zip", zipOf({ "sea tile.png": tile, "notes.bin": new Uint8Array(119 * megabyte) })));
  await expect(page.locator("[data-prop='sea tile']")).toBeVisible({ timeout: 60_000 });

  let sent = 0;
  page.on("request", (request) => (sent += request.method() === "POST" && request.url().endsWith("/api/props") ? 1 : 0));
  await files.setInputFiles([
    large("too long.mp4", filmOf(1, 64 * megabyte + 1)),
    large("too many.zip", Buffer.alloc(120 * megabyte + 1)),
    large("too wide.png", Buffer.alloc(12 * megabyte + 1)),
  ]);
  for (const words of ["larger than 64 MB", "larger than 120 MB", "larger than 12 MB"]) await expect(adding).toContainText(words);
  expect(sent).toBe(0);
  for (let n = 0; n < 3; n += 1) await adding.getByRole("button", { name: "Leave out" }).first().click();
  await expect(adding).toHaveCount(0);

  // Over a slow line it can be called back, and nothing of it stays.
  const line = await page.context().newCDPSession(page);
  await line.send("Network.emulateNetworkConditions", {
    offline: false,
    latency: 0,
    downloadThroughput: -1,
    uploadThroughput: 2 * megabyte,
  });
  await files.setInputFiles(large("called back.mp4", filmOf(3, 60 * megabyte)));
  await expect(adding).toContainText(/called back\.mp4\d+ %/);
  await adding.getByRole("button", { name: "Cancel called back.mp4" }).click();
  await expect(page.getByText("called back.mp4")).toHaveCount(0);
  await line.send("Network.emulateNetworkConditions", { offline: false, latency: 0, downloadThroughput: -1, uploadThroughput: -1 });
  await page.reload();
  await expect(page.locator("[data-prop='a long one']")).toBeVisible();
  await expect(page.locator("[data-prop='called back']")).toHaveCount(0);
});

test("the ZIP of a show of 80 MB is looked at, and a viewer’s film of 40 MB is taken; the next byte is too much", async ({
  page,
  browser,
}) => {
  await signIn(page, "owner", "/review");
  const href = await page.getByRole("list", { name: "Shows so far" }).getByRole("link").nth(1).getAttribute("href");
  const whole = unzipSync(await (await page.request.get(new URL(`/api${href}/whole`, page.url()).toString())).body());
  const size = 80 * megabyte - Object.values(whole).reduce((sum, part) => sum + part.length + 300, 0);
  const part = page.getByTestId("outside-shows");
  await part.getByLabel("The ZIP of a show").setInputFiles(large("show.zip", zipOf({ ...whole, "film.bin": new Uint8Array(size) })));
  await expect(page.getByText("It came in, and stands below.")).toBeVisible({ timeout: 60_000 });
  await part.getByLabel("The ZIP of a show").setInputFiles(large("larger.zip", Buffer.alloc(80 * megabyte + 1)));
  await expect(page.getByText("larger.zip: The file is larger than 80 MB.")).toBeVisible();

  const viewer = await viewerPage(browser, "quietferry");
  const send = async (bytes: Buffer) => {
    const at = `${base}/api/viewer/saltmarsh-kiln/film`;
    const film = { name: "mine.mp4", mimeType: "video/mp4", buffer: bytes };
    const response = await viewer.request.post(at, { headers: { origin: base }, multipart: { film } });
    return (await response.json()) as { ok: boolean; words?: string };
  };
  expect(await send(filmOf(2, 40 * megabyte))).toMatchObject({ ok: true });
  expect(await send(filmOf(2, 40 * megabyte + 1))).toMatchObject({ ok: false, words: "The file is larger than 40 MB." });
  expect(await send(Buffer.alloc(1_000, 7))).toMatchObject({ ok: false });
});
