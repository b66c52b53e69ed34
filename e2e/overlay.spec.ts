import { expect } from "@playwright/test";
import {
  base,
  chatConnected,
  control,
  copyLink,
  crowd,
  facts,
  nothingShows,
  openOverlay,
  quiet,
  say,
  sayUntilShown,
  seen,
  signIn,
  test,
} from "./support";

test.beforeAll(() => control("/demo/reset"));
test.afterEach(() => quiet());
test.beforeEach(async ({ page }) => {
  await signIn(page);
  await chatConnected(page);
});

test("any shape works, from a strip to a large picture", async ({ page, context }) => {
  const link = await copyLink(page);
  await page.goto(`${base}/prepare/overlays`);
  for (const size of [
    { width: 300, height: 100 },
    { width: 1080, height: 1920 },
    { width: 3840, height: 2160 },
  ]) {
    const overlay = await openOverlay(context, link, size);
    await expect(page.getByTestId("open-pages").first()).toContainText(
      `Open at ${size.width.toLocaleString("en")} × ${size.height.toLocaleString("en")}`,
    );
    // Sizes are shares of the picture: about the same part of it is drawn, whatever its size. A picture of a large
    // page takes a while, and may show an emote just as it comes or goes: then another one is sent.
    await expect(async () => {
      await sayUntilShown(overlay, "mugUp");
      const share = (await seen(overlay)).pixels / size.height ** 2;
      expect(share).toBeGreaterThan(0.001);
      expect(share).toBeLessThan(0.2);
    }).toPass({ timeout: 30_000 });
    await overlay.close();
  }
});

test("a page has no scroll bars, no background and nothing to read", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page), { width: 640, height: 360 });
  await expect.poll(async () => (await seen(overlay)).drawn).toBe(0);
  expect(
    await overlay.evaluate(() => [
      document.body.innerText.trim(),
      document.documentElement.scrollHeight > innerHeight,
      getComputedStyle(document.body).backgroundColor,
    ]),
  ).toEqual(["", false, "rgba(0, 0, 0, 0)"]);
});

test("after its link is replaced a page is empty for good; the new link works", async ({ page, context }) => {
  const link = await copyLink(page);
  const overlay = await openOverlay(context, link);
  await sayUntilShown(overlay, "kilnGlow");
  await page.goto(`${base}/prepare/overlays`);
  await page.getByRole("button", { name: "Link leaked?" }).click();
  await page.getByRole("menuitem", { name: /Replace it/ }).click();
  await expect(page.getByText(/New link made and copied/)).toBeVisible();
  await nothingShows(overlay);
  await say("kilnGlow");
  await overlay.waitForTimeout(800);
  expect((await seen(overlay)).drawn).toBe(0);
  await overlay.reload();
  await say("kilnGlow");
  await overlay.waitForTimeout(1_200);
  expect((await seen(overlay)).drawn).toBe(0);

  const fresh = await page.evaluate(() => navigator.clipboard.readText());
  expect(fresh).not.toBe(link);
  const second = await openOverlay(context, fresh);
  await sayUntilShown(second, "kilnGlow");
  await page.getByRole("button", { name: "Link leaked?" }).click();
  await page.getByRole("menuitem", { name: "Turn it off" }).click();
  await nothingShows(second);
  await expect(page.getByText("no link: nobody can open it")).toBeVisible();
  await page.getByRole("button", { name: "Make a link" }).click();
  await expect(page.getByRole("button", { name: "Copy link" })).toBeVisible();
});

test("two pages of one overlay look alike", async ({ page, context }) => {
  const link = await copyLink(page);
  await page.goto(`${base}/prepare/overlays`);
  const [a, b] = [
    await openOverlay(context, link, { width: 960, height: 540 }),
    await openOverlay(context, link, { width: 960, height: 540 }),
  ];
  await expect(page.getByTestId("open-pages").first().getByText("Open at 960 × 540")).toHaveCount(2);
  await sayUntilShown(a, "tallVase teaPot goldMend");
  await expect.poll(async () => (await facts(b)).live).toBeGreaterThan(0);
  expect((await facts(b)).live).toBe((await facts(a)).live);
  // The same emotes at the same places. The two pictures are never taken at one moment: while emotes still grow in or
  // fade out, the middle of what is drawn jumps. Once they only drift up, it moves little from left to right.
  await expect(async () => {
    const [one, other] = await Promise.all([seen(a), seen(b)]);
    expect(one.drawn).toBeGreaterThan(400);
    expect(Math.abs(one.drawn - other.drawn)).toBeLessThan(0.2 * one.drawn);
    expect(Math.abs(one.middle.x - other.middle.x)).toBeLessThan(25);
    expect(Math.abs(one.middle.y - other.middle.y)).toBeLessThan(60);
  }).toPass({ timeout: 15_000 });
});

