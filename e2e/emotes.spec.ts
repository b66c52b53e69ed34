import { expect, type Page } from "@playwright/test";
import sharp from "sharp";
import { base, chatConnected, control, copyLink, openOverlay, sayUntilShown, signIn, test, usualPicture } from "./support";

test.beforeAll(() => control("/demo/reset"));
test.beforeEach(async ({ page }) => {
  await signIn(page, "owner", "/prepare/emotes");
  await expect(page.locator("[data-emote]").first()).toBeVisible();
});

const disc = (colour: string): Buffer =>
  Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 64 64"><circle cx="32" cy="32" r="30" fill="${colour}"/></svg>`);
const add = (page: Page, ...files: { name: string; mimeType: string; buffer: Buffer }[]): Promise<void> =>
  page.getByLabel("Pictures to add").setInputFiles(files);
const emote = (page: Page, word: string) => page.locator(`[data-emote="${word}"]`);

test("many pictures at once, each with its own answer; their words come from the file names", async ({ page }) => {
  const gif = await sharp(
    await Promise.all(
      ["#263", "#2a6", "#263"].map((c) =>
        sharp({ create: { width: 32, height: 32, channels: 4, background: c } })
          .png()
          .toBuffer(),
      ),
    ),
    { join: { animated: true } },
  )
    .gif({ delay: [90, 90, 90] })
    .toBuffer();
  await add(
    page,
    { name: "salt spray.svg", mimeType: "image/svg+xml", buffer: disc("#3a5f8f") },
    { name: "grin.gif", mimeType: "image/gif", buffer: gif },
    { name: "fake.png", mimeType: "image/png", buffer: Buffer.from("<script>alert(1)</script>") },
    { name: "again.svg", mimeType: "image/svg+xml", buffer: disc("#3a5f8f") },
  );
  await expect(emote(page, "saltSpray")).toBeVisible();
  await expect(emote(page, "grin")).toContainText("moves, 3 frames");
  await expect(page.getByText("This is not a PNG, SVG, GIF or WebP picture, whatever its name says.")).toBeVisible();
  await expect(page.getByText("This picture is there already, as saltSpray.")).toBeVisible();
  await page.getByRole("button", { name: "Leave out" }).first().click();
});

test("a word that is taken is refused in words, and another one is tried in place", async ({ page }) => {
  await add(page, { name: "wobblepot.svg", mimeType: "image/svg+xml", buffer: disc("#456b28") });
  // The suggestion already steps aside; a word typed by hand is refused.
  await expect(emote(page, "wobblepot2")).toBeVisible();
  await page.getByLabel("Chat word of wobblepot2").fill("MUGUP");
  await page.getByLabel("Chat word of wobblepot2").press("Enter");
  await expect(page.getByText(/The word mugUp is taken/)).toBeVisible();
  await expect(emote(page, "wobblepot2")).toBeVisible();
  await page.getByLabel("Chat word of wobblepot2").fill("mossGreen");
  await page.getByLabel("Chat word of wobblepot2").press("Enter");
  await expect(emote(page, "mossGreen")).toBeVisible();
});

test("removing is undone in one click", async ({ page }) => {
  await page.getByRole("button", { name: "Remove teaPot" }).click();
  await expect(emote(page, "teaPot")).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(emote(page, "teaPot")).toBeVisible();
});

test("an emote that was just added flies as soon as its word is written, in any capitals", async ({ page, context }) => {
  await add(page, { name: "brickDisc.svg", mimeType: "image/svg+xml", buffer: disc("#b93a26") });
  await expect(emote(page, "brickDisc")).toBeVisible();
  await page.goto(`${base}/prepare`);
  await chatConnected(page);
  const overlay = await openOverlay(context, await copyLink(page), usualPicture);
  await sayUntilShown(overlay, "look: BRICKDISC");
  await expect
    .poll(async () => {
      const { data } = await sharp(await overlay.screenshot({ omitBackground: true }))
        .ensureAlpha()
        .raw()
        .toBuffer({ resolveWithObject: true });
      let brick = 0;
      for (let i = 0; i < data.length; i += 4)
        if (
          data[i + 3]! > 200 &&
          Math.abs(data[i]! - 0xb9) < 14 &&
          Math.abs(data[i + 1]! - 0x3a) < 14 &&
          Math.abs(data[i + 2]! - 0x26) < 14
        )
          brick += 1;
      return brick;
    })
    .toBeGreaterThan(1_000);
});
