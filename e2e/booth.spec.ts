import { type BrowserContext, expect, type Page } from "@playwright/test";
import { ask, base, chatConnected, control, copyLink, facts, give, openOverlay, say, signIn, test } from "./support";

test.beforeEach(() => control("/demo/reset"));

/** What the picture in the booth draws: the overlay page itself, looked at. */
const picture = (page: Page) => page.frames().find((f) => f.url().includes("#peek:"));
const pictureFacts = async (
  page: Page,
): Promise<{ lives: Record<string, number>; alerts: number; sounds: number; shown: Record<string, { health: number } | null> }> =>
  picture(page)!.evaluate(() => (window as unknown as { izzamFacts: () => never }).izzamFacts());
const health = (page: Page) => page.getByTestId("boss-health");
const chip = (page: Page, text: string | RegExp) => page.getByTestId("talk").locator("[data-chip]").filter({ hasText: text });
const state = (page: Page) => page.locator("[data-show]");

async function toBooth(page: Page, as: "owner" | "moderator" = "owner"): Promise<void> {
  await signIn(page, as, "/run");
  await expect(health(page)).toHaveText("600");
}
/** By the API; and the page knows, so that its keys are there. */
const onAir = async (page: Page): Promise<void> => {
  const done = await ask(page, "POST", "/games/show/command", { command: { do: "show", what: "on-air" }, id: `command-${Date.now()}` });
  expect(done.ok).toBe(true);
  await expect(state(page)).toHaveAttribute("data-show", "on");
};
/** One action by the search over every action, without a mouse. */
async function doing(page: Page, action: string): Promise<void> {
  await page.keyboard.press("Control+k");
  await page.keyboard.type(action);
  await expect(page.locator("[cmdk-item][data-selected=true]")).toContainText(action);
  await page.keyboard.press("Enter");
}
/** A real overlay page, opened by the owner in a context of its own. */
async function openPage(context: BrowserContext): Promise<Page> {
  const owner = await context.newPage();
  await signIn(owner);
  const link = await copyLink(owner, { boss: true });
  await owner.close();
  return openOverlay(context, link);
}

