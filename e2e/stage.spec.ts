import { expect } from "@playwright/test";
import { base, control, copyLink, facts, openOverlay, signIn, test } from "./support";

test.beforeAll(() => control("/demo/reset"));
test.beforeEach(async ({ page }) => signIn(page));

test("games are arranged by drag, by keys, by numbers; hidden, locked, ordered; all can be undone", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await page.goto(`${base}/prepare/overlays/main-stage`);
  const boss = page.locator("[data-place=old-spall]");
  await boss.focus();
  await expect(page.getByRole("textbox", { name: "From left" })).toHaveValue("73.5");
  // Dragged to the left: it snaps to the edge.
  const board = await page.getByTestId("stage-board").boundingBox();
  const box = await boss.boundingBox();
  if (board === null || box === null) throw new Error("nothing to drag");
  await page.mouse.move(box.x + box.width / 2, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(board.x + box.width / 2 + 12, box.y + 62, { steps: 12 });
  await page.mouse.move(board.x + box.width / 2 + 3, box.y + 60, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole("textbox", { name: "From left" })).toHaveValue("0");
  await expect(page.getByTestId("stage-state")).toHaveText("as on air");
  await boss.press("Alt+Shift+ArrowRight");
  await expect(page.getByRole("textbox", { name: "width", exact: true })).toHaveValue("30.5");
  await page.getByRole("button", { name: "middle", exact: true }).click();
  await expect(page.getByRole("textbox", { name: "From left" })).toHaveValue("34.8");

  await page.getByRole("button", { name: "Hide Old Spall" }).click();
  await expect.poll(async () => "old-spall" in (await facts(overlay)).shown).toBe(false);
  await page.getByRole("button", { name: "Show Old Spall" }).click();
  await expect.poll(async () => "old-spall" in (await facts(overlay)).shown).toBe(true);
  await page.getByRole("button", { name: "Lock Old Spall" }).click();
  await boss.press("ArrowLeft");
  await expect(page.getByRole("textbox", { name: "From left" })).toHaveValue("34.8");
  // The wall and the kiln cat stand behind it: a step for each.
  for (let i = 0; i < 2; i += 1) await page.getByRole("button", { name: "Old Spall to the back" }).click();
  await expect(page.getByRole("list", { name: "On this stage" }).getByRole("listitem").last()).toContainText("Old Spall");
  for (let i = 0; i < 8; i += 1) await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect(page.getByRole("textbox", { name: "From left" })).toHaveValue("73.5");
});

test("changes wait until they are put on air, if so set", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await page.goto(`${base}/prepare/overlays/main-stage`);
  await page.getByText("Changes go on air at once").click();
  await page.getByRole("button", { name: "Take Old Spall off this stage" }).click();
  await expect(page.getByTestId("stage-state")).toHaveText("kept, not on air yet");
  expect("old-spall" in (await facts(overlay)).shown).toBe(true);
  await page.reload();
  await expect(page.getByRole("button", { name: "Put Old Spall on it" })).toBeVisible();
  await page.getByRole("button", { name: "Put on air" }).click();
  await expect.poll(async () => "old-spall" in (await facts(overlay)).shown).toBe(false);
  await page.getByRole("button", { name: "Put Old Spall on it" }).click();
  await page.getByRole("button", { name: "Put on air" }).click();
  await expect.poll(async () => "old-spall" in (await facts(overlay)).shown).toBe(true);
  await page.getByText("Changes go on air at once").click();
});

test("an overlay may be for sound only, and has a style sheet that can’t leave it", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await page.goto(`${base}/prepare/overlays/main-stage`);
  // The board measures itself once the page is alive.
  await page.locator("[data-place=old-spall]").waitFor();
  await page.getByLabel("What this overlay carries").selectOption("sound");
  await expect.poll(async () => Object.keys((await facts(overlay)).shown)).toEqual([]);
  await page.getByLabel("What this overlay carries").selectOption("both");
  await expect.poll(async () => Object.keys((await facts(overlay)).shown).length).toBe(11);
  await page.getByText("Its own style sheet").click();
  const sheet = page.getByLabel("Style sheet");
  for (const bad of ["@import url(http://x.invalid);", ".a{background:url(https://x.invalid/y)}", "</style><script>1</script>"]) {
    await sheet.fill(bad);
    await page.getByRole("button", { name: "Use it" }).click();
    await expect(page.getByText(/The style sheet may not hold/).last()).toBeVisible();
  }
  await sheet.fill("#stage { outline: 7px solid rgb(1, 2, 3); }");
  await page.getByRole("button", { name: "Use it" }).click();
  await expect.poll(() => overlay.evaluate(() => getComputedStyle(document.getElementById("stage") as Element).outlineWidth)).toBe("7px");
});

test("a moderator arranges; links, purpose and style stay with the owner", async ({ page }) => {
  await page.context().clearCookies();
  await signIn(page, "moderator", "/prepare/overlays/main-stage");
  await page.getByRole("button", { name: "Hide Old Spall" }).click();
  await expect(page.getByRole("button", { name: "Show Old Spall" })).toBeVisible();
  await page.getByRole("button", { name: "Show Old Spall" }).click();
  await expect(page.getByText("What it is for")).toHaveCount(0);
});
