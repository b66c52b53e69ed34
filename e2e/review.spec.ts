import { readFileSync } from "node:fs";
import { unzipSync, zipSync } from "fflate";
import { expect, type Page } from "@playwright/test";
import { frameOf, frameRateOf } from "../src/core/review/timecode";
import { control, noneSerious, signIn, test } from "./support";

test.beforeEach(() => control("/demo/reset"));

const moments = (page: Page) => page.getByRole("list", { name: "Moments" }).locator("[data-moment]");
async function file(page: Page, name: RegExp): Promise<string> {
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name }).click()]);
  return readFileSync(await download.path(), "utf8");
}

test("a show is opened and named; the record raid is found, kept by another name, and stands in the files for editors at its frame", async ({
  page,
}) => {
  await signIn(page, "owner", "/review");
  // How it goes, in one sentence; any two shows side by side.
  const trends = page.getByTestId("trends");
  await expect(page.getByTestId("trend")).toContainText(/messages an hour, and .* in the one before\./);
  await expect(trends.getByRole("table", { name: "Two shows side by side" })).toContainText("people who wrote");
  await trends.getByLabel("What shows are compared by").selectOption({ label: "clay made an hour" });
  await expect(page.getByTestId("trend")).toContainText(/clay made an hour, and .* in the 5 before\./);
  await noneSerious(page);
  await page.getByRole("list", { name: "Shows so far" }).getByRole("link").nth(1).click();
  await expect(page.getByTestId("numbers")).toContainText(/messages from \d+ viewers/);
  await page.getByRole("button", { name: "Name this show" }).click();
  await page.getByLabel("Name of this show").fill("The night of the harbour");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "The night of the harbour" })).toBeVisible();

  const raid = moments(page).filter({ hasText: "chat was" }).first();
  await expect(raid.getByRole("textbox")).toHaveValue(/^Raid · harbour_lights brought 412/);
  await raid.getByRole("textbox").fill("The ferry comes in");
  await page.keyboard.press("Enter");
  await expect(moments(page).filter({ hasText: "kept by kilnkeeper" })).toHaveCount(1);
  await noneSerious(page);

  // Looking at it on the tape shows what was said around it, with what it led to.
  await page.getByRole("button", { name: "Look at The ferry comes in on the tape" }).click();
  await expect(page.getByRole("button", { name: "The whole show" })).toBeVisible();
  await expect(page.getByRole("list", { name: "Lines of the show" })).toContainText("hello from the harbour");
  await page.getByLabel("Which lines").selectOption({ label: "what happened" });
  await expect(page.getByRole("list", { name: "Lines of the show" })).toContainText("harbour_lights raided with 412");
  await page.getByLabel("Find in this stretch").fill("no such words");
  await expect(page.getByRole("group", { name: "What was said" })).toContainText("No line of this stretch has it.");
  await page.getByLabel("Find in this stretch").fill("");
  // A stretch of one's own: what the tape shows.
  await page.getByTestId("show-tape").focus();
  await page.keyboard.press("+");
  await page.getByRole("button", { name: "Add what the tape shows" }).click();
  await expect(moments(page).filter({ hasText: "kept by kilnkeeper" })).toHaveCount(2);
  await page.keyboard.press("0");

  await page.getByLabel("Seconds between the start of the recording and of the show").fill("90");
  await page.keyboard.press("Tab");
  await page.getByLabel("Frames a second").selectOption({ label: "29.97, drop-frame" });
  const table = await file(page, /Table/);
  const row =
    table
      .split("\r\n")
      .find((line) => line.startsWith("The ferry comes in"))
      ?.split(",") ?? [];
  const ms = row[1]?.split(":").reduce((sum, part) => sum * 60 + Number(part), 0) ?? 0;
  const rate = frameRateOf("29.97");
  // 52 minutes in, less what is kept before it, and 90 s of recording before the show.
  expect(Math.abs(ms - (52 * 60 + 90 - 10))).toBeLessThanOrEqual(20);
  expect(frameOf(row[3] ?? "", rate)).toBe(Math.floor((ms * 30_000) / 1_001 + 1e-6));
  const edl = await file(page, /Decision list/);
  expect(edl).toContain("FCM: DROP FRAME");
  expect(edl).toContain(`V     C        ${row[3]} ${row[4]}`);
  const chapters = await file(page, /Chapters/);
  expect(chapters).toMatch(/^WEBVTT\n\n1\n00:00:00\.000 --> /);
  expect(chapters).toContain("The ferry comes in");

  // All of it as one file, which says what is in it.
  const [zip] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "ZIP with its manifest" }).click()]);
  expect(zip.suggestedFilename()).toBe("the-night-of-the-harbour.zip");
  const files = unzipSync(readFileSync(await zip.path()));
  const manifest = JSON.parse(new TextDecoder().decode(files["manifest.json"])) as { files: { name: string; rows: number | null }[] };
  const log = new TextDecoder().decode(files["log.ndjson"]).trimEnd().split("\n");
  expect(log.length).toBe(manifest.files.find((f) => f.name === "log.ndjson")?.rows);
  expect(log.join("\n")).toContain("harbour_lights");
  expect(await file(page, /^CSV of people/)).toContain("harbour_lights");

  // What was put before the audience, and who won what.
  const aired = page.getByRole("list", { name: "Spoken and shown" });
  await expect(aired).toContainText("Greetings from the ferry by amber_kettle");
  await page.getByLabel("Which of them").selectOption({ label: "a cue" });
  await expect(aired).not.toContainText("Greetings from the ferry");
  await expect(aired).toContainText("by spongebearer");
  expect(await file(page, /^CSV of winners/)).toMatch(/^when,game,title,viewer,prize,proof\r\n/);
  expect(await file(page, /^JSON of spoken and shown/)).toContain("Greetings from the ferry");

  await page.getByRole("button", { name: "Drop The ferry comes in" }).click();
  await page.getByText("Dropped (1)").click();
  await page.getByRole("button", { name: "Bring back The ferry comes in" }).click();
  await expect(moments(page).first().getByRole("textbox")).toHaveValue(/^Raid · harbour_lights brought 412/);
  await page.getByRole("link", { name: "The show before" }).click();
  await expect(page.getByRole("heading", { name: /^Show of / })).toBeVisible();
});

