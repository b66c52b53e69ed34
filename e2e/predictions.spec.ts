import { expect, type Page } from "@playwright/test";
import { base, chatConnected, control, copyLink, facts, focusGame, openOverlay, heard, say, signIn, test, viewerPage } from "./support";

test.beforeEach(() => control("/demo/reset"));

type Jars = Readonly<{ title: string; result: number | null; jars: readonly number[]; live: boolean; over: string }>;
const jars = async (overlay: Page): Promise<Jars | null> => (await facts(overlay)).shown["kiln-prediction"] as unknown as Jars | null;
test("asked from nothing in the booth, backed in chat and on the viewer page, decided, taken back, and decided right", async ({
  page,
  context,
  browser,
}) => {
  test.setTimeout(180_000);
  await signIn(page);
  await chatConnected(page);
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  const viewer = await viewerPage(browser, "quietferry");
  const sum = async (): Promise<number> => Number(((await viewer.locator(".sum").textContent()) ?? "").replaceAll(",", ""));
  const before = await sum();
  await focusGame(page, "kiln-prediction", "prediction-booth");
  // By keys alone: the question, its outcomes, and it is open.
  await page.getByRole("button", { name: "Ask something else…" }).press("Enter");
  await expect(page.getByLabel("The question")).toBeFocused();
  await page.keyboard.type("Does the spout pour?");
  await page.keyboard.press("Tab");
  await page.keyboard.type("It pours, It drips");
  await page.keyboard.press("Enter");
  await expect.poll(async () => (await jars(overlay))?.title).toBe("Does the spout pour?");
  await expect(page.getByTestId("prediction-booth")).toContainText("Open, locks in");
  await say("!back it pours 120", "mossy_teapot");
  await say("!back B half", "oatcake_ada");
  await expect.poll(async () => (await jars(overlay))?.jars).toEqual([9, 91]);
  await viewer.getByLabel("Which").selectOption("A");
  await viewer.getByLabel("How much").fill("80");
  await viewer.getByRole("button", { name: "Stake it" }).click();
  await expect(viewer.getByRole("status")).toHaveText("80 on A It pours.");
  await expect.poll(sum).toBe(before - 80);
  await viewer.getByLabel("How much more").fill("1.5");
  await viewer.getByRole("button", { name: "Add it" }).click();
  await expect(viewer.getByRole("status")).toContainText("Say how much, a whole number from 1");

  await page.keyboard.press("l");
  await expect(page.getByTestId("prediction-booth")).toContainText("Locked. Say what came.");
  await say("!back A 10", "loamy");
  await expect.poll(heard).toContainEqual(expect.stringMatching(/^@loamy it was locked \d+ s before your message$/));
  // A slip: B. What was paid is taken back, and the right one is told.
  const say2 = async (choice: string): Promise<void> => {
    const button = page.locator(`[data-choice="result.${choice}"]`);
    await button.press("Enter");
    await expect(button).toContainText("Yes, ");
    await button.press("Enter");
  };
  await say2("1");
  await expect(page.getByTestId("prediction-booth")).toContainText("B It drips it was.");
  await expect.poll(async () => (await jars(overlay))?.result).toBe(1);
  expect(await sum()).toBe(before - 80);
  const undo = page.getByRole("button", { name: "Take the result back" });
  await undo.press("Enter");
  await page.getByRole("button", { name: "Yes, take the result back" }).press("Enter");
  await expect(page.getByTestId("prediction-booth")).toContainText("Locked. Say what came.");
  await say2("0");
  await expect(page.getByTestId("prediction-booth")).toContainText("A It pours it was.");
  // 80 of 200 backed it, of a pot of 1,355: 542.
  await expect.poll(sum).toBe(before - 80 + 542);
  await expect(viewer.getByText("You were right.")).toBeVisible();
  await page.goto(`${base}/review/rounds`);
  await expect(page.getByRole("row").nth(1)).toContainText("A It pours; 2 viewers shared 1,355");
  await expect(page.getByRole("row").nth(2)).toContainText("It drips was taken back");
});

test("by chat alone: a moderator opens a template by its first words, locks it and says what came", async ({ page, context }) => {
  await signIn(page);
  await chatConnected(page);
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await say("!predict does the lid", "mossy_teapot");
  await say("!predict does the lid", "spongebearer");
  await expect.poll(async () => (await jars(overlay))?.title).toBe("Does the lid fit?");
  await say("!back never 50", "mossy_teapot");
  await say("!back A 30", "quietferry");
  await expect.poll(async () => (await jars(overlay))?.jars).toEqual([38, 0, 62]);
  await say("!close", "spongebearer");
  await expect.poll(heard).toContainEqual(expect.stringMatching(/^Does the lid fit\? is closed: A 30 \(pays 2\.66\)/));
  await say("!result never", "spongebearer");
  await expect.poll(heard).toContainEqual("Does the lid fit? C Never. 1 viewer shares 80 clay.");
  await expect.poll(async () => (await jars(overlay))?.result).toBe(2);
});

test("from the phone alone: a draw and a prediction, from opening to the end", async ({ page, browser, context }) => {
  test.setTimeout(180_000);
  await signIn(page);
  await chatConnected(page);
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await page.goto(`${base}/run`);
  await page.getByRole("button", { name: "Phone remote" }).click();
  await page.getByRole("button", { name: "Pair a phone" }).click();
  const code = (await page.getByTestId("pairing-code").innerText()).replace(/\s/g, "");
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })).newPage();
  await phone.goto(`${base}/remote`);
  await phone.getByLabel("Code").fill(code);
  await phone.getByRole("button", { name: "Pair", exact: true }).click();
  const of = (name: string) => phone.locator("section", { has: phone.getByRole("heading", { name, exact: true }) });
  const tap = (name: string, button: string | RegExp) => of(name).getByRole("button", { name: button, exact: true }).tap();
  await tap("The kiln’s questions", "Open");
  await expect(of("The kiln’s questions")).toContainText("is open");
  await say("!back C 40", "mossy_teapot");
  await expect.poll(async () => (await jars(overlay))?.jars).toEqual([0, 0, 100]);
  await tap("The kiln’s questions", "Lock");
  await tap("The kiln’s questions", "C: Breaks in half");
  await tap("The kiln’s questions", "Yes, c: Breaks in half");
  await expect.poll(async () => (await jars(overlay))?.over).toBe("result");
  await expect(of("The kiln’s questions")).toContainText("came to Breaks in half");

  await tap("The weekly mug", "Open");
  await expect(of("The weekly mug")).toContainText("is open");
  await say("!mug", "loamy");
  await expect(of("The weekly mug")).toContainText("is open: 1 viewer in");
  await tap("The weekly mug", "Lock");
  await expect(of("The weekly mug")).toContainText("the drum is being shaken");
  for (const who of ["mossy_teapot", "quietferry", "tin_lantern", "oatcake_ada", "eelgrass"]) await say("shake", who);
  await expect(of("The weekly mug").getByRole("button", { name: "Draw", exact: true })).toBeVisible();
  await tap("The weekly mug", "Draw");
  await expect(phone.getByText("loamy won The mug and is to answer in chat")).toBeVisible();
  await phone.getByRole("button", { name: "Claimed" }).tap();
  await tap("The weekly mug", "Close");
  await expect(of("The weekly mug")).toContainText("waits to be opened");
});
