import { execFile } from "node:child_process";
import { promisify } from "node:util";
import { expect, type Page } from "@playwright/test";
import {
  base,
  chatConnected,
  control,
  copyLink,
  facts,
  focusGame,
  openOverlay,
  heard,
  say,
  settled,
  signIn,
  test,
  viewerPage,
} from "./support";

// Who wins rests for three shows: each test begins with everybody free.
test.beforeEach(() => control("/demo/reset"));

type Rack = Readonly<{ phase: string; people: number; winners: readonly string[] }>;
const rack = async (overlay: Page): Promise<Rack | null> => (await facts(overlay)).shown["weekly-mug"] as unknown as Rack | null;
test("a draw is set up, tried, run in the booth by keys, claimed in chat, handed over, and checked by a viewer", async ({
  page,
  context,
  browser,
}) => {
  test.setTimeout(180_000);
  await signIn(page, "owner", "/prepare");
  await chatConnected(page);
  await page.locator("[data-game=weekly-mug]").getByRole("link", { name: "Set up" }).click();
  await page.getByLabel("How many viewers shake it").fill("2");
  await page.getByRole("button", { name: /^Open/ }).click();
  await page.getByRole("button", { name: /^Somebody enters/ }).click();
  await expect(page.getByTestId("trial-report")).toContainText("ticket 1 of 3");
  await page.getByText("What chat is told").click();
  await page.getByLabel("Somebody is in", { exact: true }).fill("you hold {tickets} of {most}");
  await page.getByRole("button", { name: "Publish to “Main stage”" }).click();
  await expect(page.getByText(/Published as version 2/)).toBeVisible();

  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  const viewer = await viewerPage(browser, "quietferry");
  await focusGame(page, "weekly-mug", "raffle-booth");
  await page.keyboard.press("b");
  await expect(page.getByTestId("raffle-booth")).toContainText("Open for");
  // What is promised is there before the first entry.
  const game = viewer.locator("details.game", { hasText: "The weekly mug" });
  await game.locator("summary").click();
  const promise = async (): Promise<string> => (await game.locator("code").first().textContent()) ?? "";
  await expect.poll(promise).toMatch(/^[0-9a-f]{64}$/);
  const promised = await promise();

  // In by chat, by the viewer page, by hand.
  await say("!mug 2", "mossy_teapot");
  await expect.poll(heard).toContainEqual("@mossy_teapot you hold 2 of 3");
  await say("!mug 9", "loamy");
  await expect.poll(heard).toContainEqual("@loamy you hold 3 of 3");
  await viewer.getByLabel("How many tickets").fill("2");
  await viewer.getByRole("button", { name: "Enter" }).click();
  await expect(viewer.getByRole("status")).toHaveText("Ticket 2 of 3.");
  await expect(viewer.getByText("You hold 2 of 3 tickets.")).toBeVisible();
  await page.getByRole("button", { name: "Add people" }).press("Enter");
  await page.getByLabel("Names, one a line, with a comma and how many tickets").fill("eelgrass\npale_oar, 2\nhollowreed, many");
  await expect(page.getByText("Line 3: “many” is no number of tickets.")).toBeVisible();
  await page.getByRole("button", { name: "Add 2 viewers" }).press("Enter");
  await expect(page.getByTestId("raffle-counts")).toHaveText("5 viewers · 10 tickets");
  await expect.poll(async () => (await rack(overlay))?.people).toBe(5);
  // Taken out again, by name.
  await page.getByRole("button", { name: "Who is in" }).press("Enter");
  await page.getByRole("button", { name: "Take pale_oar out" }).press("Enter");
  await page.keyboard.press("Escape");
  await expect(page.getByTestId("raffle-counts")).toHaveText("4 viewers · 8 tickets");
  await say("!mychance", "mossy_teapot");
  await expect.poll(heard).toContainEqual("@mossy_teapot your chance is 40.00 %, with 2 tickets"); // a member: each counts twice

  await settled(page);
  await page.keyboard.press("l");
  await expect(page.getByTestId("raffle-booth")).toContainText("0 of 2 viewers shook the drum");
  await say("shake it", "oatcake_ada");
  await say("brrr", "ferrule7");
  await expect(page.getByTestId("raffle-booth")).toContainText("Locked.");
  await say("!mug", "tin_lantern");
  await expect.poll(heard).toContainEqual(expect.stringMatching(/^@tin_lantern it was locked \d+ s before your message$/));
  await page.keyboard.press("j");
  await expect(page.locator("[data-decision^='game.']")).toContainText("is to answer in chat");
  await expect.poll(async () => (await rack(overlay))?.winners.length).toBe(1);
  const winner = (await rack(overlay))?.winners[0] ?? "";
  await say("that is me", winner);
  await expect(page.getByTestId("raffle-booth")).toContainText("claimed it, The mug");
  await page.getByRole("button", { name: "Close", exact: true }).press("Enter");
  await expect(page.getByTestId("raffle-booth")).toContainText("It waits to be opened.");

  // The prize is followed until it is handed over; the round stands with its proof and who was in.
  await page.goto(`${base}/review/rounds`);
  await page
    .getByRole("button", { name: `Handed over: The mug for ${winner}` })
    .first()
    .click();
  await expect(page.getByRole("button", { name: `Handed over: The mug for ${winner}` })).toHaveCount(0);
  const row = page.getByRole("row").nth(1);
  await expect(row).toContainText(`${winner} (The mug)`);
  const [csv] = await Promise.all([page.waitForEvent("download"), row.getByRole("link", { name: /as CSV/ }).click()]);
  const { stdout: lines } = await promisify(execFile)("cat", [await csv.path()]);
  expect(lines.split("\r\n")[0]).toBe("id,name,tickets,paid");
  expect(lines).toContain("quietferry,quietferry,2,0");
  expect(lines).not.toContain("pale_oar");

  await viewer.bringToFront();
  await game.getByRole("link", { name: "Check it" }).first().click();
  await expect(viewer.getByText("It holds: your browser came to the same result.")).toBeVisible();
  await expect(viewer.getByText(promised)).toBeVisible();
  const [file] = await Promise.all([
    viewer.waitForEvent("download"),
    viewer.getByRole("link", { name: "The whole proof as a file" }).click(),
  ]);
  const { stdout } = await promisify(execFile)(process.execPath, ["scripts/check-round.mjs", await file.path()]);
  expect(stdout).toContain("It holds, step by step.");
});

