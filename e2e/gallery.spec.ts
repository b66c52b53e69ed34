import { expect } from "@playwright/test";
import { ask, base, control, copyLink, facts, nothingShows, openOverlay, say, sayUntilShown, seen, signIn, test } from "./support";

test("a game is copied, removed where it is in use, seen nowhere, and brought back with all that was kept", async ({ page, context }) => {
  await signIn(page);
  await ask(page, "POST", "/overlays/main-stage/place", { game: "old-spall", on: true });
  await page.goto(`${base}/prepare`);
  const boss = page.locator("[data-game=old-spall]");
  await expect(boss).toContainText("Old Spall at");
  await boss.getByRole("button", { name: "More for Old Spall" }).click();
  await page.getByRole("menuitem", { name: "Copy" }).click();
  await expect(page.getByLabel("Name of the game")).toHaveValue("Old Spall copy");
  await expect(page.getByTestId("save-state")).toContainText("never published");

  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await expect.poll(async () => Object.keys((await facts(overlay)).shown)).toContain("old-spall");
  await page.goto(`${base}/prepare`);
  await boss.getByRole("button", { name: "More for Old Spall" }).click();
  await page.getByRole("menuitem", { name: "Remove" }).click();
  const asked = page.getByRole("alertdialog", { name: "Old Spall is in use" });
  await expect(asked).toContainText("the reward “Swing the hammer”");
  await expect(asked).toContainText("the overlay “Main stage”");
  await asked.getByRole("button", { name: "Remove it" }).click();
  await expect(boss).toHaveCount(0);
  await expect.poll(async () => Object.keys((await facts(overlay)).shown)).not.toContain("old-spall");
  // What needs it is not on sale, and says why before anybody pays.
  const viewer = await context.newPage();
  await viewer.goto(`${base}/c/saltmarsh-kiln`);
  await expect(viewer.getByText(/needs a game that is not there any more/).first()).toBeVisible();

  await page.locator("[data-removed=old-spall]").getByRole("button", { name: "Bring back" }).click();
  await expect(boss).toContainText("Old Spall at");
  await expect.poll(async () => Object.keys((await facts(overlay)).shown)).toContain("old-spall");
  await expect(viewer.getByText(/needs a game that is not there any more/)).toHaveCount(0);
});

test("a game that is removed is replaced by another of its kind wherever it is used", async ({ page }) => {
  await control("/demo/reset");
  await signIn(page);
  const made = await ask(page, "POST", "/games", { kind: "boss-battle", like: "old-spall", name: "Young Spall" });
  const { id } = made.value as { id: string };
  expect(await ask(page, "POST", `/games/${id}/publish`, { revision: 1 })).toMatchObject({ ok: true });
  await page.goto(`${base}/prepare`);
  await page.locator("[data-game=old-spall]").getByRole("button", { name: "More for Old Spall" }).click();
  await page.getByRole("menuitem", { name: "Remove" }).click();
  const asked = page.getByRole("alertdialog", { name: "Old Spall is in use" });
  await asked.getByLabel("What stands in its place").selectOption("Young Spall");
  await expect(asked).toContainText("From now on they do it with Young Spall.");
  await asked.getByRole("button", { name: "Replace it" }).click();
  await expect(page.getByText("Old Spall was removed; Young Spall stands in its place.")).toBeVisible();
  await page.goto(`${base}/prepare/cues`);
  await expect(page.locator("[data-cue=knock]")).toContainText("Young Spall");
  await page.locator("[data-cue=knock]").getByRole("button", { name: /^Fire/ }).click();
  // On air at once: the cue hits the other game.
  await page.goto(`${base}/prepare`);
  await expect(page.locator(`[data-game="${id}"]`)).toContainText("at 550 of 600");
  await control("/demo/reset");
});

test("an overlay is renamed, removed with its pages, and brought back with its link", async ({ page, context }) => {
  await signIn(page);
  const overlay = await openOverlay(context, await copyLink(page));
  await sayUntilShown(overlay, "kilnGlow");
  await page.goto(`${base}/prepare/overlays`);
  const card = page.locator("[data-overlay=main-stage]");
  await card.getByRole("button", { name: "Rename Main stage" }).click();
  await card.getByLabel("Name of the overlay").fill("Wide stage");
  await page.keyboard.press("Enter");
  await expect(card.getByText("Wide stage")).toBeVisible();
  await card.getByRole("button", { name: "Remove Wide stage" }).click();
  await expect(card).toHaveCount(0);
  await nothingShows(overlay);
  await say("kilnGlow");
  await overlay.waitForTimeout(800);
  expect((await seen(overlay)).drawn).toBe(0);
  await page.locator("[data-removed=main-stage]").getByRole("button", { name: "Bring back" }).click();
  await expect(card.getByText("Wide stage")).toBeVisible();
  await card.getByRole("button", { name: "Rename Wide stage" }).click();
  await card.getByLabel("Name of the overlay").fill("Main stage");
  await page.keyboard.press("Enter");
  await expect(card.getByText("Main stage", { exact: true })).toBeVisible();
  const again = await openOverlay(context, await copyLink(page));
  await sayUntilShown(again, "kilnGlow");
});
