import { readFileSync } from "node:fs";
import { expect, type Page } from "@playwright/test";
import sharp from "sharp";
import { ask, base, control, copyLink, facts, openOverlay, seen, signIn, test } from "./support";

test.beforeAll(() => control("/demo/reset"));

const fire = (page: Page, cue: string) => ask(page, "POST", `/cues/${cue}/fire`, { via: "click", id: `fire-${Math.random()}` });
const form = (page: Page, path: string, name: string, bytes: Buffer, type: string) =>
  page.request.post(`${base}/api${path}`, { headers: { origin: base }, multipart: { file: { name, mimeType: type, buffer: bytes } } });
/** The colour in the middle of a panel's free part, as the page shows it. */
async function pixel(page: Page, x: number, y: number): Promise<readonly number[]> {
  const { data, info } = await sharp(await page.screenshot({ omitBackground: true }))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const at = (Math.round(y * info.height) * info.width + Math.round(x * info.width)) * 4;
  return [...data.subarray(at, at + 4)];
}

test("an overlay is dressed in another look, with a colour, a font and captions of one's own; every game follows, and a page loaded anew", async ({
  page,
  context,
}) => {
  await signIn(page);
  const place = { x: 0.1, y: 0.1, width: 0.6, height: 0.5 };
  await ask(page, "PUT", "/overlays/main-stage/layout", { places: [{ game: "weekly-mug", place }], onAir: true });
  expect((await ask(page, "POST", "/games/weekly-mug/command", { command: { do: "open" }, id: "open-the-draw" })).ok).toBe(true);
  const overlay = await openOverlay(context, await copyLink(page, { boss: true }));
  await expect.poll(async () => (await seen(overlay)).drawn).toBeGreaterThan(50_000);
  // Under the title, left of the facts: nothing but panel.
  const ground = (): Promise<readonly number[]> => pixel(overlay, 0.45, 0.125);
  const dark = await ground();
  expect(dark[0]!).toBeLessThan(60);

  await page.goto(`${base}/prepare/overlays/main-stage`);
  await page.getByRole("radio", { name: /Porcelain/ }).focus();
  await page.keyboard.press("Space");
  await expect.poll(async () => (await ground())[0]).toBeGreaterThan(200);
  await page.getByTestId("dressing").locator("input[type=color]").first().fill("#3f6b63");
  await expect.poll(async () => (await ground())[1]).toBeLessThan(140);
  await page.getByRole("button", { name: "The look’s colours" }).click();
  await expect.poll(async () => (await ground())[0]).toBeGreaterThan(200);

  // A font of one's own; one that is none says so and changes nothing.
  const font = readFileSync(
    "node_modules/@fontsource-variable/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-wght-normal.woff2",
  );
  const choose = page.getByTestId("dressing").locator("input[type=file]");
  await choose.setInputFiles({ name: "mine.woff2", mimeType: "font/woff2", buffer: Buffer.from("<svg onload=alert(1)>".repeat(40)) });
  await expect(page.getByText("This is no WOFF2 font.")).toBeVisible();
  await choose.setInputFiles({ name: "Kiln marks.woff2", mimeType: "font/woff2", buffer: font });
  await expect(page.getByText("Letters of “Kiln marks” are on air.")).toBeVisible();
  await expect
    .poll(() => overlay.evaluate(() => [...document.fonts].some((f) => f.family.includes("Izzam Own") && f.status === "loaded")))
    .toBe(true);
  // Alerts too are written in it.
  expect(
    await overlay.evaluate(() => getComputedStyle(document.querySelector(".izzam-alerts")!).getPropertyValue("--izzam-family")),
  ).toContain("Izzam Own");

  // What is heard is written.
  await page.getByText("Captions: what is heard is written at the foot").click();
  // The page has to know of it before the bell rings: a bell that rang rests for a while.
  await expect.poll(async () => (await facts(overlay)) as unknown as { captions: boolean }).toMatchObject({ captions: true });
  await expect.poll(async () => (await fire(page, "bell")).ok).toBe(true);
  await expect(overlay.locator(".izzam-caption")).toHaveText("♪ Small bell");
  await expect(overlay.locator(".izzam-caption")).toHaveCount(0, { timeout: 8_000 });

  await overlay.reload();
  await expect.poll(async () => (await ground())[0], { timeout: 15_000 }).toBeGreaterThan(200);
});

