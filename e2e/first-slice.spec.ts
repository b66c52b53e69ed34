import { expect } from "@playwright/test";
import { base, chatConnected, control, copyLink, onlyWall, openOverlay, practice, seen, signIn, somethingShows, test } from "./support";

test.beforeAll(() => control("/demo/reset"));

test("a person who has never seen it goes from the sign-in page to an emote on the overlay, changing one setting on the way", async ({
  page,
  context,
}) => {
  await page.goto(base);
  await page.getByRole("button", { name: "Enter as owner" }).click();
  await chatConnected(page);
  await expect(page.getByText("Chat is connected")).toBeVisible();

  await onlyWall(page);
  await page.locator("[data-game=emote-wall]").getByRole("link", { name: "Set up" }).click();
  await expect(page.getByLabel("Name of the game")).toHaveValue("Kiln sparks");

  // One setting, beside the live preview that follows it at once.
  await page.getByLabel("Most emotes from one message").fill("3");
  await page.getByRole("button", { name: /One message with many/ }).click();
  await expect(page.getByTestId("trial-report")).toContainText("3 emotes shown");
  await expect(page.getByTestId("trial-report")).toContainText("9 emotes left out: at most 3 per message");
  await expect.poll(() => page.evaluate(() => (window as unknown as { izzamPreview: () => { live: number } }).izzamPreview().live)).toBe(3);
  await expect(page.getByTestId("save-state")).toContainText("Saved · 1 change not published");
  await page.getByRole("button", { name: "Publish to “Main stage”" }).click();
  await expect(page.getByText("Published as version 2, seen on “Main stage”.")).toBeVisible();

  await page.getByRole("tab", { name: "Where it is seen" }).click();
  await expect(page.getByText("No page has it open.")).toBeVisible();
  await page.getByRole("button", { name: "Copy link" }).click();
  await expect(page.getByText("Link copied, without being shown.")).toBeVisible();
  const link = await page.evaluate(() => navigator.clipboard.readText());
  expect(link).toMatch(/\/overlay#[A-Za-z0-9_-]{22}$/);
  // The link is on no screen, in no form.
  expect(await page.content()).not.toContain(link.split("#")[1]);

  const overlay = await openOverlay(context, link, { width: 1280, height: 720 });
  await expect(page.getByTestId("open-pages")).toContainText("Open at 1,280 × 720");
  expect((await seen(overlay)).drawn).toBe(0);

  const rig = await context.newPage();
  await rig.goto(practice);
  await expect(rig.getByText("Izzam is listening")).toBeVisible();
  await rig.getByLabel("Speak as").selectOption("mossy_teapot");
  await rig.getByRole("button", { name: "wobblePot" }).click();
  await rig.getByRole("textbox", { name: "Message" }).press("Enter");
  // The last line: the rig still shows what was said to it before.
  const line = rig.getByRole("log").locator("p").last();
  await expect(line.locator("b")).toHaveText("mossy_teapot");
  await expect(line.getByAltText("wobblePot")).toBeVisible();

  const { drawn, colours } = await somethingShows(overlay);
  // One emote of about a ninth of the height: some thousand pixels in the pot's several colours.
  expect(drawn).toBeLessThan(30_000);
  expect(colours).toBeGreaterThan(6);

  // The published setting holds on air: of twelve, three.
  for (let i = 0; i < 12; i += 1) await rig.getByRole("button", { name: "kilnGlow" }).click();
  await rig.getByRole("textbox", { name: "Message" }).press("Enter");
  const live = () => overlay.evaluate(() => (window as unknown as { izzamFacts: () => { live: number } }).izzamFacts().live);
  await expect.poll(live).toBeGreaterThanOrEqual(3);
  // The first one may be flying still.
  expect(await live()).toBeLessThanOrEqual(3 + 1);
});

test("emoji and the platform’s own emotes fly too, each from its own source", async ({ page, context }) => {
  await signIn(page);
  await chatConnected(page);
  const overlay = await openOverlay(context, await copyLink(page));
  const rig = await context.newPage();
  await rig.goto(practice);
  for (const name of ["🔥", "gull"]) {
    await expect(async () => {
      await rig.getByRole("button", { name, exact: true }).click();
      await rig.getByRole("textbox", { name: "Message" }).press("Enter");
      const { colours } = await somethingShows(overlay);
      expect(colours).toBeGreaterThan(3);
    }).toPass({ timeout: 25_000 });
    await expect.poll(async () => (await seen(overlay)).drawn, { timeout: 15_000 }).toBe(0);
  }
});
