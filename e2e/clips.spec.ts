import { expect, type Page } from "@playwright/test";
import {
  base,
  control,
  copyLink,
  facts,
  focusGame,
  give,
  heard,
  noneSerious,
  openOverlay,
  practice,
  say,
  signIn,
  test,
  viewerPage,
} from "./support";
import sharp from "sharp";
import { film, films } from "../src/server/testing/films";

test.beforeEach(() => control("/demo/reset"));

const at = (name: string): string => `http://127.0.0.1:${new URL(practice).port}/shelf/${name}`;
const booth = (page: Page) => page.getByTestId("clips-booth");
const waits = (page: Page) => booth(page).getByLabel("Clips that wait").locator("li");
/** What is seen where the film lies, as a few numbers: it lies under the canvas that the curtain is drawn on. */
async function pixels(page: Page): Promise<number[]> {
  const box = await page.locator("video").boundingBox();
  if (box === null) return [];
  const { x, y, width, height } = box;
  const clip = { x: x + width * 0.2, y: y + height * 0.15, width: width * 0.6, height: height * 0.6 };
  return [
    ...(await sharp(await page.screenshot({ clip }))
      .resize(24, 14, { fit: "fill" })
      .raw()
      .toBuffer()),
  ];
}
const differ = (a: readonly number[], b: readonly number[]): boolean => a.length > 0 && a.some((v, i) => Math.abs(v - (b[i] ?? 0)) > 24);
const shown = async (page: Page): Promise<{ n: number; shown: boolean; plays: boolean } | null> =>
  (await facts(page)).shown["kiln-clips"] as unknown as { n: number; shown: boolean; plays: boolean } | null;

test("twelve seconds from 0:07: judged by its stills, let through, hidden, shown, skipped and given back; the film moves and is heard", async ({
  page,
  context,
  browser,
}) => {
  test.setTimeout(180_000);
  await signIn(page);
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await expect.poll(async () => (await facts(overlay)).voice, { timeout: 20_000 }).toBe(true);
  await focusGame(page, "kiln-clips", "clips-booth");
  const phone = await viewerPage(browser, "mossy_teapot");
  await expect(phone.getByText("Show a clip")).toBeVisible();
  const before = (await phone.locator(".you .sum").textContent()) ?? "";
  await phone.getByLabel("Where the film is").fill(at("sail.webm"));
  await phone.getByLabel("From", { exact: true }).fill("0:07");
  await phone.getByLabel("Seconds").fill("12");
  await phone.getByLabel("What it is").fill("my first sail");
  await phone.getByRole("button", { name: "Send it" }).click();
  await expect(phone.getByText(/is taken and looked at: 12 seconds, for 480/)).toBeVisible();
  await expect(phone.locator(".you .sum")).not.toHaveText(before);

  await expect(waits(page)).toHaveCount(1);
  await expect(waits(page).first()).toContainText("waits for a yes, for 480", { timeout: 60_000 });
  await expect(waits(page).getByRole("img", { name: "Stills of the clip of mossy_teapot" })).toBeVisible();
  await expect(page.locator("[data-decision='game.clip.41']")).toContainText("Let this clip play? “my first sail”, 12 s");
  await noneSerious(page);
  expect(await shown(overlay)).toBeNull();
  await waits(page).getByRole("button", { name: "Let the clip of mossy_teapot play" }).click();
  await expect.poll(async () => (await shown(overlay))?.plays, { timeout: 15_000 }).toBe(true);
  const first = await pixels(overlay);
  await expect.poll(async () => differ(await pixels(overlay), first)).toBe(true);
  await expect.poll(async () => (await facts(overlay)).level, { intervals: [100] }).toBeGreaterThan(0.005);

  await page.getByRole("button", { name: "Close the curtain" }).click();
  await expect.poll(async () => (await shown(overlay))?.shown).toBe(false);
  await expect.poll(async () => (await facts(overlay)).level, { intervals: [100] }).toBeLessThan(0.003);
  await page.getByRole("button", { name: "Open the curtain" }).click();
  await expect.poll(async () => (await facts(overlay)).level, { intervals: [100] }).toBeGreaterThan(0.005);
  await page.getByTestId("focus").getByRole("button", { name: /^Skip/ }).click();
  await expect(booth(page)).toContainText("No clip plays.");
  await expect.poll(async () => (await facts(overlay)).level, { intervals: [100] }).toBeLessThan(0.003);
  // Nothing plays on behind the picture.
  await expect(overlay.locator("video")).toHaveCount(0);
  // All of it is back: it was an operator's hand that ended it.
  await expect(phone.locator(".you .sum")).toHaveText(before);
  await expect(page.locator("[data-chip='clips/skipped']").first()).toBeVisible();

  await booth(page).getByText("Played lately").click();
  await booth(page).getByRole("button", { name: "Play the clip of mossy_teapot once more" }).click();
  await expect.poll(async () => (await shown(overlay))?.plays, { timeout: 15_000 }).toBe(true);
  await booth(page).getByRole("button", { name: "Never show again the film of mossy_teapot that plays" }).click();
  await expect(booth(page)).toContainText("No clip plays.");
  await expect(overlay.locator("video")).toHaveCount(0);
  await booth(page).getByRole("button", { name: "Play the clip of mossy_teapot once more" }).first().click();
  await expect(page.getByText("this film is not shown here", { exact: false }).first()).toBeVisible();
  await phone.context().close();
});