test("a strobing GIF is dimmed on the picture while it flashes, the operator is told, and it comes back when it is calm", async ({
  page,
  context,
}) => {
  await signIn(page, "owner", "/prepare");
  await ask(page, "PUT", "/overlays/main-stage/layout", { places: [], onAir: true });
  const [w, h] = [320, 180];
  const frames = Buffer.concat([0, 255, 0, 255].map((v) => Buffer.alloc(w * h * 3, v)));
  const gif = await sharp(frames, { raw: { width: w, height: h * 4, channels: 3, pageHeight: h } as never })
    .gif({ delay: [60, 60, 60, 60], loop: 0 })
    .toBuffer();
  // The first guard slows it where it is added; what gets past that is what the second is for.
  const added = (await (await form(page, "/props", "strobe.gif", gif, "image/gif")).json()) as { ok: boolean; value: { id: string }[] };
  expect(added.ok).toBe(true);
  const all = (await (await page.request.get(`${base}/api/props`)).json()) as {
    value: { props: { id: string; url: string; facts: Record<string, number> }[] };
  };
  const strobe = all.value.props.find((p) => p.id === added.value[0]!.id)!;
  const link = await copyLink(page, { boss: true });

  const overlay = await context.newPage();
  await overlay.setViewportSize({ width: 1280, height: 720 });
  await overlay.routeWebSocket(/\/ws/, (ws) => {
    const server = ws.connectToServer();
    ws.onMessage((m) => server.send(m));
    server.onMessage((m) => {
      const said = JSON.parse(String(m)) as {
        type: string;
        stage?: { sprites: Record<string, unknown>[] };
        alert?: { look: Record<string, unknown>; ms: number };
      };
      for (const sprite of said.stage?.sprites ?? [])
        if (sprite["key"] === "prop:kiln-fire-sheet") {
          const own = said.stage!.sprites.find((s) => s["key"] === `prop:${strobe.id}`)!;
          Object.assign(sprite, { ...own, key: "prop:kiln-fire-sheet", frameMs: 60 });
        }
      if (said.alert !== undefined) {
        said.alert.look["size"] = 1;
        said.alert.look["y"] = 0.5;
        // On a machine that stands still for seconds it must still be flashing afterwards.
        said.alert.ms = 10_000;
      }
      ws.send(JSON.stringify(said));
    });
  });
  // Eight frames a second, as a busy computer draws: the picture goes on strobing between them.
  await overlay.goto(link.replace("#", "?frames=8#"));
  await expect.poll(async () => (await facts(overlay)).drawing, { timeout: 15_000 }).toBeTruthy();
  const opacity = (): Promise<number> => overlay.evaluate(() => Number(getComputedStyle(document.getElementById("stage")!).opacity));
  expect(await opacity()).toBe(1);
  await expect.poll(async () => (await fire(page, "kiln-door")).ok).toBe(true);
  await expect.poll(opacity, { timeout: 10_000 }).toBeLessThan(0.2);
  expect((await facts(overlay)) as unknown as { dimmed: boolean }).toMatchObject({ dimmed: true });
  await expect(page.locator("[data-health=bad]")).toContainText("Overlay pages needs a look", { timeout: 5_000 });
  // The alert has ended, and it was calm for a while.
  await expect.poll(opacity, { timeout: 25_000 }).toBe(1);
});

test("an alert comes and goes by the words that are set for it", async ({ page, context }) => {
  await signIn(page, "owner", "/prepare/cues");
  const door = page.locator("[data-cue=kiln-door]");
  await door.getByRole("button", { name: "Change" }).click();
  await door.getByLabel("Entrance").selectOption({ label: "drops and lands" });
  await door.getByLabel("Exit").selectOption({ label: "flies off" });
  await page.getByRole("button", { name: "Publish" }).click();
  await expect(page.getByText(/Published as version/)).toBeVisible();
  const overlay = await openOverlay(context, await copyLink(page));
  await expect.poll(async () => (await facts(overlay)).drawing, { timeout: 15_000 }).toBeTruthy();
  // Every motion that an alert goes through, as the page begins it.
  await overlay.evaluate(() => {
    const seen: string[] = [];
    Object.assign(window, { seenMotions: seen });
    document.addEventListener("animationstart", (e) => seen.push(e.animationName));
  });
  await expect.poll(async () => (await fire(page, "kiln-door")).ok).toBe(true);
  const motions = (): Promise<string[]> => overlay.evaluate(() => (window as unknown as { seenMotions: string[] }).seenMotions);
  await expect.poll(motions, { timeout: 10_000 }).toEqual(["izzam-in-drop", "izzam-out-fly"]);
  await expect(overlay.locator(".izzam-alert")).toHaveCount(0);
});
