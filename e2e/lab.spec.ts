import { expect, type Page } from "@playwright/test";
import { base, control, noneSerious, signIn, test } from "./support";

test.beforeEach(() => control("/demo/reset"));

const composer = (page: Page) => page.getByTestId("composer");
const answers = (page: Page) => page.getByRole("list", { name: "Asked so far" }).locator("[data-question]");
async function choose(page: Page, words: RegExp): Promise<void> {
  const options = composer(page).getByLabel("What is asked about").locator("option");
  const all = await options.allTextContents();
  await composer(page)
    .getByLabel("What is asked about")
    .selectOption({ label: all.find((o) => words.test(o)) ?? "no such question" });
}

test("a question is asked, answered by its evenings, asked with another setting whose draft is written; publishing it makes the answer old", async ({
  page,
}) => {
  test.setTimeout(400_000);
  await signIn(page, "owner", "/prepare");
  await page.getByRole("link", { name: "Rehearse" }).click();
  await page.getByRole("link", { name: "Odds lab" }).click();
  await expect(page.getByRole("heading", { name: "Odds lab" })).toBeVisible();
  await expect(page.getByText("Nothing was asked yet.")).toBeVisible();
  await noneSerious(page);

  await choose(page, /How long does Old Spall stand/);
  await composer(page).getByLabel("On which evening").selectOption({ label: "an evening like the last 5" });
  await composer(page).getByLabel("Which setting").selectOption({ label: "health" });
  await composer(page).getByLabel("Health, if it were").fill("4000");
  await composer(page).getByLabel("Health, if it were").press("Tab");
  await composer(page).getByLabel("How many evenings").selectOption("50");
  await composer(page).getByRole("button", { name: "Ask" }).click();
  const first = answers(page).first();
  await expect(first).toContainText("And if health were 4,000?");
  await expect(first).toContainText(/Old Spall falls after \d.* in the middle case/, { timeout: 150_000 });
  await expect(first).toContainText(/By 50 evenings: the middle lies between .* with 95 % certainty\./);
  await expect(first).toContainText(/On the same evenings it is later in (9\d|100) of 100/);
  await expect(first).toContainText("From what 3 past shows left in the log.");
  await expect(first.getByRole("img", { name: /^As it is: Old Spall falls/ })).toBeVisible();
  await first.getByText("As a table").first().click();
  const rows = await first.getByRole("table").first().locator("tbody tr td:last-child").allTextContents();
  expect(rows.reduce((sum, n) => sum + Number(n), 0)).toBe(50);
  await noneSerious(page);

  await first.getByRole("button", { name: "Use this" }).click();
  await first.getByRole("link", { name: "Open the draft" }).click();
  await expect(page.locator("[data-sentence=health]").getByLabel("Health")).toHaveValue("4,000");
  await page.getByRole("button", { name: "Publish" }).click();
  await expect(page.getByText(/Published as version/)).toBeVisible();
  await page.goto(`${base}/rehearse/lab`);
  await expect(answers(page).first()).toContainText("Settings were published since");
  await answers(page).first().getByRole("button", { name: "Ask again" }).click();
  await expect(answers(page).first()).toContainText("On the same evenings nothing of it differs.", { timeout: 150_000 });
  await expect(answers(page).first()).not.toContainText("Settings were published since");
});

test("it goes on after its process was killed, stops with what it has, is named, removed and brought back; nothing of it reached the channel", async ({
  page,
}) => {
  test.setTimeout(400_000);
  await signIn(page, "moderator", "/rehearse/lab");
  const before = await page.request.get(`${base}/api/review/rounds?as=json`).then((r) => r.text());
  await choose(page, /How much clay does/);
  await composer(page).getByLabel("On which evening").selectOption({ label: "a usual evening" });
  await composer(page).getByLabel("Hours of the evening").fill("1");
  await composer(page).getByLabel("Hours of the evening").press("Tab");
  await composer(page).getByLabel("How many evenings").selectOption("10000");
  await composer(page).getByRole("button", { name: "Ask" }).click();
  const first = answers(page).first();
  await expect(first.getByRole("status")).toContainText(/^[1-9]\d* of 10,000/, { timeout: 150_000 });
  await control("/demo/kill/lab");
  await control("/demo/revive/lab");
  await expect(first.getByRole("status")).toContainText(/^[1-9]\d* of 10,000/, { timeout: 150_000 });
  await first.getByRole("button", { name: "Stop and answer" }).click();
  await expect(first).toContainText("stopped before all evenings were played", { timeout: 150_000 });
  await expect(first).toContainText(/It comes to .* clay in the middle case/);

  await first.getByRole("button", { name: "Name it" }).click();
  await page.getByLabel("Name of the question").fill("Clay of a usual hour");
  await page.keyboard.press("Enter");
  await expect(first.getByRole("heading", { name: "Clay of a usual hour" })).toBeVisible();
  await first.getByRole("button", { name: "Ask something like it" }).click();
  await expect(composer(page).getByLabel("On which evening")).toHaveValue("room.usual");
  await first.getByRole("button", { name: "Remove Clay of a usual hour" }).click();
  await expect(answers(page)).toHaveCount(0);
  await page.reload();
  await page.getByRole("button", { name: "Bring back Clay of a usual hour" }).click();
  await expect(answers(page).first()).toContainText(/It comes to .* clay in the middle case/);
  expect(await page.request.get(`${base}/api/review/rounds?as=json`).then((r) => r.text())).toBe(before);
});
