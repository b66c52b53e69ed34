import { expect, type Page } from "@playwright/test";
import { film, films } from "../src/server/testing/films";
import { ask, base, control, copyLink, facts, noneSerious, openOverlay, signIn, test, usualPicture } from "./support";

test.beforeEach(() => control("/demo/reset"));

const file = (name: string, buffer: Buffer) => ({ name, mimeType: "application/octet-stream", buffer });
const idOf = async (page: Page, name: string): Promise<string> => {
  const said = (await ask(page, "GET", "/props")) as { value: { props: { id: string; name: string }[] } };
  return said.value.props.find((p) => p.name === name)?.id ?? "";
};
/** A cue that is there shows this instead. */
async function cueShows(page: Page, cue: string, effects: readonly unknown[]): Promise<void> {
  const draft = (await ask(page, "POST", "/games/kiln-cues/draft")) as {
    value: { revision: number; settings: { cues: { id: string }[] } };
  };
  const settings = { ...draft.value.settings, cues: draft.value.settings.cues.map((c) => (c.id === cue ? { ...c, effects } : c)) };
  const saved = (await ask(page, "PUT", "/games/kiln-cues/draft", { revision: draft.value.revision, settings })) as {
    ok: boolean;
    value: { revision: number };
  };
  expect(saved.ok).toBe(true);
  expect((await ask(page, "POST", "/games/kiln-cues/publish", { revision: saved.value.revision })).ok).toBe(true);
}
/** What is on the moving picture now, as a few numbers. */
const pixels = (page: Page): Promise<number[]> =>
  page.evaluate(() => {
    const video = document.querySelector("video");
    if (video === null || video.readyState < 2) return [];
    const canvas = document.createElement("canvas");
    [canvas.width, canvas.height] = [16, 9];
    const context = canvas.getContext("2d");
    context?.drawImage(video, 0, 0, 16, 9);
    return [...(context?.getImageData(0, 0, 16, 9).data ?? [])];
  });

test("a film is dropped, made, cut by its edges, and plays with its sound where a cue shows it; a damaged one says why", async ({
  page,
  context,
}) => {
  test.setTimeout(180_000);
  await signIn(page, "owner", "/prepare/props");
  await page
    .getByLabel("Files to add")
    .setInputFiles([
      file("test card.mp4", film(films.plain(8))),
      file("torn.mp4", film(films.plain(3)).subarray(0, 9_000)),
      file("clear.mov", film(films.seeThrough(1))),
    ]);
  await expect(page.locator("[data-prop='test card']")).toBeVisible({ timeout: 60_000 });
  const making = page.getByLabel("Moving pictures being made");
  await expect(making).toContainText("The moving picture can’t be read", { timeout: 30_000 });
  await making.getByRole("button", { name: "Leave torn out" }).click();
  await expect(page.locator("[data-prop=clear]")).toBeVisible({ timeout: 60_000 });
  await expect(making).toHaveCount(0);
  await page.getByRole("button", { name: "moving", exact: true }).click();
  await expect(page.getByRole("list", { name: "Props", exact: true }).getByRole("listitem")).toHaveCount(3);

  await page.getByRole("button", { name: "Change test card" }).click();
  const detail = page.getByTestId("prop-detail");
  await expect(detail).toContainText("8 s of 8 s, 320 × 180 pixels.");
  // In time by the arrow keys of a thumb, in space by dragging an edge.
  const begins = detail.getByRole("slider", { name: "Where it begins" });
  await begins.focus();
  for (let n = 0; n < 10; n += 1) await page.keyboard.press("ArrowRight");
  await expect(detail.getByLabel("Start", { exact: true })).toHaveValue("1");
  const edge = detail.getByLabel("Right edge: the arrow keys move it");
  await edge.scrollIntoViewIfNeeded();
  const at = await edge.boundingBox();
  const picture = await detail.getByRole("group", { name: "What is kept of the picture" }).locator("img").boundingBox();
  if (at === null || picture === null) throw new Error("there is nothing to drag");
  await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
  await page.mouse.down();
  await page.mouse.move(picture.x + picture.width / 2, at.y + at.height / 2, { steps: 6 });
  await page.mouse.up();
  await detail.getByRole("button", { name: "Make it so" }).click();
  await expect(detail).toContainText("7 s of 8 s", { timeout: 60_000 });
  const cut = (await ask(page, "GET", "/props")) as { value: { props: { name: string; facts: { width: number; height: number } }[] } };
  const { width, height } = cut.value.props.find((p) => p.name === "test card")?.facts ?? { width: 0, height: 0 };
  expect(height).toBe(180);
  expect(Math.abs(width - 160)).toBeLessThan(12);
  await noneSerious(page);

  const look = { x: 0.5, y: 0.5, size: 0.5, entrance: "fade", exit: "fade", whole: true };
  const show = { do: "show", picture: await idOf(page, "test card"), sound: "", volume: 100, text: "", ms: 1_000, queue: "", look };
  await cueShows(page, "look-in", [show]);
  const overlay = await openOverlay(context, await copyLink(page), usualPicture);
  await expect.poll(async () => (await facts(overlay)).voice, { timeout: 20_000 }).toBe(true);
  await page.goto(`${base}/run`);
  await page.locator("[data-cue=look-in]").click();
  await expect.poll(async () => (await pixels(overlay)).length, { timeout: 15_000 }).toBeGreaterThan(0);
  const first = await pixels(overlay);
  await expect.poll(async () => (await pixels(overlay)).some((v, i) => Math.abs(v - (first[i] ?? 0)) > 20)).toBe(true);
  await expect.poll(async () => (await facts(overlay)).level).toBeGreaterThan(0.01);
  // Over all of the picture, in its own shape.
  const box = await overlay.locator("video").boundingBox();
  expect(box === null ? 0 : Math.round(box.height)).toBe(720);
  // Longer than a second: as long as it lasts. Under hush it is gone, picture and sound.
  await page.keyboard.press(".");
  await expect(overlay.locator("video")).toHaveCount(0);
  await expect.poll(async () => (await facts(overlay)).level).toBeLessThan(0.001);
  await page.keyboard.press(".");
});