test("what went wrong in a show stands with what it meant, and leads to its stretch of the tape", async ({ page }) => {
  await signIn(page, "moderator", "/review");
  await page.getByRole("list", { name: "Shows so far" }).getByRole("link").first().click();
  const faults = page.getByRole("list", { name: "Faults of this show" });
  await expect(faults).toContainText("Chat: The connection was lost. It lasted 0:04:12.");
  await expect(faults).toContainText("What is typed in chat reaches no game.");
  await faults.getByRole("button", { name: "Look at Chat on the tape" }).click();
  await expect(page.getByRole("button", { name: "The whole show" })).toBeVisible();
  // What the owner alone may take out, a moderator is refused in words.
  const refused = await page.request.get(new URL("whole", `${page.url().replace("/review/", "/api/review/")}/`).toString());
  const table = (what: string) =>
    page.request.get(new URL(`table?what=${what}&as=csv`, `${page.url().replace("/review/", "/api/review/")}/`).toString());
  expect(await Promise.all(["winners", "aired", "results", "sales", "people"].map(async (what) => (await table(what)).status()))).toEqual([
    200, 200, 200, 403, 403,
  ]);
  expect([refused.status(), ((await refused.json()) as { refusal: { code: string } }).refusal.code]).toEqual([403, "access/role"]);
  await noneSerious(page);
});