test("a moderator runs a whole rehearsed show from the booth with the keyboard alone", async ({ page, browser }) => {
  const broadcast = await browser.newContext({ permissions: ["clipboard-read", "clipboard-write"] });
  const overlay = await openPage(broadcast);
  await signIn(page, "moderator", "/prepare");
  await chatConnected(page);
  await page.keyboard.press("3");
  await page.waitForURL(/\/run$/);
  await expect(page.getByTestId("pages")).toHaveText("1 page open");

  await doing(page, "Rehearse in the open");
  await expect(state(page)).toHaveAttribute("data-show", "rehearsing");

  // The wall: an emote in chat flies on the overlay and in the picture, and the talk says so. What is not yet
  // joined misses it: a picture is of now.
  await expect.poll(async () => "emote-wall" in (await pictureFacts(page).catch(() => ({ lives: {} }))).lives).toBe(true);
  await say("look wobblePot");
  await expect(chip(page, "wall ×1")).toBeVisible();
  await expect.poll(async () => (await pictureFacts(page)).lives["emote-wall"]).toBeGreaterThan(0);

  // A cue by its key, and what it shows.
  await page.keyboard.press("q");
  await expect.poll(async () => (await facts(overlay)).alerts).toBe(1);
  await expect.poll(async () => (await pictureFacts(page)).alerts).toBe(1);
  expect((await pictureFacts(page)).sounds).toBe(0);
  await expect(page.locator("[data-cue=kiln-door]")).toHaveAttribute("aria-disabled", "true");
  // A key within its rest fires nothing, and says how long.
  await page.keyboard.press("q");
  await expect(page.getByText(/This cue is on cooldown for \d+ s more/)).toBeVisible();

  // The boss: hit, undone, hit, healed.
  await page.keyboard.press("h");
  await expect(page.getByLabel("Damage")).toBeFocused();
  await page.keyboard.type("120");
  await page.keyboard.press("Enter");
  await expect(health(page)).toHaveText("480");
  await page.keyboard.press("u");
  await expect(health(page)).toHaveText("600");
  await page.keyboard.press("h");
  await expect(page.getByLabel("Damage")).toBeFocused();
  await page.keyboard.type("250");
  await page.keyboard.press("Enter");
  await expect(health(page)).toHaveText("350");
  await page.keyboard.press("m");
  await expect(page.getByLabel("Healing")).toBeFocused();
  await page.keyboard.type("50");
  await page.keyboard.press("Enter");
  await expect(health(page)).toHaveText("400");
  await expect.poll(async () => (await facts(overlay)).shown["old-spall"]?.health).toBe(400);

  // The rundown: what comes next, early; then the next is skipped from the tape by keys.
  await page.keyboard.press("f");
  await expect(page.locator("[data-stub=wake]")).toHaveCount(0);
  await expect(page.getByTestId("tape").getByText("Old Spall wakes")).toBeVisible();
  await page.getByRole("button", { name: "Skip Golden flock" }).focus();
  await page.keyboard.press("Enter");
  await expect(page.locator("[data-stub=gold]")).toContainText("Back");

  // Hidden from viewers, it goes on counting; and it comes back.
  await page.keyboard.press("v");
  await expect(page.getByTestId("focus")).toContainText("hidden");
  await expect.poll(async () => (await facts(overlay)).shown["old-spall"]).toBeUndefined();
  await page.keyboard.press("v");
  await expect.poll(async () => (await facts(overlay)).shown["old-spall"]?.health).toBe(400);

  // Hush: everything is empty at once; what comes meanwhile waits, and is decided by a key.
  await page.keyboard.press(".");
  await expect(page.getByRole("status").filter({ hasText: "Hushed" })).toBeVisible();
  await expect.poll(async () => (await facts(overlay)).alerts).toBe(0);
  await expect(page.locator("[data-cue=kiln-door]")).toHaveAttribute("aria-disabled", "false");
  await page.keyboard.press("q");
  await expect(chip(page, "cue Kiln door")).toHaveCount(2);
  await page.keyboard.press(".");
  await expect(page.getByRole("listitem").filter({ hasText: "Held under hush: “The kiln is open”" })).toBeVisible();
  expect((await facts(overlay)).alerts).toBe(0);
  await page.keyboard.press("y");
  await expect.poll(async () => (await facts(overlay)).alerts).toBe(1);
  await expect(page.getByTestId("waiting-count")).toHaveCount(0);

  // Speaking in chat; typing is never a command.
  await page.keyboard.press("/");
  await expect(page.getByLabel("Say something in chat")).toBeFocused();
  await page.keyboard.type("q is for quiet");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("talk")).toContainText("q is for quiet");
  await page.keyboard.press("Escape");

  // What the keys are.
  await page.keyboard.press("Shift+?");
  await expect(page.getByRole("dialog")).toContainText("Fire the cue Kiln door");
  await page.keyboard.press("Escape");

  await doing(page, "End the rehearsal");
  await expect(state(page)).toHaveAttribute("data-show", "off");
  // Every game stands as before, and nothing of it was kept.
  await expect(health(page)).toHaveText("600");
  const hits = await ask(page, "GET", "/games/old-spall/records?kind=hit");
  expect((hits.value as { records: unknown[] }).records).toEqual([]);
  await broadcast.close();
});

