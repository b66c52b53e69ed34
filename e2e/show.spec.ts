import { readFile } from "node:fs/promises";
import { expect, type Page } from "@playwright/test";
import { ask, base, control, noneSerious, say, signIn, test } from "./support";

test.beforeEach(() => control("/demo/reset"));

async function toShow(page: Page): Promise<void> {
  await signIn(page, "owner", "/prepare/show");
  await expect(page.locator("[data-plan=wake]")).toBeVisible();
}
const titles = (page: Page): Promise<string[]> =>
  page.getByLabel(/^Title of /).evaluateAll((fields) => fields.map((f) => (f as HTMLInputElement).value));

test("a rundown is planned, kept as a template, and stands on the tape", async ({ page }) => {
  await toShow(page);
  expect(await titles(page)).toEqual([
    "Old Spall wakes",
    "Golden flock",
    "Tea break",
    "Back from tea",
    "Open the kiln",
    "Thank everyone by name",
  ]);
  await page.getByRole("button", { name: "Add a thing" }).click();
  await page.getByLabel("Title of Something new").fill("Mug raffle");
  await page.getByLabel("Title of Something new").press("Enter");
  await page.getByLabel("What Mug raffle does").selectOption({ label: "fires the cue" });
  await page.getByLabel("Of Mug raffle: which").selectOption({ label: "Bell for a good pull" });
  await page.getByLabel("How Mug raffle starts").selectOption({ label: "by itself, after" });
  await page.getByLabel("After what Mug raffle starts").selectOption({ label: "Open the kiln" });
  await page.getByLabel("Minutes after it for Mug raffle").fill("7");
  await page.getByLabel("Minute of Golden flock").fill("30");
  await page.getByPlaceholder("Name for a template").fill("Long Friday");
  await page.getByRole("button", { name: "Save as a template" }).click();
  await expect(page.getByText("Saved as the template “Long Friday”.")).toBeVisible();
  // What others wait for is taken out: they start by hand from then on. And it comes back.
  await page.getByRole("button", { name: "Take Open the kiln out" }).click();
  await expect(page.getByLabel("How Mug raffle starts")).toHaveValue("hand");
  await page.getByText("Undo", { exact: true }).click();
  await expect(page.getByLabel("How Mug raffle starts")).toHaveValue("after");
  await page.reload();
  await expect(page.getByLabel("Minute of Golden flock")).toHaveValue("30");
  await page.getByRole("button", { name: "Templates" }).click();
  await page.getByRole("menuitem", { name: "Use “Friday at the kiln”" }).click();
  await expect(page.getByLabel("Title of Mug raffle")).toHaveCount(0);
  await expect(page.getByLabel("Minute of Golden flock")).toHaveValue("20");
  await page.goto(`${base}/run`);
  await expect(page.locator("[data-stub=gold]")).toContainText("0:20 · by hand");
});

test("a rundown goes out as CSV and JSON and comes in again; lines that can’t be used say why", async ({ page }) => {
  await toShow(page);
  const take = async (what: string): Promise<string> => {
    await page.getByRole("button", { name: "Files" }).click();
    const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("menuitem", { name: what }).click()]);
    return readFile(await download.path(), "utf8");
  };
  const csv = await take("Export as CSV");
  expect(csv.split("\r\n")[0]).toBe("minute,length,title,does,what,starts,after,delay,note,action");
  expect(csv).toContain("5,40,Old Spall wakes,start,Old Spall,time,,,");
  const json = JSON.parse(await take("Export as JSON")) as { rundown: { title: string }[] };
  expect(json.rundown.map((r) => r.title)).toContain("Open the kiln");

  const bring = (name: string, text: string) =>
    page.getByLabel("A rundown file").setInputFiles({ name, mimeType: "text/plain", buffer: Buffer.from(text) });
  await bring("bad.csv", "what,is,this\n1,2,3\n");
  await expect(page.getByText("The first line of the file must name the columns")).toBeVisible();
  await bring("mine.csv", `${csv}\r\n90,,Fire it twice,cue,No such cue,command,,,\r\nsoon,,Later,note,,command,,,\r\n`);
  const answer = page.getByRole("alert").filter({ hasText: "can be taken from this file" });
  await expect(answer).toContainText("6 things can be taken from this file, 2 lines have a problem.");
  await expect(answer).toContainText("Line 8: There is no cue “No such cue”.");
  await answer.getByRole("button", { name: "Leave it" }).click();
  await bring("other.json", JSON.stringify({ rundown: [{ title: "Only this", minute: 3 }] }));
  await page.getByRole("button", { name: "Replace the rundown" }).click();
  await expect.poll(() => titles(page)).toEqual(["Only this"]);
  await page.getByText("Undo", { exact: true }).click();
  await expect.poll(async () => (await titles(page)).length).toBe(6);
});

test("how a show goes is a sentence, and a command is published with the channel’s own word", async ({ page }) => {
  await toShow(page);
  await page.getByLabel("What begins and ends a show").selectOption("hand");
  await page.getByRole("button", { name: "Add a command" }).click();
  const line = page.getByRole("list", { name: "Chat commands" }).getByRole("listitem").last();
  await line.getByLabel("Word of the command").fill("!weck");
  await line.getByLabel("What the command does").selectOption({ label: "stops" });
  await expect(line).toContainText("Choose a game, or it does nothing.");
  await line.getByLabel("Of which game").selectOption({ label: "Old Spall" });
  await page.getByRole("button", { name: "Publish", exact: true }).click();
  await expect(page.getByText(/Published as version 2/)).toBeVisible();
  await page.goto(`${base}/run`);
  await expect(page.getByTestId("boss-health")).toBeVisible();
  await say("!weck", "spongebearer");
  await expect(page.getByTestId("focus")).toContainText("stopped");
  await expect(page.getByTestId("talk")).toContainText("The boss battle was switched off.");
});

test("a show that is to end asks what becomes of an open draw; a page that shows past shows has it by itself", async ({
  page,
  context,
}) => {
  await signIn(page, "owner", "/run");
  const go = (game: string, command: object) =>
    ask(page, "POST", `/games/${game}/command`, { command, id: `end-${Math.random().toString(36).slice(2)}` });
  expect(await go("show", { do: "show", what: "on-air" })).toMatchObject({ ok: true });
  expect(await go("weekly-mug", { do: "open" })).toMatchObject({ ok: true });
  const review = await context.newPage();
  await review.goto(`${base}/review`);
  const past = review.getByRole("list", { name: "Shows so far" }).getByRole("listitem");
  await expect(past.first()).toBeVisible();
  await expect(past.first()).not.toContainText("0:00:");
  await page.bringToFront();
  await expect(page.locator("[data-show]").first()).toHaveAttribute("data-show", "on");
  await page.locator("[data-show]").first().click();
  await page.getByRole("menuitem", { name: "End the show" }).click();
  await page.getByRole("menuitem", { name: "Yes, end the show" }).click();
  const asked = page.getByRole("alertdialog", { name: "Before the show ends" });
  await expect(asked.getByRole("list", { name: "Left open" })).toContainText("is open with 0 viewers in it");
  await noneSerious(page);
  await asked.getByRole("button", { name: "Cancel it" }).click();
  await expect(asked).toContainText("Nothing is left open.");
  await asked.getByRole("button", { name: "End the show" }).click();
  await expect(page.locator("[data-show]").first()).toHaveAttribute("data-show", "off");
  // Of a few seconds: it is the one that has just ended.
  await expect(past.first()).toContainText("0:00:");
});
