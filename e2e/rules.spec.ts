import { expect, type Page } from "@playwright/test";
import { appears, ask, base, chatConnected, control, copyLink, facts, give, giveRaw, openOverlay, rigLog, signIn, test } from "./support";

test.beforeAll(() => control("/demo/reset"));
test.beforeEach(async ({ page }) => {
  await signIn(page);
  await chatConnected(page);
  await page.goto(`${base}/prepare/rules`);
});

test("what would happen if: every decision with its reason, and nothing is touched", async ({ page }) => {
  const before = (await rigLog()).length;
  const decisions = page.getByTestId("decisions");
  const form = page.getByTestId("what-if");
  await expect(decisions).toContainText("tier: 0.01 EUR or more");
  await form.getByLabel("Amount", { exact: true }).fill("13.13");
  await expect(decisions).toContainText("tier: exactly 13.13 EUR");
  await expect(decisions).toContainText("heal Old Spall by 131");
  await form.getByLabel("Amount", { exact: true }).fill("25");
  await expect(decisions).toContainText("after 1.5 s: send a flock of 120 of 1 chosen emote over Kiln sparks within 2 s, moving: rain");
  await form.getByLabel("Currency").selectOption("SEK");
  await expect(decisions).toContainText("the channel has no rate for SEK");
  await form.getByLabel("What happens").selectOption("reaction");
  await form.getByLabel("Kind of reaction").fill("glazed sherd");
  await expect(decisions).toContainText("it is for another kind than glazed sherd");
  await form.getByLabel("What happens").selectOption("host");
  await expect(decisions).toContainText("No rule is about this");
  await expect(page.getByTestId("save-state")).toContainText("all published");
  expect(await rigLog()).toHaveLength(before);
});

/** A menu takes an item once it has seen the pointer come to it; on a busy machine that may be after the press. */
const pick = (page: Page, name: string): Promise<void> =>
  expect(async () => {
    const item = page.getByRole("menuitem", { name });
    if (await item.isVisible()) await item.click({ timeout: 1_000 });
    await expect(item).toBeHidden({ timeout: 1_500 });
  }).toPass({ timeout: 20_000 });

test("a rule is made of sentences, refused while it can’t work, published, and answers on air", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page));
  await page.goto(`${base}/prepare/rules`);
  await page.getByRole("button", { name: "another channel hosts" }).click();
  const card = page
    .getByRole("list", { name: "Rules" })
    .getByRole("listitem")
    .filter({ has: page.getByLabel("Name of the rule") });
  await expect(card.locator("[data-hint=rule]")).toContainText("It does nothing yet");
  await card.getByLabel("Name of the rule").fill("Hosted");
  await card.getByRole("button", { name: "Choose what happens" }).click();
  await pick(page, "say something in chat");
  // Variables are picked; one that is unknown is told, and is not saved.
  await card.getByLabel("Said in chat").fill("{months} thanks");
  await expect(card.getByText("“months” is no variable here.")).toBeVisible();
  await expect(page.getByText("Not saved yet.", { exact: true })).toBeVisible();
  await card.getByLabel("Said in chat").fill("Thank you, ");
  await card.getByRole("button", { name: "Put in: viewer", exact: true }).click();
  await expect(card.getByText("→ Thank you, mossy_teapot")).toBeVisible();
  await card.getByRole("button", { name: "And then" }).click();
  await pick(page, "show a picture or text");
  await card.getByLabel("Text shown").fill("{viewer} and {viewers, plural, one {# friend} other {# friends}}");
  await card.getByLabel("Picture", { exact: true }).selectOption({ label: "Harbour boat" });
  // A second tier, for the large ones.
  await card.getByRole("button", { name: /Something else for a larger/ }).click();
  await expect(card.getByText("For", { exact: true })).toHaveCount(2);
  await expect(page.getByTestId("save-state")).toContainText("Saved");
  await give({ kind: "host", as: "quietferry", amount: 3 });
  await expect(page.getByTestId("save-state")).toContainText("not published");
  expect((await rigLog()).map((l) => l.text)).not.toContain("Thank you, quietferry");

  await page.getByRole("button", { name: "Publish" }).click();
  await expect(page.getByText(/Published as version/)).toBeVisible();
  await give({ kind: "host", as: "quietferry", amount: 3 });
  await expect.poll(async () => (await rigLog()).map((l) => l.text)).toContain("Thank you, quietferry");
  await appears(overlay, "quietferry and 3 friends");
});