test("what flashes, is no film, or leads inwards is refused with its reason, and nothing is paid; who is barred sends none", async ({
  page,
}) => {
  test.setTimeout(180_000);
  await signIn(page);
  await focusGame(page, "kiln-clips", "clips-booth");
  await say(`!clip ${at("lightning.mp4")} 5s`, "mossy_teapot");
  // Who has no clay tips for it.
  const tip = (as: string, text: string): Promise<void> => give({ kind: "tip", as, amount: 200, currency: "EUR", text: `!clip ${text}` });
  await tip("tidewrack", at("page.mp4"));
  await say(`!clip ${at("inwards")} 5s`, "quietferry");
  await tip("plumbline", "http://169.254.1.1/x.mp4");
  await say(`!clip ${at("voyage.mp4")} 40:00 5s`, "oatcake_ada");
  const said = async (text: string | RegExp): Promise<boolean> =>
    (await heard()).some((t) => (typeof text === "string" ? t.includes(text) : text.test(t)));
  await expect.poll(() => said("@mossy_teapot it flashes too fast"), { timeout: 60_000 }).toBe(true);
  await expect.poll(() => said("@tidewrack there is no film at this address"), { timeout: 60_000 }).toBe(true);
  await expect.poll(() => said("@quietferry this address leads into the channel’s own network"), { timeout: 60_000 }).toBe(true);
  await expect.poll(() => said("@plumbline this address leads into the channel’s own network"), { timeout: 60_000 }).toBe(true);
  await expect.poll(() => said(/@oatcake_ada the film (is longer|ends after)/), { timeout: 60_000 }).toBe(true);
  await expect(booth(page).getByLabel("Clips that wait")).toHaveCount(0);

  await tip("kelpforest", `${at("tide.webm")} the tide`);
  await expect(waits(page).first()).toContainText("waits for a yes", { timeout: 60_000 });
  await waits(page).getByRole("button", { name: "Never show the film of kelpforest" }).click();
  await expect(booth(page).getByLabel("Clips that wait")).toHaveCount(0);
  await tip("sundaykiln", `${at("tide.webm")} 0:01 again`);
  await expect.poll(() => said("@sundaykiln this film is not shown here"), { timeout: 60_000 }).toBe(true);
  await page.goto(`${base}/prepare/games/kiln-clips`);
  await page.getByRole("tab", { name: "What happened" }).click();
  await expect(page.getByRole("list", { name: "Clips that played" }).getByRole("listitem")).toHaveCount(21);
  await page.getByRole("button", { name: "Take the film the tide again" }).click();
  await expect(page.getByText("The film “the tide”")).toHaveCount(0);
});

test("a tip buys seconds and what is not shown is owed; a film from one’s own phone; it goes on after the maker and the engine were killed", async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000);
  await signIn(page);
  await focusGame(page, "kiln-clips", "clips-booth");
  await give({
    kind: "tip",
    as: "raku_rita",
    amount: 310,
    currency: "EUR",
    text: `for the kiln !clip ${at("throwing.webm")} 0:04 it grows`,
  });
  await expect(waits(page).first()).toContainText("3.00 EUR", { timeout: 20_000 });
  await control("/demo/kill/media");
  await control("/demo/kill/engine");
  await control("/demo/revive/engine");
  await control("/demo/revive/media");
  await expect(waits(page).first()).toContainText("waits for a yes", { timeout: 90_000 });
  await waits(page).getByRole("button", { name: "Leave the clip of raku_rita out" }).click();
  const owed = page.locator("[data-decision^='game.owed']");
  await expect(owed).toContainText("3.00 EUR is owed back: it was left out");
  await owed.getByRole("button", { name: "Paid back" }).click();
  await expect(owed).toHaveCount(0);

  const phone = await viewerPage(browser, "mossy_teapot");
  await phone
    .getByLabel("or a film from this phone")
    .setInputFiles({ name: "mine.mp4", mimeType: "video/mp4", buffer: film(films.plain(6)) });
  await phone.getByLabel("Seconds").fill("6");
  await phone.getByRole("button", { name: "Send it" }).click();
  await expect(phone.getByText(/is taken and looked at: 6 seconds/)).toBeVisible({ timeout: 20_000 });
  await expect(waits(page).first()).toContainText("waits for a yes", { timeout: 60_000 });
  await phone.getByRole("button", { name: "Take it back" }).click();
  await expect(booth(page).getByLabel("Clips that wait")).toHaveCount(0);
  await phone.context().close();
});
