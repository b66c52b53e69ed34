import { expect, type Page } from "@playwright/test";
import {
  ask,
  base,
  chatConnected,
  control,
  copyLink,
  facts,
  give,
  giveOnce,
  openOverlay,
  practice,
  rigLog,
  say,
  seen,
  signIn,
  test,
} from "./support";

test.beforeAll(() => control("/demo/reset"));

type Kept = Readonly<{ id: number; body: Readonly<{ before: number; after: number }> }>;
const boss = async (overlay: Page) => (await facts(overlay)).shown["old-spall"];
const report = (page: Page) => page.getByTestId("trial-report");

test("on a fresh start the boss is set up, tried, placed, felled from the rig, and its champion reigns on the overlay", async ({
  page,
  context,
}) => {
  await signIn(page, "owner", "/prepare");
  await chatConnected(page);
  await page.locator("[data-game=old-spall]").getByRole("link", { name: "Set up" }).click();

  // Set up: its sentences are the form.
  await page.getByLabel("Health", { exact: true }).fill("300");
  await page.getByLabel("Who comes next").selectOption("striker");
  // Try: every blow says why it counted as it did.
  await page.getByLabel("Amount", { exact: true }).fill("5");
  await page.getByRole("button", { name: /^A tip/ }).click();
  await expect(report(page)).toContainText("−100 to Old Spall by mossy_teapot, 200 of 300 left");
  await page.getByRole("button", { name: /^A raid/ }).click();
  await expect(report(page)).toContainText("−10 to Old Spall by quietferry, 190 of 300 left");
  await page.getByLabel("Amount", { exact: true }).fill("500");
  await page.getByRole("button", { name: /^Your hit/ }).click();
  await expect(report(page)).toContainText("Old Spall falls");
  await page.getByRole("button", { name: /^Undo the last hit/ }).click();
  await expect(report(page)).toContainText("there is no hit to undo: the last one led to a fall");
  await page.getByRole("button", { name: "Start over" }).click();
  await expect(page.getByTestId("save-state")).toContainText("Saved · 1 change not published");
  await page.getByRole("button", { name: "Publish to “Main stage”" }).click();
  await expect(page.getByText(/Published as version 2/)).toBeVisible();
  // A running boss takes the new version between two signals; its health begins anew when it is started over.
  expect((await ask(page, "POST", "/games/old-spall/command", { command: { do: "start-over" }, id: "start-over-1" })).ok).toBe(true);

  // Place it.
  await page.goto(`${base}/prepare/overlays/main-stage`);
  await page.locator("[data-place=old-spall]").focus();
  await page.keyboard.press("Shift+ArrowLeft");
  await expect(page.getByRole("textbox", { name: "From left" })).toHaveValue("68.5");
  await expect(page.getByTestId("stage-state")).toHaveText("as on air");

  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await expect.poll(() => boss(overlay)).toEqual({ name: "Old Spall", health: 300, max: 300 });
  const full = await seen(overlay);
  expect(full.drawn).toBeGreaterThan(15_000);

  // Fell it from the rig's own page.
  const rig = await context.newPage();
  await rig.goto(practice);
  await rig.getByRole("button", { name: "Tip", exact: true }).click();
  await rig.getByLabel("Given by").selectOption("oatcake_ada");
  await rig.getByLabel("Amount").fill("10");
  await rig.getByRole("button", { name: "Send it, signed" }).click();
  await expect(rig.getByText("Izzam took it.")).toBeVisible();
  await expect.poll(() => boss(overlay)).toEqual({ name: "Old Spall", health: 100, max: 300 });
  await rig.getByRole("button", { name: "Raid", exact: true }).click();
  await rig.getByLabel("Given by").selectOption("hollowreed");
  await rig.getByLabel("Amount").fill("60");
  await rig.getByRole("button", { name: "Send it, signed" }).click();
  await expect.poll(() => boss(overlay)).toEqual({ name: "hollowreed", health: 360, max: 360 });
  // What the rules said of it, in chat.
  await expect.poll(async () => (await rigLog()).map((l) => l.text)).toContain("Old Spall lies in shards. Struck down by hollowreed.");

  // The picture is the champion's after the fall has been played, and stays so on a page that opens now.
  await overlay.waitForTimeout(3_500);
  const late = await openOverlay(context, await copyLink(page, { boss: true }));
  await expect.poll(() => boss(late)).toEqual({ name: "hollowreed", health: 360, max: 360 });
  await expect.poll(async () => (await seen(late)).drawn).toBeGreaterThan(15_000);

  // Reigns are kept, and told in the editor.
  await page.goto(`${base}/prepare/games/old-spall`);
  await page.getByRole("tab", { name: "What happened" }).click();
  const reigns = page.getByRole("list", { name: "Who was the boss" });
  await expect(reigns.getByRole("listitem").first()).toContainText("Old Spall");
  await expect(reigns.getByRole("listitem").first()).toContainText("defeated by hollowreed");
  await expect(page.getByRole("list", { name: "Hits" }).getByRole("listitem").first()).toContainText("−120");
});