test("the show begins and ends by hand or by the platform, and its tape is the same after a reload", async ({ page }) => {
  await toBooth(page);
  await page.getByRole("button", { name: "The show: Off air" }).click();
  await page.getByRole("menuitem", { name: "Go on air" }).click();
  await expect(state(page)).toHaveAttribute("data-show", "on");
  await give({ kind: "raid", as: "oatcake_ada", amount: 400 });
  const tape = page.getByTestId("tape");
  const labels = async (): Promise<string[]> =>
    (await tape.locator("[data-mark]").allTextContents()).map((t) => t.replace(/ \+\d+$/, "")).sort();
  await expect(tape.getByText("Raid · oatcake_ada brought 400")).toBeVisible();
  await expect(tape.getByText("Old Spall fell")).toBeVisible();
  const before = await labels();
  await page.reload();
  await expect(tape.getByText("Old Spall fell")).toBeVisible();
  await expect.poll(labels).toEqual(before);
  // A mark leads to what happened.
  await tape.getByText("Raid · oatcake_ada").click();
  await page.getByRole("button", { name: "Find it in the talk" }).click();
  await expect(page.getByTestId("talk").getByText("raided with 400")).toBeVisible();
  await give({ kind: "ended" });
  await expect(state(page)).toHaveAttribute("data-show", "off");
  // A show that ended stands under Review.
  await page.goto(`${base}/review`);
  // Newest first: this one took seconds, those of the demo's half year took hours.
  const newest = page.getByRole("list", { name: "Shows so far" }).getByRole("listitem").first();
  await expect(newest.getByRole("link", { name: /^Show of / })).toBeVisible();
  await expect(newest).toContainText(/0:0\d:\d\d/);
  await page.goto(`${base}/run`);
  await give({ kind: "live" });
  await expect(state(page)).toHaveAttribute("data-show", "on");
  // What ends it is asked twice, as on the phone; whoever goes elsewhere has not said yes.
  const menu = page.getByRole("button", { name: "The show: On air" });
  await menu.click();
  await page.getByRole("menuitem", { name: "End the show" }).click();
  await expect(page.getByRole("menuitem", { name: "Yes, end the show" })).toBeVisible();
  await page.keyboard.press("Escape");
  await menu.click();
  await expect(state(page)).toHaveAttribute("data-show", "on");
  await page.getByRole("menuitem", { name: "End the show" }).click();
  await page.getByRole("menuitem", { name: "Yes, end the show" }).click();
  await expect(state(page)).toHaveAttribute("data-show", "off");
});

test("the tape is planned by hand: dragged, moved by keys, undone, started early, once more", async ({ page }) => {
  await toBooth(page);
  await onAir(page);
  const gold = page.locator("[data-stub=gold]");
  const box = (await gold.boundingBox())!;
  await page.mouse.move(box.x + 30, box.y + 25);
  await page.mouse.down();
  await page.mouse.move(box.x + 120, box.y + 25, { steps: 4 });
  await expect(gold).toContainText(/minute \d+/);
  await page.mouse.up();
  await expect(page.getByText(/Golden flock is planned for minute 2\d/)).toBeVisible();
  // The tape has heard of it too, or it would still say 20 from before.
  await expect(gold).toHaveAttribute("data-minute", /^2[1-9]$/);
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect(gold).toHaveAttribute("data-minute", "20");
  const handle = page.getByRole("button", { name: /^Golden flock .* · / });
  await handle.focus();
  await page.keyboard.press("Shift+ArrowRight");
  await expect(page.getByText("Golden flock is planned for minute 21.")).toBeVisible();
  // Early, and once more from its mark.
  await gold.getByRole("button", { name: "Start" }).click();
  await expect(gold).toHaveCount(0);
  await expect(chip(page, "cue Golden flock")).toHaveCount(1);
  await page.waitForTimeout(8_200);
  await page.getByTestId("tape").locator("[data-mark]").filter({ hasText: "Golden flock" }).first().click();
  await page.getByRole("button", { name: "Start it once more" }).click();
  await expect(chip(page, "cue Golden flock")).toHaveCount(2);
});

