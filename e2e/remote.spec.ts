import { type Browser, expect, type Page } from "@playwright/test";
import { ask, base, control, copyLink, facts, give, noneSerious, openOverlay, say, signIn, test } from "./support";

test.beforeEach(() => control("/demo/reset"));

const phoneOf = async (browser: Browser): Promise<Page> =>
  (await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })).newPage();
async function newCode(page: Page): Promise<string> {
  await page.goto(`${base}/run`);
  await page.getByRole("button", { name: "Phone remote" }).click();
  await page.getByRole("button", { name: "Pair a phone" }).click();
  return (await page.getByTestId("pairing-code").innerText()).replace(/\s/g, "");
}
async function pair(phone: Page, code: string): Promise<void> {
  await phone.goto(`${base}/remote`);
  await phone.getByLabel("Code").fill(code);
  await phone.getByLabel("What this phone is called in the booth").fill("Tom’s phone");
  await phone.getByRole("button", { name: "Pair", exact: true }).click();
}

test("a whole rehearsed show is run from a paired phone alone", async ({ page, browser, context }) => {
  await signIn(page);
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  const code = await newCode(page);
  // It works at this computer, and says what a phone needs.
  await expect(page.getByText("Izzam is open to this computer only.")).toBeVisible();
  await expect(page.getByRole("img", { name: "QR code that opens the remote on a phone" }).locator("svg")).toBeVisible();
  const phone = await phoneOf(browser);
  await pair(phone, code.toLowerCase());
  await expect(phone.getByTestId("remote-state")).toHaveText(/Off air/);
  const tap = (name: string | RegExp) => phone.getByRole("button", { name }).first().tap();

  await tap("Rehearse");
  await expect(phone.getByTestId("remote-state")).toHaveText(/Rehearsing 0:00/);
  await say("kilnGlow");
  await expect.poll(async () => (await facts(overlay)).lives["emote-wall"]).toBeGreaterThan(0);
  await tap(/^Kiln door/);
  await expect.poll(async () => (await facts(overlay)).alerts).toBe(1);
  await expect(phone.locator("[data-cue=kiln-door]")).toContainText(/cooldown \d s/);
  await tap("−100");
  await expect(phone.locator("[data-testid=remote-stands][data-game=old-spall]")).toHaveText("Old Spall at 500 of 600");
  await tap("Undo hit");
  await expect(phone.locator("[data-testid=remote-stands][data-game=old-spall]")).toHaveText("Old Spall at 600 of 600");
  await tap("−250");
  await expect.poll(async () => (await facts(overlay)).shown["old-spall"]?.health).toBe(350);
  await tap("Start: Old Spall wakes");
  await expect(phone.getByRole("button", { name: "Start: Golden flock" })).toBeVisible();
  await expect(page.locator("[data-stub=wake]")).toHaveCount(0);

  await tap("Hush");
  await expect(phone.getByText("Every overlay is empty and silent.")).toBeVisible();
  await expect.poll(async () => (await facts(overlay)).lives["emote-wall"]).toBe(0);
  await give({ kind: "follow", as: "oatcake_ada" });
  await tap("Release the hush");
  await expect(phone.getByText("Held under hush: “oatcake_ada follows”")).toBeVisible();
  await tap("Drop");
  await expect(phone.getByText(/Waiting for you/)).toHaveCount(0);

  await tap("End the rehearsal");
  await tap("Yes, end the rehearsal");
  await expect(phone.getByTestId("remote-state")).toHaveText(/Off air/);
  await expect(phone.locator("[data-testid=remote-stands][data-game=old-spall]")).toHaveText("Old Spall at 600 of 600");
  // What the phone did stands in the talk under its own name.
  await page.keyboard.press("Escape");
  await expect(page.getByTestId("talk")).toContainText("kilnkeeper (Tom’s phone)");

  // Everything one presses is large enough for a thumb, and nothing stands in anybody's way.
  // All at one moment: a message with its buttons may come and go meanwhile.
  const low = await phone
    .getByRole("button")
    .evaluateAll((all) =>
      all.filter((b) => b.checkVisibility() && b.getBoundingClientRect().height < 40).map((b) => b.outerHTML.slice(0, 200)),
    );
  expect(low).toEqual([]);
  await noneSerious(phone);
});

test("a code pairs one phone, once; a paired phone may act and nothing else; unpaired it can do nothing", async ({ page, browser }) => {
  await signIn(page);
  const code = await newCode(page);
  const phone = await phoneOf(browser);
  await pair(phone, code);
  await expect(phone.getByRole("button", { name: "Hush" })).toBeVisible();
  const second = await phoneOf(browser);
  await pair(second, code);
  await expect(second.getByText("This code is not valid: it was used")).toBeVisible();
  await pair(second, "ABCDEFGH");
  await expect(second.getByText("This code is not valid")).toBeVisible();

  // No sign-in: the pages that set things up stay closed, and so do their actions.
  await phone.goto(`${base}/prepare`);
  await phone.waitForURL(/sign-in/);
  await phone.goto(`${base}/remote`);
  await expect(phone.getByRole("button", { name: "Hush" })).toBeVisible();
  expect(
    (await ask(phone, "POST", "/games/old-spall/command", { command: { do: "damage", amount: 5 }, id: "command-from-phone" })).ok,
  ).toBe(true);
  for (const [method, path] of [
    ["POST", "/remotes"],
    ["POST", "/say"],
    ["POST", "/overlays/main-stage/link"],
    ["POST", "/games/old-spall/publish"],
    ["GET", "/show/tape?from=0&to=9"],
    ["GET", "/viewers/card?id=oatcake_ada"],
  ] as const) {
    const said = await ask(phone, method, path, { text: "hello", do: "copy", revision: 1 });
    expect(said.ok, path).toBe(false);
  }
  expect(await phone.evaluate(() => document.cookie)).not.toContain("izzam_remote");

  await expect(page.getByRole("list", { name: "Paired phones" }).getByText("Tom’s phone")).toBeVisible();
  await page.getByRole("button", { name: "Unpair" }).click();
  await expect(phone.getByRole("heading", { name: "Pair this phone" })).toBeVisible({ timeout: 20_000 });
  expect((await ask(phone, "POST", "/hush", { on: true })).ok).toBe(false);
});

test("the scanned address brings the code along, and takes it out of sight", async ({ page, browser }) => {
  await signIn(page);
  const code = await newCode(page);
  const phone = await phoneOf(browser);
  await phone.goto(`${base}/remote#${code}`);
  await expect(phone.getByLabel("Code")).toHaveValue(code);
  expect(phone.url()).not.toContain(code);
});