test("hush empties every page at once, from the key alone, and release lets chat back", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page));
  await sayUntilShown(overlay, "goodPull goodPull goodPull");
  await page.goto(`${base}/prepare`);
  await page.keyboard.press(".");
  await expect(page.getByText("Hushed: every overlay is empty and silent.")).toBeVisible();
  await nothingShows(overlay);
  await say("goodPull");
  await overlay.waitForTimeout(600);
  expect((await seen(overlay)).drawn).toBe(0);
  await page.getByRole("button", { name: "Release" }).click();
  await sayUntilShown(overlay, "goodPull");
});

test("a wall is switched off and on from the list of games", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page));
  await sayUntilShown(overlay, "mugUp");
  await page.goto(`${base}/prepare`);
  const wall = page.locator("[data-game=emote-wall]");
  await expect(wall).toContainText("Running");
  await wall.getByRole("button", { name: /^More for/ }).click();
  await page.getByRole("menuitem", { name: "Stop" }).click();
  await nothingShows(overlay);
  await expect(wall).toContainText("Stopped");
  await wall.getByRole("button", { name: /^More for/ }).click();
  await page.getByRole("menuitem", { name: "Start" }).click();
  await sayUntilShown(overlay, "mugUp");
});

test("the overlay goes on through a restart of the engine, and through its death", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page));
  await sayUntilShown(overlay, "wheelTurn");
  await control("/demo/restart/engine");
  await sayUntilShown(overlay, "wheelTurn");
  await control("/demo/kill/engine");
  // Nobody is there, and the page waits quietly.
  await overlay.waitForTimeout(1_000);
  await control("/demo/revive/engine");
  await sayUntilShown(overlay, "wheelTurn");
  await chatConnected(page.context().pages()[0]!).catch(() => undefined);
});

test("while the database is gone the overlay stays and emotes fly; the operator is told; nothing accepted is lost", async ({
  page,
  context,
}) => {
  test.setTimeout(150_000);
  const overlay = await openOverlay(context, await copyLink(page));
  await sayUntilShown(overlay, "spongeDab");
  await page.goto(`${base}/prepare/games/emote-wall`);
  await page.getByLabel("Most emotes from one message").fill("5");
  await expect(page.getByTestId("save-state")).toContainText("Saved ·");
  await control("/demo/kill/database");

  await sayUntilShown(overlay, "spongeDab");
  await expect(page.getByRole("button", { name: "Database needs a look" })).toBeVisible({ timeout: 15_000 });
  await page.getByRole("button", { name: "Database needs a look" }).click();
  await expect(page.locator("[data-health-item=database]")).toContainText("Settings can’t be saved or published until it is back");
  await page.keyboard.press("Escape");
  // What is typed meanwhile stays, and says that it is not saved.
  await page.getByLabel("Most emotes from one message").fill("7");
  await expect(page.getByText(/The database does not answer at the moment/)).toBeVisible({ timeout: 20_000 });
  await expect(page.getByTestId("save-state")).toContainText("Not saved yet");
  // An overlay page that is reloaded just now works, pictures and all.
  await overlay.reload();
  await sayUntilShown(overlay, "spongeDab");
  // Hush does not need the database.
  await page.getByRole("heading", { name: "Try it" }).click();
  // Each press is waited for: a second one before the first is answered is a hand that strikes twice, and stays hushed.
  const hushed = page.getByText("Hushed: every overlay is empty and silent.");
  await page.keyboard.press(".");
  await expect(hushed).toBeVisible();
  await nothingShows(overlay);
  await page.keyboard.press(".");
  await expect(hushed).toBeHidden();
  await sayUntilShown(overlay, "spongeDab");

  await control("/demo/revive/database");
  await expect(page.getByTestId("save-state")).toContainText("Saved ·", { timeout: 30_000 });
  await page.reload();
  await expect(page.getByLabel("Most emotes from one message")).toHaveValue("7");
  await expect(page.getByRole("button", { name: "Database needs a look" })).toBeHidden({ timeout: 15_000 });
});

test("a storm stays within the cap, and the page goes on drawing", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page), { width: 960, height: 540 });
  await sayUntilShown(overlay, "crackSad");
  await crowd(300);
  await expect.poll(async () => (await facts(overlay)).live, { timeout: 20_000 }).toBeGreaterThan(250);
  await overlay.waitForTimeout(3_000);
  const { live } = await facts(overlay);
  // The cap is 400; those on their way out for a third of a second come on top.
  expect(live).toBeLessThan(700);
  await quiet();
  await nothingShows(overlay);
});