test("talk: what a message caused is explained, undone, taken off the picture; a viewer is muted", async ({ page }) => {
  await toBooth(page);
  await say("wobblePot wobblePot", "quietferry");
  await give({ kind: "follow", as: "oatcake_ada" });
  // Not a raid: its flock waits for its turn behind the ribbons, and may come long after.
  await give({ kind: "follow", as: "ferrule7" });
  await expect(health(page)).toHaveText("580");
  // The older hit can't be undone any more; healing sets it right, in one's own name.
  await chip(page, "−10 Old Spall").first().click();
  const card = page.getByRole("dialog", { name: "What this came to" });
  await expect(card).toContainText("−10 to Old Spall by oatcake_ada, 590 of 600 left");
  await card.getByRole("button", { name: "Undo this hit of 10" }).click();
  await expect(card).toContainText("Something else came after it");
  await card.getByRole("button", { name: "Heal Old Spall by 10" }).click();
  await expect(health(page)).toHaveText("590");
  // The last one can.
  await give({ kind: "follow", as: "pale_oar" });
  await expect(health(page)).toHaveText("580");
  // In that row: the boss may have heard of it before the talk shows it.
  await page.locator("[data-talk]").filter({ hasText: "pale_oar" }).locator("[data-chip]").filter({ hasText: "−10 Old Spall" }).click();
  await card.getByRole("button", { name: "Undo this hit of 10" }).click();
  await expect(health(page)).toHaveText("590");

  await expect.poll(async () => (await pictureFacts(page)).lives["emote-wall"], { timeout: 15_000 }).toBe(0);
  await say("look wobblePot wobblePot wobblePot", "quietferry");
  await expect.poll(async () => (await pictureFacts(page)).lives["emote-wall"]).toBe(3);
  await chip(page, "wall ×3").click();
  await card.getByRole("button", { name: "Take its emotes off the picture" }).click();
  // Long before their six seconds are over.
  await expect.poll(async () => (await pictureFacts(page)).lives["emote-wall"], { timeout: 2_500 }).toBe(0);

  await page.getByTestId("talk").getByRole("button", { name: "quietferry" }).last().click();
  const viewer = page.getByRole("dialog").filter({ hasText: "Lately" });
  await expect(viewer).toContainText("look wobblePot wobblePot wobblePot");
  await viewer.getByRole("button", { name: "Mute in games" }).click();
  await expect(viewer).toContainText("Muted in games by kilnkeeper");
  await page.keyboard.press("Escape");
  await say("wobblePot", "quietferry");
  // Not the line that says who was muted: the message after it.
  await expect(page.getByTestId("talk").getByRole("button", { name: "muted", exact: true })).toBeVisible();
  expect((await pictureFacts(page)).lives["emote-wall"]).toBe(0);
  await page.getByRole("button", { name: "refused" }).first().click();
  // What was refused, and nothing else: the hit that could not be undone, and the muted message.
  await expect(page.getByTestId("talk").locator("[data-talk]")).toHaveCount(2);
});

test("two moderators who press the same at once do it once, and both see the same", async ({ page, browser }) => {
  const other = await (await browser.newContext()).newPage();
  await toBooth(page);
  await toBooth(other, "moderator");
  await onAir(page);
  await expect(state(other)).toHaveAttribute("data-show", "on");
  await Promise.all([page.keyboard.press("r"), other.keyboard.press("r")]);
  await expect(health(page)).toHaveText("550");
  await expect(health(other)).toHaveText("550");
  await page.waitForTimeout(600);
  await expect(health(page)).toHaveText("550");
  // The rundown's next thing, by both: once; and both tapes show it.
  await Promise.all([page.keyboard.press("f"), other.keyboard.press("f")]);
  for (const booth of [page, other]) {
    await expect(booth.locator("[data-stub=wake]")).toHaveCount(0);
    await expect(booth.locator("[data-stub=gold]")).toHaveCount(1);
  }
  await other.context().close();
});

