import { expect, type Page } from "@playwright/test";
import { ask, base, control, copyLink, facts, focusGame, give, noneSerious, openOverlay, practice, signIn, test } from "./support";

test.beforeEach(async () => {
  await control("/demo/reset");
  await studio({ manner: "good", scenes: ["Throwing", "Hands", "Kiln door", "Glaze bench", "Tea break", "Shelf"], show: "Throwing" });
});
test.afterEach(() => studio({ manner: "good" }));

type Rig = Readonly<{ current: string | null; connected: number; asked: number }>;
const studio = async (body: object): Promise<void> => {
  await fetch(`${practice}/studio`, { method: "POST", body: JSON.stringify(body) });
};
const rig = async (): Promise<Rig> => ((await (await fetch(`${practice}/state`)).json()) as { studio: Rig }).studio;
const command = async (page: Page, game: string, given: object): Promise<void> => {
  const done = await ask(page, "POST", `/games/${game}/command`, { command: given, id: `command-${Date.now()}-${Math.random()}` });
  expect(done.ok).toBe(true);
};

test("a raid goes to a scene and back; somebody who moves on by hand is not pulled back; the booth and a cue go anywhere", async ({
  page,
}) => {
  await signIn(page);
  await focusGame(page, "kiln-scenes", "studio-booth");
  await expect(page.getByTestId("studio-booth")).toContainText("On: Throwing", { timeout: 20_000 });
  await command(page, "show", { do: "show", what: "on-air" });

  await give({ kind: "raid", as: "oatcake_ada", amount: 12 });
  await expect.poll(async () => (await rig()).current).toBe("Shelf");
  await expect(page.getByTestId("studio-booth")).toContainText(/Back to Throwing in 0:\d\d/);
  await page.getByRole("button", { name: /^Back now/ }).click();
  await expect.poll(async () => (await rig()).current).toBe("Throwing");

  // By hand in the studio itself, in the middle of a hold: nothing goes back.
  await give({ kind: "raid", as: "oatcake_ada", amount: 12 });
  await expect.poll(async () => (await rig()).current).toBe("Shelf");
  await studio({ show: "Tea break" });
  await expect(page.getByTestId("studio-booth")).toContainText("On: Tea break");
  await expect(page.getByTestId("studio-booth")).not.toContainText("Back to");

  await page.getByRole("button", { name: "Hands", exact: true }).click();
  await expect.poll(async () => (await rig()).current).toBe("Hands");
  await page.locator("[data-cue=look-in]").click();
  await expect.poll(async () => (await rig()).current).toBe("Kiln door");
  await expect.poll(async () => (await rig()).current, { timeout: 20_000 }).toBe("Hands");
  await noneSerious(page);
});

test("a studio that is gone, or refuses, is said so, and nothing is done late; it is found again by itself", async ({ page }) => {
  await signIn(page);
  await focusGame(page, "kiln-scenes", "studio-booth");
  await expect(page.getByTestId("studio-booth")).toContainText("On: Throwing", { timeout: 20_000 });
  await studio({ manner: "refuses" });
  await page.getByRole("button", { name: "Hands", exact: true }).click();
  await expect(page.getByTestId("studio-booth")).toContainText("It would not go to Hands");
  await expect(page.getByTitle("the studio would not go to “Hands”").first()).toBeVisible();
  expect((await rig()).current).toBe("Throwing");
  await studio({ manner: "vanished" });
  await expect(page.getByTestId("studio-booth")).toContainText("The studio does not answer.", { timeout: 20_000 });
  await page.locator("[data-cue=look-in]").click();
  await expect(page.getByTitle("the studio does not answer: the scene stays as it is").first()).toBeVisible();
  const { asked } = await rig();
  await studio({ manner: "good" });
  await expect(page.getByTestId("studio-booth")).toContainText("On: Throwing", { timeout: 40_000 });
  expect((await rig()).asked).toBe(asked);
});

test("a scene is picked where it is set up, and a game is shown only in the scenes that are chosen for it", async ({ page, context }) => {
  await signIn(page);
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await page.goto(`${base}/prepare/games/kiln-scenes`);
  await expect(page.getByLabel("Scene: A tip")).toHaveValue("Kiln door");
  await page.getByLabel("Scene: A follow").selectOption("Glaze bench");
  await expect(page.getByText("to “Glaze bench” for")).toBeVisible();
  await noneSerious(page);
  await page.getByRole("button", { name: /^Publish/ }).click();
  await expect(page.getByText("all published")).toBeVisible();
  await give({ kind: "follow", as: "quietferry" });
  await expect.poll(async () => (await rig()).current).toBe("Glaze bench");
  await studio({ show: "Throwing" });

  await page.goto(`${base}/prepare/overlays/main-stage`);
  await page.locator("[data-place=old-spall]").click();
  await page.getByRole("group", { name: "In which scenes Old Spall is shown" }).getByText("Kiln door").click();
  await expect.poll(async () => "old-spall" in (await facts(overlay)).lives).toBe(false);
  await studio({ show: "Kiln door" });
  await expect.poll(async () => "old-spall" in (await facts(overlay)).lives).toBe(true);
  await studio({ show: "Throwing" });
  await expect.poll(async () => "old-spall" in (await facts(overlay)).lives).toBe(false);
});