test("rules, and what happens in them, are put in another order by their grip and by keys", async ({ page }) => {
  await page.goto(`${base}/prepare/rules`);
  const rules = page.locator("[data-rule]");
  const order = (): Promise<string[]> => rules.evaluateAll((all) => all.map((one) => one.getAttribute("data-rule") ?? ""));
  const before = await order();
  const grips = page.getByRole("list", { name: "Rules" }).getByRole("button", { name: /^Move / });
  // By the pointer: the first is let go over the second.
  const from = (await grips.nth(0).boundingBox())!;
  const to = (await rules.nth(1).boundingBox())!;
  await page.mouse.move(from.x + 10, from.y + 10);
  await page.mouse.down();
  await page.mouse.move(from.x + 10, to.y + to.height / 2, { steps: 8 });
  await page.mouse.move(from.x + 10, to.y + to.height / 2 + 12, { steps: 3 });
  await page.mouse.up();
  await expect.poll(order).toEqual([before[1], before[0], ...before.slice(2)]);
  await expect(page.getByTestId("save-state")).toContainText("not published");
  // By keys: back to where it was; Escape leaves all as it is.
  await grips.nth(1).focus();
  await page.keyboard.press("Space");
  await page.waitForTimeout(300);
  await page.keyboard.press("ArrowUp");
  await page.waitForTimeout(300);
  await page.keyboard.press("Space");
  await expect.poll(order).toEqual(before);
  await grips.nth(1).focus();
  await page.keyboard.press("Space");
  await page.waitForTimeout(300);
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("Escape");
  await page.waitForTimeout(300);
  expect(await order()).toEqual(before);
});

test("what viewers write is shown as text, cleaned and covered, whatever they try", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page));
  await expect.poll(async () => (await facts(overlay)).live).toBeGreaterThanOrEqual(0);
  await give({ kind: "tip", as: "loamy", amount: 150, text: "<img src=x onerror=alert(1)> {viewer} crackpot http://x.invalid" });
  const shown = overlay.locator(".izzam-alert-text");
  await expect(shown).toHaveText("loamy tips 1.50 EUR <img src=x onerror=alert(1)> {viewer} •••••••• (link)");
  expect(await shown.locator("img").count()).toBe(0);
});

/** All that rules show stands so long: then what waits does not hang on how fast this machine is. */
async function shownFor(page: Page, ms: number): Promise<void> {
  const draft = (await ask(page, "POST", "/games/kiln-rules/draft")) as { value: { settings: unknown; revision: number } };
  const settings = JSON.parse(JSON.stringify(draft.value.settings), (key, value: unknown) =>
    key === "ms" && typeof value === "number" ? ms : value,
  ) as unknown;
  const saved = (await ask(page, "PUT", "/games/kiln-rules/draft", { revision: draft.value.revision, settings })) as {
    value: { revision: number };
  };
  expect(await ask(page, "POST", "/games/kiln-rules/publish", { revision: saved.value.revision })).toMatchObject({ ok: true });
}

test("queues: what waits its turn is shown, skipped and dropped", async ({ page, context }) => {
  await shownFor(page, 25_000);
  const overlay = await openOverlay(context, await copyLink(page));
  await page.goto(`${base}/prepare/rules`);
  for (const as of ["pale_oar", "gusset", "fogbank"]) await give({ kind: "follow", as });
  await expect(page.getByText(/2 waiting/)).toBeVisible();
  await expect(overlay.getByText("pale_oar follows")).toBeVisible();
  await page.getByRole("button", { name: "Skip" }).click();
  await expect(overlay.getByText("gusset follows")).toBeVisible();
  await expect(overlay.getByText("pale_oar follows")).toHaveCount(0);
  await page.getByRole("button", { name: "Drop what waits" }).click();
  await expect(page.getByText(/\d waiting/)).toHaveCount(0);
  await page.getByRole("button", { name: "Skip" }).click();
  await expect(overlay.getByText("gusset follows")).toHaveCount(0);
  await overlay.waitForTimeout(1_500);
  await expect(overlay.getByText("fogbank follows")).toHaveCount(0);
});

test("events that are refused are listed with the reason; the endpoint never gives way", async ({ page }) => {
  await page.goto(`${base}/prepare/connections`);
  const list = page.getByRole("list", { name: "Refused events" });
  expect((await giveRaw("{", "application/cloudevents+json")).status).toBe(400);
  expect(
    (
      await giveRaw(
        JSON.stringify({ specversion: "1.0", id: "1", source: "s", type: "app.izzam.dance.v1" }),
        "application/cloudevents+json",
      )
    ).status,
  ).toBe(422);
  expect((await giveRaw(`${"[".repeat(200)}`, "application/cloudevents-batch+json")).status).toBe(400);
  await expect(list).toContainText("its body is not JSON");
  await expect(list).toContainText("“app.izzam.dance.v1” is no type Izzam knows");
  await expect(list).toContainText("nested deeper than 24 levels");
  // Unsigned, by whoever knows the address.
  const unsigned = await fetch(`${base}/events/saltmarsh-kiln`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: "{}",
  });
  expect(unsigned.status).toBe(401);
  await expect(list).toContainText("it carries no signature");
  await expect(page.getByTestId("events-line")).toBeVisible();
  const schemas = (await (await fetch(`${base}/schemas`)).json()) as { schemas: string[] };
  expect(schemas.schemas).toHaveLength(16);
  expect((await fetch(`${base}${schemas.schemas[0]}`)).headers.get("content-type")).toBe("application/schema+json");
});