test("the operator’s connection drops in the middle of a fight: nothing fires twice, nothing is lost", async ({ page }) => {
  let down = false;
  const open: { close: () => Promise<void> }[] = [];
  await page.routeWebSocket(/\/ws$/, (ws) => {
    if (down) return void ws.close();
    ws.connectToServer();
    open.push(ws);
  });
  await page.route(/\/api\//, (route) => (down ? route.abort() : route.continue()));
  await toBooth(page);
  await onAir(page);
  await give({ kind: "follow", as: "oatcake_ada" });
  await expect(health(page)).toHaveText("590");
  down = true;
  for (const ws of open.splice(0)) await ws.close();
  await expect(page.getByRole("button", { name: "Izzam needs a look" })).toBeVisible({ timeout: 20_000 });
  // What is pressed meanwhile is not done, and is not done later either.
  await page.keyboard.press("r");
  await expect(page.getByText(/Izzam does not answer/).first()).toBeVisible();
  for (const as of ["quietferry", "pale_oar", "tin_lantern"]) await give({ kind: "follow", as });
  await give({ kind: "raid", as: "ferrule7", amount: 20 });
  await page.waitForTimeout(8_000);
  down = false;
  await expect(health(page)).toHaveText("520", { timeout: 20_000 });
  const talk = page.getByTestId("talk");
  for (const who of ["oatcake_ada", "quietferry", "pale_oar", "tin_lantern", "ferrule7"])
    await expect(talk.getByRole("button", { name: who })).toHaveCount(1);
  await expect(page.getByTestId("tape").getByText("Raid · ferrule7 brought 20")).toBeVisible();
  await page.waitForTimeout(1_500);
  await expect(health(page)).toHaveText("520");
});

test("a show goes on through a restart of the engine, its clock and rundown too", async ({ page }) => {
  await toBooth(page);
  await onAir(page);
  await page.keyboard.press("f");
  await expect(page.locator("[data-stub=wake]")).toHaveCount(0);
  const clock = async (): Promise<number> => {
    const text = (await state(page).innerText()).match(/(\d+):(\d\d):(\d\d)/);
    return text === null ? -1 : Number(text[1]) * 3_600 + Number(text[2]) * 60 + Number(text[3]);
  };
  const before = await clock();
  await control("/demo/kill/engine");
  await control("/demo/revive/engine");
  await expect(page.getByRole("button", { name: /All connected|to look at/ })).toBeVisible({ timeout: 30_000 });
  await expect(state(page)).toHaveAttribute("data-show", "on");
  await expect(page.locator("[data-stub=wake]")).toHaveCount(0);
  expect(await clock()).toBeGreaterThan(before);
  await give({ kind: "follow", as: "oatcake_ada" });
  await expect(health(page)).toHaveText("590");
});

test("moderators act in chat by the channel’s own words, and chat hears what came of it", async ({ page }) => {
  await toBooth(page);
  await say("!hit 100", "mossy_teapot");
  await expect(chip(page, "refused")).toBeVisible();
  await say("!hit 100", "spongebearer");
  await expect(health(page)).toHaveText("500");
  await expect(page.getByTestId("talk")).toContainText("−100 to Old Spall by");
  await say("!quiet", "spongebearer");
  await expect(page.getByRole("status").filter({ hasText: "Hushed" })).toBeVisible();
  await say("!loud", "spongebearer");
  await expect(page.getByRole("status").filter({ hasText: "Hushed" })).toHaveCount(0);
});

test("hush works from the booth while the database is gone", async ({ page }) => {
  await toBooth(page);
  await control("/demo/kill/database");
  try {
    await page.keyboard.press(".");
    await expect(page.getByRole("status").filter({ hasText: "Hushed" })).toBeVisible({ timeout: 5_000 });
    await page.keyboard.press(".");
    await expect(page.getByRole("status").filter({ hasText: "Hushed" })).toHaveCount(0);
  } finally {
    await control("/demo/revive/database");
  }
});
