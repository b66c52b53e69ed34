import { execFile } from "node:child_process";
import { readFile } from "node:fs/promises";
import { promisify } from "node:util";
import { expect, type Page } from "@playwright/test";
import { ask, base, chatConnected, control, copyLink, facts, give, openOverlay, heard, say, seen, settled, signIn, test } from "./support";

test.beforeAll(() => control("/demo/reset"));

type Plate = Readonly<{ turning: boolean; turned: number; result: string | null; segments: number }>;
const plate = async (overlay: Page): Promise<Plate | null> => (await facts(overlay)).shown["glaze-wheel"] as unknown as Plate | null;
const spin = (page: Page, id: string) => ask(page, "POST", "/games/glaze-wheel/command", { command: { do: "spin" }, id });
type Spun = Readonly<{ body: Readonly<{ round: string; n: number; label: string; by: string; proof: object | null }> }>;
const spins = async (page: Page): Promise<readonly Spun[]> =>
  ((await ask(page, "GET", "/games/glaze-wheel/records?kind=spin")) as { value?: { records: Spun[] } }).value?.records ?? [];
/** Three seconds a spin, so that nobody waits for long. */
async function quick(page: Page): Promise<void> {
  await page.goto(`${base}/prepare/games/glaze-wheel`);
  const shown = page.getByLabel("How long the result is shown; 0 until the next spin");
  // A test before this one has done it already.
  if ((await shown.inputValue()) === "2") return;
  await page.getByLabel("How long a spin takes").fill("3");
  await shown.fill("2");
  await expect(page.getByTestId("save-state")).toContainText("not published");
  await page.getByRole("button", { name: "Publish to “Main stage”" }).click();
  await expect(page.getByText(/Published as version/)).toBeVisible();
  // What was promised anew is public for half a second before anything is drawn from it.
  await page.waitForTimeout(900);
}

test("a wheel is set up, tried, spun in the booth by keys alone, and checked by a viewer", async ({ page, context }) => {
  test.setTimeout(150_000);
  await signIn(page, "owner", "/prepare");
  await chatConnected(page);
  await page.locator("[data-game=glaze-wheel]").getByRole("link", { name: "Set up" }).click();

  // Set up: a weight and its chance; a line pasted.
  const chance = (segment: string) => page.locator(`[data-chance=${segment}]`);
  await expect(chance("iron")).toHaveText("5.56 %");
  await page.getByLabel("Weight of Iron red").fill("3");
  await expect(chance("iron")).toHaveText("15.00 %");
  await page.getByRole("button", { name: "Paste lines" }).click();
  await page.getByLabel("Lines, one for each segment").fill("Shino; 5");
  await page.getByRole("button", { name: "Add 1 segment" }).click();
  await expect(page.getByLabel("Label of segment 9")).toHaveValue("Shino");
  await expect(page.getByLabel("Weight of Shino")).toHaveValue("5");
  await page.getByLabel("How long a spin takes").fill("3");
  // Try: by the real rules, in this page.
  await page.getByRole("button", { name: /^Spin/ }).first().click();
  await expect(page.getByTestId("trial-report")).toContainText("you spun the wheel");
  await expect(page.getByTestId("trial-report")).toContainText(/the wheel came to .+, for you/);
  await page.getByRole("button", { name: "Publish to “Main stage”" }).click();
  await expect(page.getByText(/Published as version 2/)).toBeVisible();

  // What viewers see is promised before anybody spins.
  const viewer = await context.newPage();
  await viewer.goto(`${base}/c/saltmarsh-kiln`);
  const game = viewer.locator("details.game", { hasText: "The glaze wheel" });
  await game.locator("summary").click();
  const promise = async (): Promise<string> => (await game.locator("code").textContent()) ?? "";
  await expect.poll(promise).toMatch(/^[0-9a-f]{64}$/);
  const promised = await promise();

  // The booth, by keys alone: the wheel in focus, then spun.
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await expect.poll(() => plate(overlay)).toMatchObject({ turning: false, segments: 9 });
  await page.goto(`${base}/run`);
  await page.getByTestId("boss-health").waitFor();
  for (let n = 0; n < 4 && !(await page.getByTestId("wheel-booth").isVisible()); n += 1) {
    await page.keyboard.press("g");
    await settled(page);
  }
  await expect(page.getByTestId("wheel-booth")).toBeVisible();
  await page.keyboard.press("i");
  await expect(page.getByTestId("wheel-booth")).toContainText("It turns for the house");
  await expect.poll(async () => (await plate(overlay))?.turning).toBe(true);
  await expect.poll(async () => (await seen(overlay)).drawn).toBeGreaterThan(30_000);
  await expect.poll(async () => (await plate(overlay))?.result).not.toBeNull();
  const came = (await plate(overlay))?.result ?? "";
  await expect(page.getByTestId("wheel-booth")).toContainText(`${came}, for the house`);
  await expect
    .poll(heard)
    .toContainEqual(expect.stringMatching(new RegExp(`^${came}, for the house: round \\d+\\. The next is promised by`)));

  // Anybody checks it: the secret is the one that was promised, step by step, in their own browser.
  await viewer.bringToFront();
  await expect.poll(promise).not.toBe(promised);
  await game.getByRole("link", { name: "Check it" }).first().click();
  await expect(viewer.getByText("It holds: your browser came to the same result.")).toBeVisible();
  await expect(viewer.getByRole("list", { name: "Steps" }).getByRole("listitem")).toHaveCount(7);
  // This browser had the page open while it ran, and compares by itself.
  await expect(viewer.getByRole("list", { name: "Steps" })).toContainText("seen while the round ran");
  await expect(viewer.getByText(promised)).toBeVisible();
  await expect(viewer.locator("li", { hasText: "· drawn" })).toContainText(came);
  // The file, by the script that stands alone.
  const [download] = await Promise.all([
    viewer.waitForEvent("download"),
    viewer.getByRole("link", { name: "The whole proof as a file" }).click(),
  ]);
  const file = await download.path();
  const { stdout } = await promisify(execFile)(process.execPath, ["scripts/check-round.mjs", file]);
  expect(stdout).toContain("It holds, step by step.");
  expect(JSON.parse(await readFile(file, "utf8"))).toMatchObject({ format: "izzam-round-2", commitment: promised });
});

