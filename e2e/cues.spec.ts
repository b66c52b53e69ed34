import { expect, type Page } from "@playwright/test";
import { appears, base, chatConnected, control, copyLink, facts, openOverlay, pressPad, rigLog, say, signIn, test } from "./support";

test.beforeAll(() => control("/demo/reset"));
test.beforeEach(async ({ page }) => {
  await signIn(page);
  await chatConnected(page);
});

test("a cue is fired by click, by key, by its trigger address, by a moderator’s word; and rests", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page));
  await page.goto(`${base}/prepare/cues`);
  const door = page.locator("[data-cue=kiln-door]");
  await door.getByRole("button", { name: /^Fire/ }).click();
  await appears(overlay, "The kiln is open");
  await door.getByRole("button", { name: /^Fire/ }).click();
  await expect(page.getByText(/This cue is on cooldown for [123] s more/)).toBeVisible();
  await expect(overlay.getByText("The kiln is open")).toHaveCount(0, { timeout: 15_000 });

  await page.keyboard.press("q");
  await appears(overlay, "The kiln is open", 2);
  await expect(overlay.getByText("The kiln is open")).toHaveCount(0, { timeout: 15_000 });
  // The button pad of the rig calls the trigger address.
  await pressPad(0);
  await appears(overlay, "The kiln is open", 3);
  await expect(overlay.getByText("The kiln is open")).toHaveCount(0, { timeout: 15_000 });
  await say("!door", "mossy_teapot");
  await overlay.waitForTimeout(600);
  await expect(overlay.getByText("The kiln is open")).toHaveCount(0);
  await say("!DOOR", "spongebearer");
  await appears(overlay, "The kiln is open", 4);
});

test("an on/off cue stays until it is fired again: through a reload of the page and a restart of the engine", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page));
  await page.goto(`${base}/prepare/cues`);
  const tea = page.locator("[data-cue=break]");
  await tea.getByRole("button", { name: /^Turn on/ }).click();
  await expect(overlay.getByText("Back in five minutes")).toBeVisible();
  await expect(tea.getByText("on", { exact: true })).toBeVisible();
  await overlay.reload();
  await expect(overlay.getByText("Back in five minutes")).toBeVisible();
  await control("/demo/kill/engine");
  await control("/demo/revive/engine");
  await overlay.reload();
  await expect(overlay.getByText("Back in five minutes")).toBeVisible();
  await expect(tea.getByRole("button", { name: /^Turn off/ })).toBeVisible();
  await tea.getByRole("button", { name: /^Turn off/ }).click();
  await expect(overlay.getByText("Back in five minutes")).toHaveCount(0);
});

test("a key that is taken says by whom, and is not shadowed; from another cue it can be taken, and that can be undone", async ({
  page,
}) => {
  await page.goto(`${base}/prepare/cues`);
  const door = page.locator("[data-cue=kiln-door]");
  await door.getByRole("button", { name: "Change" }).click();
  const key = door.getByLabel("Key");
  await expect(key).toHaveValue("q");
  for (const [typed, by] of [
    ["h", /H is used for (boss battle|emote wall): /i],
    ["k", "K is used for skipping what plays"],
    [".", ". is used for hush"],
  ] as const) {
    await key.fill(typed);
    await expect(door.getByRole("alert")).toContainText(by);
    await expect(key).toHaveValue("q");
  }
  await key.fill("a");
  await expect(door.getByRole("alert")).toContainText("A fires “");
  await key.press("Tab");
  await page.keyboard.press("Enter");
  await expect(key).toHaveValue("a");
  await expect(page.getByTestId("save-state")).toContainText("Saved ·");
  const other = page.locator("[data-cue=bell]");
  await expect(other.locator("kbd")).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(key).toHaveValue("q");
  await expect(other.locator("kbd")).toHaveText("A");
});

