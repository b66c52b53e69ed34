import { expect, type Page } from "@playwright/test";
import { base, control, signIn, test } from "./support";

test.beforeAll(() => control("/demo/reset"));
test.beforeEach(async ({ page }) => signIn(page));

const open = async (page: Page): Promise<void> => {
  await page.goto(`${base}/prepare/games/emote-wall`);
  await expect(page.getByTestId("save-state")).toContainText("Saved");
};
const report = (page: Page) => page.getByTestId("trial-report");
const live = (page: Page): Promise<number> =>
  page.evaluate(() => (window as unknown as { izzamPreview: () => { live: number } }).izzamPreview().live);
const saved = (page: Page) => expect(page.getByTestId("save-state")).toContainText("Saved ·");

test("every try says what it did, and why something was held back", async ({ page }) => {
  await open(page);
  await page.getByRole("button", { name: /^One emote/ }).click();
  await expect(report(page)).toContainText("1 emote shown");
  await page.getByRole("button", { name: /Ten viewers at once/ }).click();
  await expect(report(page)).toContainText("10 emotes shown");
  await page.getByRole("button", { name: /A flock/ }).click();
  await expect(report(page)).toContainText("a flock of 80");
  // A try that still runs does not talk over the one after it.
  await page.getByRole("button", { name: /Ten viewers at once/ }).click();
  await page.getByRole("button", { name: /A flock/ }).click();
  await page.waitForTimeout(1_300);
  await expect(report(page)).toContainText("a flock of 80");
  await page.getByRole("button", { name: /A storm/ }).click();
  await expect(report(page)).toContainText(/a storm: \d+ messages in 5 s/);
  await expect.poll(() => live(page), { timeout: 10_000 }).toBeGreaterThan(150);
  await page.getByRole("button", { name: "Start over" }).click();
  await expect.poll(() => live(page)).toBe(0);

  // A combo: the sentence grows its own blanks, and the strip says how far it is.
  await page.getByLabel("When an emote shows").selectOption("only when several write it");
  await page.getByLabel("Copies needed").fill("3");
  for (const [i, text] of ["not yet, 1 of 3 within 10 s", "not yet, 2 of 3 within 10 s", "1 emote shown"].entries()) {
    await page.getByLabel("A message to try").fill("kilnGlow");
    await page.getByLabel("A message to try").press("Enter");
    await expect(report(page), `message ${i + 1}`).toContainText(text);
  }
  // Roles are asked in the strip too.
  await page.getByLabel("Who may send emotes").click();
  await page.getByText("everyone", { exact: true }).last().click();
  await page.getByText("members", { exact: true }).click();
  await page.getByText("the streamer", { exact: true }).click();
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: /^One emote/ }).click();
  await expect(report(page)).toContainText("this viewer’s role may not send emotes");
});

test("blanks are filled by keyboard alone; what is not allowed is said, and the last good value stays", async ({ page }) => {
  await open(page);
  const most = page.getByLabel("Most emotes at once");
  await most.focus();
  await page.keyboard.type("5000");
  await expect(page.getByRole("alert").filter({ hasText: "From 10 to 2,000." })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(most).toHaveValue("400");
  await page.keyboard.type("abc");
  await expect(page.getByRole("alert").filter({ hasText: "A number goes here." })).toBeVisible();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("250");
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("Enter");
  await expect(most).toHaveValue("251");
  await saved(page);
  // What viewers are told follows at once.
  await page.getByLabel("Most emotes from one message").fill("2");
  await expect(page.getByTestId("viewer-words")).toContainText("at most 2 in all");
});

test("undo, redo, versions: everything can be taken back", async ({ page }) => {
  await open(page);
  await page.getByRole("tab", { name: "Appearance" }).click();
  await page.locator("label").filter({ hasText: "They fall from the top" }).click();
  await saved(page);
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("radio", { name: /drift up/ })).toBeChecked();
  await page.getByRole("button", { name: "Redo" }).click();
  await expect(page.getByRole("radio", { name: /rain/ })).toBeChecked();
  await saved(page);
  await page.getByRole("button", { name: /^Publish to/ }).click();
  await expect(page.getByText(/Published as version 2/)).toBeVisible();
  await expect(page.getByTestId("save-state")).toContainText("all published");
  await page.getByRole("button", { name: "Versions" }).click();
  await expect(page.getByText("Version 2, on air now")).toBeVisible();
  await page.getByRole("button", { name: "Bring back" }).last().click();
  await expect(page.getByRole("radio", { name: /drift up/ })).toBeChecked();
  await expect(page.getByTestId("save-state")).toContainText("not published");
  await saved(page);
  await page.reload();
  await page.getByRole("tab", { name: "Appearance" }).click();
  await expect(page.getByRole("radio", { name: /drift up/ })).toBeChecked();
});