test("by chat alone: a moderator spins it, viewers buy spins that wait their turn, and hear the chances", async ({ page, context }) => {
  await signIn(page);
  await quick(page);
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await say("!spin", "mossy_teapot");
  await say("!spin", "spongebearer");
  await expect.poll(async () => (await plate(overlay))?.turning).toBe(true);
  await expect.poll(async () => (await spins(page))[0]?.body.by).toBe("SpongeBearer");
  await say("!chances", "mossy_teapot");
  await expect.poll(heard).toContainEqual(expect.stringMatching(/^The glaze wheel, next spin: .+ %/));
  // Bought while it turns: it spins by itself when the result before was looked at.
  await give({ kind: "tip", as: "loamy", amount: 5_000, currency: "EUR" });
  await spin(page, "busy-wheel-1");
  await say("!wheel", "loamy");
  await expect.poll(async () => (await spins(page))[0]?.body.by, { timeout: 20_000 }).toBe("loamy");
});

test("two operators at once: one has spun it, the other is told so; what it was to be can’t be changed in between", async ({ page }) => {
  await signIn(page);
  await quick(page);
  const before = (await spins(page)).length;
  const both = await Promise.all([spin(page, "two-at-once-1"), spin(page, "two-at-once-2")]);
  const said = both.map((b) => JSON.stringify(b));
  expect(said.filter((s) => s.includes("wheel/spun"))).toHaveLength(1);
  expect(said.filter((s) => s.includes("wheel/turning"))).toHaveLength(1);
  await expect.poll(async () => (await spins(page)).length).toBe(before + 1);
});

test("killed while it turns: the spin ends as it was decided, once, and its proof holds", async ({ page, context }) => {
  await signIn(page);
  await quick(page);
  const before = await spins(page);
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await expect.poll(() => plate(overlay)).not.toBeNull();
  expect((await spin(page, "killed-spin-1")).ok).toBe(true);
  await control("/demo/kill/engine");
  await control("/demo/revive/engine");
  await expect.poll(async () => (await spins(page)).length, { timeout: 30_000 }).toBe(before.length + 1);
  const [last] = await spins(page);
  await page.goto(`${base}/rounds/${last?.body.round ?? ""}`);
  await expect(page.getByText("It holds: your browser came to the same result.")).toBeVisible();
  // The wheel stands where it came to rest, on a page that was there all the while.
  await expect.poll(async () => (await plate(overlay))?.turning, { timeout: 20_000 }).toBe(false);
  // A round that never was, and names made to stop a server.
  for (const name of ["glaze-wheel.1.nothing", "constructor", "__proto__.1.a", "..%2f..%2fetc", "x".repeat(300)]) {
    await page.goto(`${base}/rounds/${name}`);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    expect((await page.request.get(`${base}/api/rounds/${name}`)).status()).toBeGreaterThanOrEqual(400);
  }
});
