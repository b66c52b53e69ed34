import { expect, type Page } from "@playwright/test";
import type { VesselFacts } from "../src/games/brimful/pieces";
import {
  ask,
  base,
  chatConnected,
  control,
  copyLink,
  facts,
  focusGame,
  give,
  heard,
  openOverlay,
  say,
  seen,
  signIn,
  test,
} from "./support";

test.beforeAll(() => control("/demo/reset"));

type Kind = VesselFacts["kinds"][number];
const pot = async (page: Page): Promise<VesselFacts> => (await facts(page)).shown["the-open-pot"] as unknown as VesselFacts;
const atRest = (page: Page) => expect.poll(async () => (await pot(page))?.moves, { timeout: 20_000 }).toBe(false);
const heavy = (p: VesselFacts): Kind | undefined => p.kinds.find((k) => k.mass === 70);
const onlyPot = (page: Page) =>
  ask(page, "PUT", "/overlays/main-stage/layout", {
    places: [{ game: "the-open-pot", place: { x: 0, y: 0.2, width: 0.5, height: 0.8 } }],
    onAir: true,
  });
const command = async (page: Page, given: object): Promise<void> => {
  const done = await ask(page, "POST", "/games/the-open-pot/command", { command: given, id: `pot-${Math.random()}` });
  expect(done.ok).toBe(true);
};
/** x and y of each piece that moves, in tenths of the vessel's height from the middle of its foot. */
const places = (p: VesselFacts): readonly (readonly [number, number])[] =>
  Array.from({ length: p.pieces }, (_, i) => [p.rows[i * 7 + 2] ?? 0, p.rows[i * 7 + 3] ?? 0] as const);

test("a tip of the tier that was set drops what its sentence says, how many and how heavy; it is seen, told, taken out, and brims", async ({
  page,
  context,
}) => {
  test.setTimeout(150_000);
  await signIn(page, "owner", "/prepare");
  await chatConnected(page);
  await page.locator("[data-game=the-open-pot]").getByRole("link", { name: "Set up" }).click();

  // Set up: the tier is its sentence.
  const tier = page.locator("[data-tier=brick]");
  await expect(tier).toContainText("A tip of 25.00 EUR or more drops 1 heavy piece and 1 face of the viewer.");
  await tier.getByRole("button", { name: "Change this tier" }).click();
  await tier.getByLabel("Amount of this tier").fill("7");
  await tier.getByLabel("How the amount counts").selectOption("exact");
  await tier.getByLabel("How many pieces").fill("2");
  await tier.getByLabel("Mass of a piece").fill("70");
  await tier.getByLabel("Size in thousandths").fill("200");
  await expect(tier).toContainText("A tip of exactly 7.00 EUR drops 2 heavy pieces and 1 face of the viewer.");
  await page.getByLabel("Mass that tips it over").fill("80");
  // Try: told why it counted as it did.
  await page.getByLabel("Amount", { exact: true }).fill("7");
  await page.getByRole("button", { name: /^A tip/ }).click();
  await expect(page.getByTestId("trial-report")).toContainText("3 pieces by mossy_teapot");
  await page.getByRole("button", { name: "Publish to “Main stage”" }).click();
  await expect(page.getByText(/Published as version 2/)).toBeVisible();
  expect((await onlyPot(page)).ok).toBe(true);

  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await atRest(overlay);
  const before = await pot(overlay);
  expect(before.pieces).toBeGreaterThan(10);
  expect(heavy(before)).toBeUndefined();
  // All of it lies in the vessel: between its sides, above its foot and under its rim.
  for (const [x, y] of places(before)) {
    expect(Math.abs(x)).toBeLessThan(6.2);
    expect(y).toBeLessThan(0.1);
    expect(y).toBeGreaterThan(-10.5);
  }
  const still = await seen(overlay);
  expect(still.drawn).toBeGreaterThan(60_000);
  expect(still.middle.x).toBeLessThan(640);

  await give({ kind: "tip", as: "oatcake_ada", amount: 700, currency: "EUR" });
  await expect.poll(async () => heavy(await pot(overlay))).toEqual({ size: 200, mass: 70, body: "box", face: false, count: 2 });
  expect((await pot(overlay)).texts).toEqual(["oatcake_ada"]);
  await atRest(overlay);
  expect((await pot(overlay)).pieces).toBe(before.pieces + 3);
  // One cent more is another tier.
  await give({ kind: "tip", as: "loamy", amount: 701, currency: "EUR" });
  await expect.poll(async () => (await pot(overlay)).pieces).toBe(before.pieces + 10);
  expect(heavy(await pot(overlay))?.count).toBe(2);

  // A page that is loaded anew shows the same.
  await atRest(overlay);
  const kinds = (p: VesselFacts): readonly Kind[] => [...p.kinds].sort((a, b) => a.size - b.size || a.count - b.count);
  const there = await pot(overlay);
  await overlay.reload();
  await expect.poll(async () => (await pot(overlay))?.pieces, { timeout: 20_000 }).toBe(there.pieces);
  await atRest(overlay);
  expect(kinds(await pot(overlay))).toEqual(kinds(there));
  expect((await pot(overlay)).full).toBe(there.full);

  // Chat is told; a slip is taken out from the talk.
  await say("!full", "quietferry");
  await expect.poll(async () => (await heard()).some((t) => t.startsWith(`It is ${there.full} % full.`))).toBe(true);
  await focusGame(page, "the-open-pot", "brimful-booth");
  await expect(page.getByTestId("brimful-full")).toHaveText(`${there.full} %`);
  await give({ kind: "tip", as: "eelgrass", amount: 700, currency: "EUR" });
  await expect.poll(async () => heavy(await pot(overlay))?.count).toBe(4);
  await page
    .getByText(/^3 pieces, \d+ %$/)
    .last()
    .click();
  await page.getByRole("button", { name: "Take its 3 pieces out" }).click();
  await expect.poll(async () => heavy(await pot(overlay))?.count).toBe(2);

  // It brims: what it held is kept, chat hears of it, and the next one begins with what was over.
  await command(page, { do: "drop", amount: 60, what: "pieces", size: 0, mass: 5 });
  await expect.poll(async () => (await heard()).some((t) => t.startsWith("The pot brims over"))).toBe(true);
  await expect.poll(async () => heavy(await pot(overlay)), { timeout: 20_000 }).toBeUndefined();
  await page.goto(`${base}/prepare/games/the-open-pot`);
  await page.getByRole("tab", { name: "What happened" }).click();
  await expect(page.getByRole("list", { name: "Fillings" }).getByRole("listitem").first()).toContainText("Brimmed over");
});