test("the ZIP of a show is brought in, looked at, named, removed and brought back; damaged ones are refused", async ({ page }) => {
  test.setTimeout(150_000);
  await signIn(page, "owner", "/review");
  const href = await page.getByRole("list", { name: "Shows so far" }).getByRole("link").nth(1).getAttribute("href");
  const whole = await (await page.request.get(new URL(`/api${href}/whole`, page.url()).toString())).body();
  const part = page.getByTestId("outside-shows");
  const bring = (buffer: Buffer) =>
    part.getByLabel("The ZIP of a show").setInputFiles({ name: "show.zip", mimeType: "application/zip", buffer });
  const files = unzipSync(whole);
  const text = (value: unknown) => new TextEncoder().encode(JSON.stringify(value));
  const manifest = JSON.parse(new TextDecoder().decode(files["manifest.json"])) as object;
  const bad: readonly [Buffer, RegExp][] = [
    [whole.subarray(0, whole.length / 2), /ZIP/],
    [Buffer.from(zipSync({ "readme.txt": text("hello") })), /none that can be read/],
    [Buffer.from(zipSync({ ...files, "manifest.json": text({ ...manifest, format: "izzam-show-9" }) })), /A newer version of Izzam/],
  ];
  for (const [buffer, says] of bad) {
    await bring(buffer);
    await expect(page.getByText(says).last()).toBeVisible();
    // Three messages stand at a time: what was read is put away, as a person does.
    await page.getByRole("button", { name: "Close this message" }).last().click();
  }
  await expect(part.getByRole("listitem")).toHaveCount(0);
  const log = Buffer.concat([files["log.ndjson"] ?? Buffer.alloc(0), Buffer.from('{"at":"never"}\nnonsense\n')]);
  await bring(Buffer.from(zipSync({ ...files, "log.ndjson": log })));
  await expect(page.getByText("It came in; 2 lines of its log could not be read.")).toBeVisible();
  await part.getByRole("button", { name: /something else$/ }).click();
  await part.getByLabel("What this show is called").fill("An evening of the neighbours");
  await page.keyboard.press("Enter");
  await part.getByRole("button", { name: "Remove An evening of the neighbours" }).click();
  await part.getByRole("button", { name: "Bring back An evening of the neighbours" }).click();
  await part.getByRole("link", { name: "An evening of the neighbours" }).click();

  await expect(page.getByText("it is here to be looked at", { exact: false })).toContainText("2 lines of its log could not be read");
  await expect(page.getByRole("list", { name: "Moments of this show" })).toContainText("Raid · harbour_lights brought 412");
  await page.getByLabel("Find in this stretch").fill("harbour_lights");
  const lines = page.getByRole("list", { name: "Lines of the show" });
  await expect(lines).toContainText("harbour_lights raided with 412");
  await expect(page.getByRole("button", { name: /Raid · harbour_lights brought 412/ })).toBeVisible();
  await page.getByLabel("Find in this stretch").fill("");
  await page.getByRole("button", { name: "More", exact: true }).click();
  await expect(page.getByRole("status").filter({ hasText: "400 lines, and more" })).toBeVisible();
  await noneSerious(page);
});

test("a page to share shows what the allow-list names, without script and to nobody without its link; another link ends the one before", async ({
  page,
  browser,
}) => {
  await signIn(page, "owner", "/review");
  await page.getByRole("list", { name: "Shows so far" }).getByRole("link").nth(1).click();
  await page
    .getByRole("button", { name: /^Keep / })
    .first()
    .click();
  await expect(moments(page).filter({ hasText: "kept by kilnkeeper" })).toHaveCount(1);
  const made = async (press: string): Promise<string> => {
    const [answer] = await Promise.all([
      page.waitForResponse((r) => r.url().endsWith("/share")),
      page.getByRole("button", { name: press }).click(),
    ]);
    return ((await answer.json()) as { value: { path: string } }).value.path;
  };
  const first = await made("Make it and copy its link");
  expect(first).toMatch(/^\/shared\/[A-Za-z0-9_-]{20,}$/);
  const stranger = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
  await stranger.goto(new URL(first, page.url()).toString());
  await expect(stranger.getByRole("heading", { name: /^Show of / })).toBeVisible();
  await expect(stranger.getByText("Raid · harbour_lights brought 412")).toBeVisible();
  const text = await stranger.locator("body").innerText();
  for (const hidden of ["clay", "EUR", "kilnkeeper", "hello from the harbour"]) expect(text).not.toContain(hidden);
  const second = await made("Copy a new link");
  await stranger.reload();
  await expect(stranger.getByRole("heading", { name: "Nothing to see here" })).toBeVisible();
  await stranger.goto(new URL(second, page.url()).toString());
  await expect(stranger.getByRole("heading", { name: /^Show of / })).toBeVisible();
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByText("Taken back: the link leads nowhere any more.")).toBeVisible();
  await stranger.reload();
  await expect(stranger.getByRole("heading", { name: "Nothing to see here" })).toBeVisible();
});