test("the champion’s own heals; the last hit is undone; both are told on the overlay", async ({ page, context }) => {
  await signIn(page);
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await give({ kind: "raid", as: "smallharbour", amount: 2_000 });
  await expect.poll(async () => (await boss(overlay))?.name).toBe("smallharbour");
  const full = (await boss(overlay))?.health ?? 0;
  await give({ kind: "follow", as: "mossy_teapot" });
  await expect.poll(async () => (await boss(overlay))?.health).toBe(full - 10);
  await give({ kind: "follow", as: "smallharbour" });
  await expect.poll(async () => (await boss(overlay))?.health).toBe(full);
  await give({ kind: "gift", as: "", amount: 1 });
  await expect.poll(async () => (await boss(overlay))?.health).toBe(full - 100);
  await page.goto(`${base}/prepare/games/old-spall`);
  await page.getByRole("tab", { name: "What happened" }).click();
  await page.getByRole("tabpanel").getByRole("button", { name: "Undo the last hit" }).click();
  await expect.poll(async () => (await boss(overlay))?.health).toBe(full);
});

test("the rules are told in chat from the sentences", async ({ page }) => {
  await signIn(page);
  await chatConnected(page);
  await say("!oldspall");
  await expect.poll(async () => (await rigLog()).map((l) => l.text).join(" ")).toMatch(/A follow does 10 damage\./);
});

test("killed seven times in the middle of a fight, health, hits and reigns are exactly those of what was accepted", async ({ page }) => {
  test.setTimeout(240_000);
  await signIn(page);
  const kept = async (kind: string): Promise<readonly Kept[]> =>
    ((await ask(page, "GET", `/games/old-spall/records?kind=${kind}`)) as { value?: { records: Kept[] } }).value?.records ?? [];
  // A plain fight: a follow does 10, every boss has 200, and the champion's own hurts like anyone's.
  const { value: draft } = (await ask(page, "POST", "/games/old-spall/draft")) as {
    value: { settings: Record<string, object>; revision: number };
  };
  const { growth } = draft.settings;
  const settings = { ...draft.settings, health: 200, champion: { own: "hurt", healing: "full" }, growth: { ...growth, how: "none" } };
  const saved = (await ask(page, "PUT", "/games/old-spall/draft", { revision: draft.revision, settings })) as {
    value: { revision: number };
  };
  expect((await ask(page, "POST", "/games/old-spall/publish", { revision: saved.value.revision })).ok).toBe(true);
  expect((await ask(page, "POST", "/games/old-spall/command", { command: { do: "start-over" }, id: "start-over-2" })).ok).toBe(true);
  const reignsBefore = (await kept("reign")).length;
  const newest = (await kept("hit"))[0]?.id ?? 0;
  let accepted = 0;
  for (let round = 0; round < 7; round += 1) {
    const ids = Array.from({ length: 9 }, (_, i) => i).map((i) => `fight-${round}-${i}`);
    const sends = ids.map((id) => giveOnce({ kind: "follow", as: "ferrule7", id }));
    await new Promise((resolve) => setTimeout(resolve, round * 6));
    await control("/demo/kill/engine");
    await Promise.all(sends.map((s) => s.catch(() => false)));
    await control("/demo/revive/engine");
    // As a sender does: until it hears that it was taken. The same id never counts twice.
    for (const id of ids)
      await expect.poll(() => giveOnce({ kind: "follow", as: "ferrule7", id }).catch(() => false), { timeout: 20_000 }).toBe(true);
    accepted += ids.length;
  }
  const hits = (await kept("hit")).filter((h) => h.id > newest).reverse();
  expect(hits).toHaveLength(accepted);
  let health = 200;
  let falls = 0;
  for (const { body } of hits) {
    expect([body.before, body.after]).toEqual([health, health - 10]);
    health -= 10;
    if (health > 0) continue;
    falls += 1;
    health = 200;
  }
  expect(falls).toBe(3);
  expect((await kept("reign")).length - reignsBefore).toBe(3);
});

test("a game has a link of its own, on which nothing else stands", async ({ page, context }) => {
  await signIn(page, "owner", "/prepare/games/old-spall");
  await page.getByRole("tab", { name: "Where it is seen" }).click();
  await page.getByRole("button", { name: "An overlay of its own" }).click();
  await expect(page.getByText("Old Spall alone")).toBeVisible();
  await page.getByRole("button", { name: "Make a link" }).click();
  await expect(page.getByText(/New link made and copied/)).toBeVisible();
  const alone = await openOverlay(context, await page.evaluate(() => navigator.clipboard.readText()));
  await expect.poll(async () => Object.keys((await facts(alone)).shown)).toEqual(["old-spall"]);
});

test("hush empties the boss off the picture too; it goes on counting, and stands there again on release", async ({ page, context }) => {
  await signIn(page, "owner", "/prepare");
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await expect.poll(async () => (await seen(overlay)).drawn).toBeGreaterThan(15_000);
  const before = (await boss(overlay))?.health ?? 0;
  await page.bringToFront();
  await page.keyboard.press(".");
  await expect(page.getByText("Hushed: every overlay is empty and silent.")).toBeVisible();
  await expect.poll(async () => (await seen(overlay)).drawn).toBe(0);
  await give({ kind: "follow", as: "eelgrass" });
  await expect.poll(async () => (await boss(overlay))?.health).toBe(before - 10);
  await overlay.waitForTimeout(700);
  expect((await seen(overlay)).drawn).toBe(0);
  await page.bringToFront();
  await page.getByRole("button", { name: "Release" }).click();
  await expect.poll(async () => (await seen(overlay)).drawn).toBeGreaterThan(15_000);
});