test("two tabs on one game: the second is told and loses nothing", async ({ page, context }) => {
  await open(page);
  const other = await context.newPage();
  await other.goto(`${base}/prepare/games/emote-wall`);
  const cap = (p: Page) => p.getByLabel("Most emotes at once");

  // A tab with nothing of its own follows, and says so.
  await cap(page).fill("300");
  await saved(page);
  await expect(other.getByText(/kilnkeeper changed this game in another tab/)).toBeVisible();
  await expect(cap(other)).toHaveValue("300");

  // A tab with something of its own keeps it until its operator chooses.
  await context.route("**/api/games/*/draft", async (route) => {
    if (route.request().method() === "PUT" && route.request().frame().page() === other)
      await new Promise((resolve) => setTimeout(resolve, 1_500));
    await route.continue();
  });
  // Different things: what both changed is kept, and the second is told.
  await cap(other).fill("120");
  await page.getByLabel("Most emotes from one message").fill("6");
  await saved(page);
  await expect(other.getByText(/kilnkeeper changed something else in this game meanwhile/)).toBeVisible();
  await saved(other);
  await expect(cap(page)).toHaveValue("120");
  await expect(page.getByLabel("Most emotes from one message")).toHaveValue("6");
  await expect(other.getByLabel("Most emotes from one message")).toHaveValue("6");

  // The same thing: it is asked, and says who.
  await cap(other).fill("80");
  await cap(page).fill("90");
  await saved(page);
  const told = other.getByRole("alert").filter({ hasText: "kilnkeeper changed the same in this game" });
  await expect(told).toBeVisible();
  await expect(cap(other)).toHaveValue("80");
  await other.getByRole("button", { name: "Keep mine" }).click();
  await saved(other);
  await expect(cap(page)).toHaveValue("80");
  // Mine won; the other tab's change is one undo away there.
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(cap(page)).toHaveValue("90");
});

test("settings that will disappoint are told before the show", async ({ page }) => {
  await open(page);
  await page.getByLabel("Single emotes").selectOption({ index: 1 });
  await expect(page.locator("[data-hint=only-flocks]")).toContainText("only flocks fly");
  await page.getByLabel("The channel’s own emotes").selectOption("do not count");
  await page.getByLabel("The chat platform’s emotes").selectOption("do not count");
  await page.getByLabel("Emoji", { exact: true }).selectOption("do not count");
  await expect(page.locator("[data-hint=no-source]")).toBeVisible();
});

test("a game is renamed where its name stands, and another one is made", async ({ page }) => {
  await open(page);
  await page.getByLabel("Name of the game").fill("Evening sparks");
  await page.getByLabel("Name of the game").press("Enter");
  await expect(page.getByText("Renamed to Evening sparks.")).toBeVisible();
  await page.goto(`${base}/prepare`);
  await expect(page.getByText("Evening sparks")).toBeVisible();
  await page.getByRole("listitem", { name: "Put something else on screen" }).click();
  await page.getByRole("button", { name: /^Only together/ }).click();
  // A name of its own, and the cursor in it.
  await expect(page.getByLabel("Name of the game")).toHaveValue("Emote wall");
  await expect(page.getByLabel("Name of the game")).toBeFocused();
  await expect(page.locator("[data-sentence=together]")).toContainText("each viewer once");
  await expect(page.getByTestId("save-state")).toContainText("never published");
  await page.getByRole("button", { name: /^Publish to/ }).click();
  await expect(page.getByText("Published as version 1, seen on “Main stage”.")).toBeVisible();
});
