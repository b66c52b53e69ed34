import { expect } from "@playwright/test";
import { control, say, signIn, test } from "./support";

test.beforeAll(() => control("/demo/reset"));

test("one search over every action, and the phases by their keys", async ({ page }) => {
  await signIn(page, "owner", "/prepare");
  await page.keyboard.press("4");
  await expect(page).toHaveURL(/review/);
  await page.keyboard.press("1");
  await expect(page).toHaveURL(/prepare/);
  await page.keyboard.press("Control+k");
  const find = page.getByPlaceholder(/^Find a place/);
  await find.fill("kiln sparks");
  await expect(page.getByRole("option", { name: /^Kiln sparks/ })).toHaveAttribute("data-selected", "true");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Name of the game")).toHaveValue("Kiln sparks");
  await page.keyboard.press("Control+k");
  await find.fill("zzzz");
  await expect(page.getByText("Nothing is called that here.")).toBeVisible();
  // What silences is never the first for a word that is not its own.
  for (const [word, first] of [
    ["overlays", "Overlays"],
    ["rewards", "Rewards"],
    ["phone", "Pair a phone"],
    ["mute", "People"],
    ["kiln roar", "Kiln roar"],
    ["kiln door", "Kiln door"],
  ] as const) {
    await find.fill(word);
    await expect(page.locator("[cmdk-item]").first()).toContainText(first);
  }
  await find.fill("quietferry");
  await page.getByRole("option", { name: "quietferry" }).click();
  await expect(page).toHaveURL(/review\/people/);
  await expect(page.getByRole("heading", { name: "quietferry" })).toBeVisible();
  await expect(page.getByText("Hushed:")).toHaveCount(0);
});

test("a single key is given to another action, or to none, and stays so", async ({ page }) => {
  await signIn(page, "owner", "/prepare/games/emote-wall");
  await expect(page.getByRole("button", { name: /^One emote/ })).toContainText("Q");
  await page.getByRole("heading", { name: "Try it" }).click();
  await page.keyboard.press("Shift+?");
  await page.getByRole("button", { name: "Change the key for: Try: one emote" }).click();
  // One that is taken says by whom first.
  await page.keyboard.press("w");
  await expect(page.getByText("W is “Try: one message with many”")).toBeVisible();
  await page.keyboard.press("z");
  await page.getByRole("button", { name: "No key for: Try: a storm" }).click();
  await page.getByRole("button", { name: "Close" }).click();
  await page.reload();
  await expect(page.getByRole("button", { name: /^One emote/ })).toContainText("Z");
  await page.getByRole("heading", { name: "Try it" }).click();
  await page.keyboard.press("z");
  await expect(page.getByTestId("trial-report")).toContainText("1 emote shown");
  await page.keyboard.press("r");
  await expect(page.getByTestId("trial-report")).not.toContainText("storm");
  // Typing is never a command.
  await page.getByLabel("A message to try").fill("z");
  await page.getByLabel("A message to try").press(".");
  await expect(page.getByText("Hushed:")).toHaveCount(0);
});

test("by keys alone: over the bar, from part to part, and through the talk to a viewer’s card", async ({ page }) => {
  await signIn(page, "owner", "/run");
  await page.getByTestId("boss-health").waitFor();
  await page.keyboard.press("Tab");
  await expect(page.getByRole("link", { name: "Skip to the screen" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("main")).toBeFocused();
  for (const as of ["quietferry", "pale_oar"]) await say("good evening", as);
  const talk = page.getByTestId("talk");
  await expect(talk.getByRole("button", { name: "pale_oar" })).toBeVisible();
  // Part by part, backwards: the bar, and then the last of the screen, which is the talk; and forwards again.
  await page.keyboard.press("Shift+F6");
  await expect(page.locator("header:focus-within")).toHaveCount(1);
  await page.keyboard.press("Shift+F6");
  await expect(page.locator("[data-region]:focus-within").last()).toHaveText(/^Talk/);
  await page.keyboard.press("F6");
  await expect(page.locator("header:focus-within")).toHaveCount(1);
  await talk.focus();
  await page.keyboard.press("ArrowUp");
  await expect(talk.getByRole("button", { name: "pale_oar" })).toBeFocused();
  await page.keyboard.press("ArrowUp");
  await expect(talk.getByRole("button", { name: "quietferry" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog", { name: /quietferry/ })).toBeVisible();
  await page.keyboard.press("Escape");
  // The cues are one stop, and arrows move among them.
  const cues = page.getByRole("group", { name: "Cues" });
  await cues.getByRole("button").first().focus();
  await page.keyboard.press("ArrowRight");
  await expect(cues.getByRole("button").nth(1)).toBeFocused();
  await page.keyboard.press("Home");
  await expect(cues.getByRole("button").first()).toBeFocused();
});

test("Night or Paper is chosen with one key, and stays", async ({ page }) => {
  await signIn(page, "owner", "/prepare");
  await page.keyboard.press("n");
  await expect(page.locator("html")).toHaveClass(/dark/);
  await page.reload();
  await expect(page.locator("html")).toHaveClass(/dark/);
});