test("one that stands free tips over by a heavy piece; what comes meanwhile waits, and falls when it stands again", async ({
  page,
  context,
}) => {
  await signIn(page);
  await chatConnected(page);
  expect((await onlyPot(page)).ok).toBe(true);
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await command(page, { do: "empty" });
  await command(page, { do: "drop", amount: 20, what: "pieces", size: 0, mass: 5 });
  await atRest(overlay);
  // The booth is led there before: it lies for seconds only.
  await focusGame(page, "the-open-pot", "brimful-booth");
  await command(page, { do: "drop", amount: 1, what: "pieces", size: 250, mass: 90 });
  await expect.poll(async () => Math.abs((await pot(overlay)).angle), { timeout: 10_000 }).toBeGreaterThan(0.8);
  await expect(page.getByTestId("brimful-booth")).toContainText("It lies on its side");
  await give({ kind: "follow", as: "loamy" });
  await expect(page.getByTestId("brimful-booth")).toContainText("2 pieces wait until it stands");
  // It stands up by itself, and holds what the engine says it holds.
  await expect.poll(async () => Math.abs((await pot(overlay)).angle), { timeout: 20_000 }).toBeLessThan(0.01);
  // 60 % of 21 spilled, and the follow's two came.
  await expect.poll(async () => (await pot(overlay)).pieces, { timeout: 20_000 }).toBe(9 + 2);
  await atRest(overlay);
});

test("a page whose physics can’t be had draws the pile as it would lie, and one that was hushed comes back with it", async ({
  page,
  context,
}) => {
  await signIn(page);
  expect((await onlyPot(page)).ok).toBe(true);
  const link = await copyLink(page, { boss: true });
  await command(page, { do: "drop", amount: 15, what: "pieces", size: 0, mass: 5 });
  await context.route("**/built/physics.js", (route) => route.abort());
  const overlay = await openOverlay(context, link);
  await expect.poll(async () => (await pot(overlay))?.given, { timeout: 20_000 }).toBe(true);
  await expect.poll(async () => (await pot(overlay)).pieces).toBeGreaterThan(10);
  const drawn = (await seen(overlay)).drawn;
  expect(drawn).toBeGreaterThan(40_000);
  expect((await ask(page, "POST", "/hush", { on: true })).ok).toBe(true);
  await expect.poll(async () => (await seen(overlay)).drawn).toBe(0);
  expect((await ask(page, "POST", "/hush", { on: false })).ok).toBe(true);
  await expect.poll(async () => (await seen(overlay)).drawn).toBeGreaterThan(drawn * 0.8);
});

test("an outline of one’s own is read, and one that would hold nothing says so", async ({ page }) => {
  await signIn(page, "owner", "/prepare/games/the-open-pot");
  await page.getByRole("tab", { name: "Appearance" }).click();
  await page.getByRole("button", { name: "Use an outline of your own" }).click();
  const field = page.getByLabel("SVG path of the vessel");
  await field.fill("M0 100 L0 0 L100 0 L100 100");
  await page.getByRole("button", { name: "Use it" }).click();
  await expect(page.locator("#path-problem")).toContainText("open at the bottom");
  await field.fill("M0 0 C0 60 20 100 50 100 S100 60 100 0");
  await page.getByRole("button", { name: "Use it" }).click();
  await expect(page.getByRole("radio", { name: "your own" })).toBeChecked();
  await expect(page.getByTestId("save-state")).toContainText("not published");
});
