import { expect, type Page } from "@playwright/test";
import { zipSync } from "fflate";
import { ask, base, chatConnected, control, copyLink, focusGame, give, noneSerious, openOverlay, say, seen, signIn, test } from "./support";

test.beforeEach(() => control("/demo/reset"));

type Grog = Readonly<{ name: string; state: string; bubble: string; mood: number; spot: number }>;
/** A page that was opened just now may not have been told of it yet. */
const grog = (page: Page): Promise<Grog> =>
  page.evaluate(async () => {
    const now = (): Grog | undefined =>
      (window as unknown as { izzamFacts: () => { shown: Record<string, Grog | undefined> } }).izzamFacts().shown["kiln-cat"];
    for (let n = 0; n < 100 && now() === undefined; n += 1) await new Promise((resolve) => setTimeout(resolve, 50));
    return now()!;
  });
const onAir = async (page: Page): Promise<void> => {
  const done = await ask(page, "POST", "/games/show/command", { command: { do: "show", what: "on-air" }, id: `command-${Date.now()}` });
  expect(done.ok).toBe(true);
};
const drawing = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" width="100" height="100">
  <g id="body"><rect x="25" y="40" width="50" height="55" rx="12" fill="#c05"/></g>
  <g id="head"><circle cx="50" cy="30" r="22" fill="#0c5"/><circle id="eyes" cx="50" cy="28" r="6" fill="#fff"/></g>
</svg>`;
const figure = (manifest: object): Buffer =>
  Buffer.from(zipSync({ "figure.json": Buffer.from(JSON.stringify(manifest)), "hare.svg": Buffer.from(drawing) }));

test("a kiln cat greets who comes, answers words, cheers, sleeps, eats and dances; in chat, in the booth, from a cue", async ({
  page,
  context,
}) => {
  await signIn(page);
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await page.goto(`${base}/prepare`);
  await chatConnected(page);
  await page.goto(`${base}/run`);
  await onAir(page);

  await say("good evening", "seaglass_sia");
  await expect.poll(async () => (await grog(overlay)).bubble).toContain("seaglass_sia");
  await expect.poll(async () => (await grog(overlay)).state).toMatch(/^(greet|speak)$/);
  await expect.poll(async () => (await seen(overlay)).drawn).toBeGreaterThan(20_000);
  await expect(page.getByTestId("talk").locator("[data-chip='companion/greets']").first()).toBeVisible();
  await expect.poll(async () => (await grog(overlay)).bubble, { timeout: 10_000 }).toBe("");

  // A word, with what it says; the same again rests; a word that is for others is not answered.
  await say("!grog", "seaglass_sia");
  await expect.poll(async () => (await grog(overlay)).bubble).toMatch(/^I am at \d+ of 100, seaglass_sia$/);
  await say("!grog", "seaglass_sia");
  await expect(page.getByTestId("talk").locator("[data-chip='companion/rests']").first()).toBeVisible();
  await say("!nap", "seaglass_sia");
  await expect(page.getByTestId("talk").locator("[data-chip='companion/role']").first()).toBeVisible();
  await expect.poll(async () => (await grog(overlay)).bubble, { timeout: 10_000 }).toBe("");
  await give({ kind: "tip", as: "oatcake_ada", amount: 500, currency: "EUR", text: "" });
  await expect.poll(async () => (await grog(overlay)).state).toBe("cheer");

  // Asleep by a moderator's word, awake with the next message.
  await say("!nap", "spongebearer");
  await expect.poll(async () => (await grog(overlay)).state, { timeout: 10_000 }).toBe("sleep");
  await say("is it asleep?", "seaglass_sia");
  await expect.poll(async () => (await grog(overlay)).state).not.toBe("sleep");

  // Fed in the booth: its mood rises for all to see.
  await focusGame(page, "kiln-cat", "companion-booth");
  const before = (await grog(overlay)).mood;
  await page.getByRole("button", { name: /^Feed/ }).first().click();
  await page.keyboard.press("Enter");
  await expect.poll(async () => (await grog(overlay)).mood).toBeGreaterThan(before);
  await expect.poll(async () => (await grog(overlay)).state).toBe("eat");
  await expect(page.getByTestId("companion-booth")).toContainText(/Mood \d+ of 100/);

  // While a cue is on it dances; when it is off, no more, once the tune has ended.
  await page.locator("[data-cue=bench-tune]").click();
  await expect.poll(async () => (await grog(overlay)).state, { timeout: 10_000 }).toBe("dance");
  await expect(page.getByTestId("companion-booth")).toContainText("dances until you end it");
  await page.locator("[data-cue=bench-tune]").click();
  await expect.poll(async () => (await grog(overlay)).state, { timeout: 25_000 }).not.toBe("dance");
});

test("a figure of one's own comes as a ZIP, is chosen, goes on air, and is missed when it was removed; a bad one says why", async ({
  page,
  context,
}) => {
  await signIn(page, "owner", "/prepare/props");
  const send = (manifest: object) =>
    page.getByLabel("Files to add").setInputFiles({ name: "hare.zip", mimeType: "application/zip", buffer: figure(manifest) });
  const head = { format: "izzam-figure-1", name: "Kiln hare", drawing: "hare.svg" };
  await send({ ...head, parts: { tail: {} } });
  await expect(page.getByText("names the part “tail”, and no group of the drawing bears this id")).toBeVisible();
  await send({ ...head, parts: { body: {}, head: { turnsAt: [0.5, 0.5] } } });
  await expect(page.locator("[data-prop='Kiln hare']")).toBeVisible();

  await page.goto(`${base}/prepare/games/kiln-cat`);
  await page.getByRole("tab", { name: "Appearance" }).click();
  await page.getByRole("button", { name: "Kiln hare" }).click();
  await expect(page.getByRole("button", { name: "Kiln hare" })).toHaveAttribute("aria-pressed", "true");
  await noneSerious(page);
  await page.getByRole("tab", { name: "Rules" }).click();
  await page.getByRole("button", { name: "Add a word" }).click();
  await expect(page.getByLabel("Word 5")).toBeVisible();
  await page.getByLabel("Word 5").fill("!pet");
  await page.getByLabel("Word 5").blur();
  await expect(page.getByText("Two answers have the same word, “!pet”. It stays as it was.")).toBeVisible();
  await noneSerious(page);
  await page.getByRole("button", { name: /^Publish/ }).click();
  await expect(page.getByText("all published")).toBeVisible();
  await page.goto(`${base}/prepare`);
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await expect.poll(async () => (await grog(overlay)).name).toBe("Grog");
  // Its own colours are on the picture.
  const green = (): Promise<number> =>
    overlay.evaluate(() => {
      let found = 0;
      for (const canvas of document.querySelectorAll("canvas")) {
        const data = canvas.getContext("2d")?.getImageData(0, 0, canvas.width, canvas.height).data ?? [];
        for (let i = 0; i < data.length; i += 4)
          if (data[i]! < 20 && data[i + 1]! > 180 && data[i + 2]! < 110 && data[i + 3]! > 200) found += 1;
      }
      return found;
    });
  await expect.poll(green).toBeGreaterThan(500);

  await page.goto(`${base}/prepare/props`);
  await page.getByRole("button", { name: "Change Kiln hare" }).click();
  await page.getByTestId("prop-detail").getByRole("button", { name: "Remove" }).click();
  await expect.poll(green).toBe(0);
  await page.goto(`${base}/prepare/games/kiln-cat`);
  await page.getByRole("tab", { name: "Appearance" }).click();
  await expect(page.getByText("Its figure was removed from the props")).toBeVisible();
});