test("by chat alone: a moderator opens, locks, draws and closes; the winner answers", async ({ page, context }) => {
  await signIn(page);
  await chatConnected(page);
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await say("!opendraw", "mossy_teapot");
  await say("!opendraw", "spongebearer");
  await expect.poll(async () => (await rack(overlay))?.phase).toBe("open");
  await expect.poll(heard).toContainEqual(expect.stringMatching(/^Last week’s mug is open: write !mug .* Promised by [0-9a-f]{20}\.$/));
  for (const who of ["mossy_teapot", "loamy", "eelgrass"]) await say("!mug", who);
  await expect.poll(async () => (await rack(overlay))?.people).toBe(3);
  await say("!lock", "spongebearer");
  await expect.poll(async () => (await rack(overlay))?.phase).toBe("shaking");
  for (const who of ["mossy_teapot", "loamy", "eelgrass", "ferrule7", "pale_oar"]) await say("shake", who);
  await expect.poll(async () => (await rack(overlay))?.phase).toBe("locked");
  // With nobody drawn it is not closed by one word.
  await say("!closedraw", "spongebearer");
  await expect.poll(heard).toContainEqual(expect.stringContaining("Nobody was drawn: close it again within 20 s"));
  await say("!draw", "spongebearer");
  await expect.poll(async () => (await rack(overlay))?.winners.length).toBe(1);
  await say("here", (await rack(overlay))?.winners[0] ?? "");
  await say("!closedraw", "spongebearer");
  await expect.poll(heard).toContainEqual(expect.stringMatching(/^Last week’s mug is over\. Anybody can check it: round weekly-mug\./));
});