test("a trigger address is made, copied without being shown, replaced and turned off", async ({ page }) => {
  await page.goto(`${base}/prepare/cues`);
  await page.getByRole("button", { name: "Add a cue" }).click();
  const card = page.locator("[data-cue]").last();
  await card.getByLabel("Name of the cue").fill("Say hello");
  await card.getByRole("button", { name: "Choose what happens" }).click();
  await page.getByRole("menuitem", { name: "say something in chat" }).click();
  await card.getByLabel("Said in chat").fill("hello from {channel}");
  await card.getByLabel("Cooldown").fill("0");
  await expect(card.getByRole("button", { name: /^Fire/ })).toBeDisabled();
  await page.getByRole("button", { name: "Publish" }).click();
  await expect(page.getByText(/Published as version/)).toBeVisible();
  await card.getByRole("button", { name: "Make one" }).click();
  await expect(page.getByText("Trigger address copied, without being shown.")).toBeVisible();
  const url = await page.evaluate(() => navigator.clipboard.readText());
  expect(url).toMatch(/\/trigger\/[A-Za-z0-9_-]{22}$/);
  expect(await page.content()).not.toContain(url.split("/trigger/")[1]);
  const fired = await fetch(url);
  expect([fired.status, await fired.text()]).toEqual([200, "fired"]);
  await expect.poll(async () => (await rigLog()).map((l) => l.text)).toContain("hello from Saltmarsh Kiln");
  expect((await fetch(url, { method: "HEAD" })).status).toBe(405);
  const copied = () => page.evaluate(() => navigator.clipboard.readText());
  // A menu that opens slowly may swallow a click that comes before its items listen.
  await expect(async () => {
    await card.getByRole("button", { name: "Leaked?" }).click();
    await page.getByRole("menuitem", { name: /Replace it/ }).click({ timeout: 2_000 });
    await expect.poll(copied, { timeout: 4_000 }).not.toBe(url);
  }).toPass({ timeout: 30_000 });
  await expect.poll(async () => (await fetch(url)).status).toBe(404);
  const fresh = await page.evaluate(() => navigator.clipboard.readText());
  expect((await fetch(fresh, { method: "POST" })).status).toBe(200);
});

test("of five pages of one overlay one makes sound, once; when it goes, another has the voice within two seconds", async ({
  page,
  context,
}) => {
  const link = await copyLink(page);
  const pages: Page[] = [];
  for (let i = 0; i < 5; i += 1) pages.push(await openOverlay(context, link, { width: 640, height: 360 }));
  const voices = async (): Promise<number> =>
    (await Promise.all(pages.filter((p) => !p.isClosed()).map(facts))).filter((f) => f.voice).length;
  await expect.poll(voices).toBe(1);
  await page.waitForTimeout(3_200);
  await page.goto(`${base}/prepare/cues`);
  await page.locator("[data-cue=kiln-door]").getByRole("button", { name: /^Fire/ }).click();
  // The picture is on all five.
  await Promise.all(pages.map((p) => appears(p, "The kiln is open")));
  const begun = async (): Promise<number> =>
    (await Promise.all(pages.filter((p) => !p.isClosed()).map(facts))).reduce((sum, f) => sum + f.sounds, 0);
  await expect.poll(begun).toBe(1);
  await page.waitForTimeout(800);
  expect(await begun()).toBe(1);
  // One of them, looked up first: whoever takes over while we look must not be closed too.
  const speaking = (await Promise.all(pages.map(facts))).findIndex((f) => f.voice);
  await pages[speaking]?.close();
  const goneMs = Date.now();
  await expect.poll(voices, { intervals: [100] }).toBe(1);
  expect(Date.now() - goneMs).toBeLessThan(2_500);
  await page.goto(`${base}/prepare/overlays`);
  await expect(page.getByText(/makes the sound/)).toHaveCount(1);
  await page.getByRole("button", { name: "Let this one make the sound" }).first().click();
  await expect.poll(voices).toBe(1);
  // One alone, whose thread hangs for three seconds: it lets the voice go, has it again, and the list says so.
  const [alone, ...others] = pages.filter((p) => !p.isClosed());
  await Promise.all(others.map((p) => p.close()));
  await expect(page.getByText(/^Open at/)).toHaveCount(1);
  await expect.poll(voices).toBe(1);
  await alone?.evaluate(() => {
    for (const untilMs = Date.now() + 3_000; Date.now() < untilMs;);
  });
  await expect.poll(voices, { timeout: 2_000, intervals: [100] }).toBe(1);
  await expect(page.getByText(/makes the sound/)).toHaveCount(1);
  await page.getByRole("button", { name: "Play a test tone" }).click();
  await expect(page.getByText("The tone came out of this page.")).toBeVisible();
});
