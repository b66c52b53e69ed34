import { expect } from "@playwright/test";
import { zipSync } from "fflate";
import sharp from "sharp";
import { ask, base, control, copyLink, openOverlay, signIn, test, wav } from "./support";

test.beforeAll(() => control("/demo/reset"));
test.beforeEach(async ({ page }) => {
  await signIn(page, "owner", "/prepare/props");
});

const png = (colour: string, width = 60, height = 40): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 4, background: colour } })
    .png()
    .toBuffer();
const file = (name: string, buffer: Buffer) => ({ name, mimeType: "application/octet-stream", buffer });

test("many files at once, each with its own answer; what lies about itself is refused", async ({ page }) => {
  const svg = Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9" onload="x()"><script>alert(1)</script><rect width="9" height="9" fill="#c40"/></svg>',
  );
  await page
    .getByLabel("Files to add")
    .setInputFiles([
      file("red-tile.png", await png("#c40")),
      file("tone_low.wav", wav(1.5)),
      file("with-script.svg", svg),
      file("fake.png", Buffer.from("<html><script>1</script></html>")),
      file("fake.mp3", Buffer.from("not a sound at all, whatever its name says")),
      file("hour.wav", wav(130, 200)),
    ]);
  const answers = page.getByRole("status", { name: "Files being added" });
  await expect(answers).toContainText("The sound is longer than 2 minutes", { timeout: 30_000 });
  await expect(answers).toContainText("This is not a PNG, SVG, GIF or WebP picture, whatever its name says.");
  for (const name of ["red tile", "tone low", "with script"]) await expect(page.locator(`[data-prop="${name}"]`)).toBeVisible();
  await expect(page.getByText("22 of 22")).toBeVisible();
  // What is served of the SVG is a picture, with headers that let nothing run.
  const props = (await ask(page, "GET", "/props")) as { value: { props: { name: string; url: string }[] } };
  const response = await fetch(base + props.value.props.find((p) => p.name === "with script")?.url);
  expect(response.headers.get("content-type")).toBe("image/webp");
  expect(response.headers.get("x-content-type-options")).toBe("nosniff");
  expect(response.headers.get("content-security-policy")).toContain("sandbox");
});

test("the same file again is told; a ZIP brings many; search and filters find them", async ({ page }) => {
  await page.getByLabel("Files to add").setInputFiles([file("again.png", await png("#c40"))]);
  await expect(page.getByText("This file is there already, as red tile.")).toBeVisible();
  const zip = Buffer.from(
    zipSync({
      "set/blue.png": await png("#14a"),
      "set/deep.wav": wav(0.8, 120),
      "set/readme.txt": Buffer.from("hello"),
      "__MACOSX/._blue.png": Buffer.from("x"),
    }),
  );
  await page.getByLabel("Files to add").setInputFiles([file("set.zip", zip)]);
  await expect(page.getByText("2 props were added.")).toBeVisible();
  await page.getByLabel("Search props").fill("DEEP");
  await expect(page.getByRole("list", { name: "Props", exact: true }).getByRole("listitem")).toHaveCount(1);
  await page.getByLabel("Search props").fill("");
  await page.getByRole("button", { name: "unused" }).click();
  await expect(page.locator("[data-prop='Gold ribbon']")).toHaveCount(0);
  await expect(page.locator("[data-prop=blue]")).toBeVisible();
  await page.getByLabel("Files to add").setInputFiles([file("broken.zip", Buffer.concat([zip.subarray(0, 60), Buffer.alloc(400)]))]);
  await expect(page.getByText(/The ZIP file is damaged|There is no picture/)).toBeVisible();
});

test("an address that leads inside is refused; one that is none too", async ({ page }) => {
  await page.getByLabel("Address of a file").fill(`${base}/studio.svg`);
  await page.getByRole("button", { name: "Fetch" }).click();
  await expect(page.getByText("leads into this computer or its network")).toBeVisible();
  await page.getByLabel("Address of a file").fill("file:///etc/passwd");
  await page.getByRole("button", { name: "Fetch" }).click();
  await expect(page.getByText("This is no address of the web")).toBeVisible();
});

test("a sound is trimmed and a picture cut without touching the file; both can be taken back", async ({ page }) => {
  await page.getByRole("button", { name: "Change Kiln door" }).click();
  const detail = page.getByTestId("prop-detail");
  await expect(detail).toContainText("1.2 s of 1.2 s");
  await detail.getByLabel("End").fill("0.4");
  await detail.getByRole("button", { name: "Make it so" }).click();
  await expect(detail).toContainText("0.4 s of 1.2 s");
  await detail.getByLabel("End").fill("1.2");
  await detail.getByRole("button", { name: "Make it so" }).click();
  await expect(detail).toContainText("1.2 s of 1.2 s");
  await detail.getByLabel("Start").fill("9");
  await expect(detail.getByLabel("Start")).toHaveAttribute("aria-invalid", "true");

  await page.getByRole("button", { name: "Change Harbour boat" }).click();
  await detail.getByLabel("Width").fill("50");
  await detail.getByRole("button", { name: "Make it so" }).click();
  await expect(detail.getByRole("button", { name: "As it came" })).toBeVisible();
  await detail.getByRole("button", { name: "As it came" }).click();
  await expect(detail.getByRole("button", { name: "As it came" })).toHaveCount(0);
});

test("a prop that is removed while in use: told, the rest goes on, undone in one click; replaced everywhere", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page));
  await page.goto(`${base}/prepare/props`);
  await page.getByRole("button", { name: "Change Potters break" }).click();
  await expect(page.getByTestId("prop-detail")).toContainText("Used in Cues.");
  await page.getByTestId("prop-detail").getByRole("button", { name: "Remove" }).click();
  await expect(page.getByText("Potters break was removed. Cues will show nothing in its place.")).toBeVisible();
  await ask(page, "POST", "/cues/break/fire", { id: "fire-break-1", via: "click" });
  await expect(overlay.getByText("Back in five minutes")).toBeVisible();
  await expect(overlay.locator(".izzam-alert-picture")).toHaveCount(0);
  await ask(page, "POST", "/cues/break/fire", { id: "fire-break-2", via: "click" });
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.locator("[data-prop='Potters break']")).toBeVisible();
  await page.getByRole("button", { name: "Change Potters break" }).click();
  await page.getByLabel("Another file for Potters break").setInputFiles([file("new.png", await png("#0a5", 90, 90))]);
  await expect(page.getByText("Potters break was replaced, in Cues too.")).toBeVisible();
  await ask(page, "POST", "/cues/break/fire", { id: "fire-break-3", via: "click" });
  await expect(overlay.locator(".izzam-alert-picture")).toBeVisible();
  await page.getByLabel("Another file for Potters break").setInputFiles([file("tone.wav", wav(0.5))]);
  await expect(page.getByText("A picture can only be replaced by a picture")).toBeVisible();
});
