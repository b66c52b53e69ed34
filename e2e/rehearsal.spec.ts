import { readFileSync } from "node:fs";
import { expect, type Page } from "@playwright/test";
import { frameRateOf, timecode, frameAt } from "../src/core/review/timecode";
import { appears, ask, base, chatConnected, control, copyLink, give, noneSerious, openOverlay, say, signIn, test } from "./support";

test.beforeEach(() => control("/demo/reset"));

const strip = (page: Page) => page.getByTestId("strip");
const begin = async (page: Page, crowd: string): Promise<void> => {
  await page.getByTestId("begin").getByLabel("The crowd").selectOption({ label: crowd });
  await page.getByTestId("begin").getByRole("button", { name: "Begin" }).click();
  await expect(strip(page)).toHaveAttribute("data-state", "runs");
};
const end = async (page: Page): Promise<void> => {
  await strip(page).getByRole("button", { name: "End" }).click();
  await strip(page).getByRole("button", { name: "Yes, end" }).click();
  await expect(page.getByTestId("learnt")).toBeVisible();
};
/** What a rehearsal could have left something in, as the owner reads it. */
const everything = async (page: Page): Promise<string> => {
  const paths = ["/review/rounds?as=json", "/sales?state=all", "/people?q=constructor", "/people?q=", "/games/old-spall/records?kind=hit"];
  const answers = await Promise.all(paths.map((p) => page.request.get(`${base}/api${p}`)));
  expect(answers.map((r) => r.status())).toEqual(paths.map(() => 200));
  return (await Promise.all(answers.map((r) => r.text()))).join("\n");
};

test("from the plan to the markers: a storm fells the boss too fast, the lab knows better, the show is on air, and two of its moments stand in the files at their frames", async ({
  page,
}) => {
  test.setTimeout(500_000);
  await signIn(page);
  // The plan: one thing more, by itself at minute 0.
  await page.goto(`${base}/prepare/show`);
  await page.getByRole("button", { name: "Add a thing" }).click();
  await page.getByLabel("Title of Something new").fill("The doors");
  await page.getByLabel("Title of Something new").press("Enter");
  await page.getByLabel("What The doors does").selectOption({ label: "fires the cue" });
  await page.getByLabel("Of The doors: which").selectOption({ label: "Bell for a good pull" });
  await page.getByLabel("How The doors starts").selectOption({ label: "by itself, at its minute" });
  await page.getByLabel("Minute of The doors").fill("0");
  await page.getByLabel("Minute of The doors").press("Enter");
  await page.goto(`${base}/rehearse`);
  await expect(page.getByTestId("check-list")).toContainText("Nobody has this overlay open");
  await noneSerious(page);
  await begin(page, "a stormy evening");
  await expect(page.getByRole("button", { name: "The show: Rehearsing" })).toBeVisible();
  await strip(page).getByRole("button", { name: "Jump 1 min ahead" }).click();
  await expect(strip(page)).toHaveAttribute("data-state", "jumps");
  await expect(strip(page)).toHaveAttribute("data-state", "runs", { timeout: 150_000 });
  await end(page);
  const came = page.locator("[data-part=came]");
  const early = came.locator("[data-tone=look]").filter({ hasText: "Old Spall: a boss falls" });
  await expect(early).toContainText("within the first quarter");
  await noneSerious(page);

  // Asked of the lab: the same evening, with a boss of more health; its advice becomes the draft, and is published.
  await early.getByRole("link", { name: "Ask the odds lab" }).click();
  const composer = page.getByTestId("composer");
  await expect(composer.getByTestId("question")).toContainText("Old Spall");
  await composer.getByLabel("On which evening").selectOption({ label: "an evening like the last 5" });
  await composer.getByLabel("Which setting").selectOption({ label: "health" });
  await composer.getByLabel("Health, if it were").fill("4000");
  await composer.getByLabel("Health, if it were").press("Tab");
  await composer.getByLabel("How many evenings").selectOption("50");
  await composer.getByRole("button", { name: "Ask" }).click();
  const answer = page.getByRole("list", { name: "Asked so far" }).locator("[data-question]").first();
  await expect(answer).toContainText("On the same evenings it is later in", { timeout: 200_000 });
  await answer.getByRole("button", { name: "Use this" }).click();
  await answer.getByRole("link", { name: "Open the draft" }).click();
  await expect(page.locator("[data-sentence=health]").getByLabel("Health")).toHaveValue("4,000");
  await page.getByRole("button", { name: "Publish" }).click();
  await expect(page.getByText(/Published as version/)).toBeVisible();

  // On air from the practice rig, and over again.
  await page.goto(`${base}/prepare`);
  await chatConnected(page);
  await page.goto(`${base}/run`);
  await page.getByRole("button", { name: "The show: Off air" }).click();
  await expect(page.getByTestId("checks-in-short")).toContainText(/Main stage/);
  await page.getByRole("menuitem", { name: /Go on air/ }).click();
  await expect(page.getByRole("button", { name: "The show: On air" })).toBeVisible();
  await say("good evening everyone", "oatcake_ada");
  await give({ kind: "raid", as: "quietferry", amount: 66 });
  await expect(page.getByTestId("talk")).toContainText("quietferry");
  await page.waitForTimeout(5_000);
  await ask(page, "POST", "/games/show/command", { command: { do: "show", what: "end" }, id: "command-end-of-it" });
  await expect(page.getByRole("button", { name: "The show: Off air" })).toBeVisible();

  // Opened: two moments are kept, and stand in the files at their frames.
  await page.goto(`${base}/review`);
  await page.getByRole("list", { name: "Shows so far" }).getByRole("link").first().click();
  const moments = page.getByRole("list", { name: "Moments" }).locator("[data-moment]");
  const own = moments.filter({ hasText: "kept by kilnkeeper" });
  for (const [i, name] of ["The ferry", "The end of it"].entries()) {
    await page.getByTestId("show-tape").focus();
    await page.keyboard.press(i === 0 ? "+" : "ArrowRight");
    await page.getByRole("button", { name: "Add what the tape shows" }).click();
    await expect(own).toHaveCount(i + 1);
    await own.nth(i).getByRole("textbox").fill(name);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("button", { name: `Drop ${name}` })).toBeVisible();
  }
  await page.getByLabel("Frames a second").selectOption({ label: "29.97, drop-frame" });
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: /Table/ }).click()]);
  const rows = readFileSync(await download.path(), "utf8")
    .split("\r\n")
    .slice(1)
    .filter((r) => r !== "")
    .map((r) => r.split(","));
  expect(rows.map((r) => r[0]).sort()).toEqual(["The end of it", "The ferry"]);
  const rate = frameRateOf("29.97");
  for (const row of rows) {
    const ms = (row[1] ?? "").split(":").reduce((sum, part) => sum * 60 + Number(part), 0) * 1_000;
    expect(row[3]).toBe(timecode(frameAt(ms, rate), rate));
  }
});

test("it stands, runs fast and takes signals by hand; overlay pages join and go back; nothing of it is left, and it gives way to the show", async ({
  page,
  browser,
}) => {
  test.setTimeout(150_000);
  await signIn(page);
  const broadcast = await browser.newContext({ permissions: ["clipboard-read", "clipboard-write"] });
  const owner = await broadcast.newPage();
  await signIn(owner);
  const overlay = await openOverlay(broadcast, await copyLink(owner, { boss: true }));
  await page.goto(`${base}/rehearse`);
  const before = await everything(page);
  await begin(page, "nobody at all");
  const clock = page.getByTestId("room-clock");
  await strip(page).getByRole("button", { name: "Pause" }).click();
  await expect(strip(page)).toHaveAttribute("data-state", "paused");
  // What was pressed reaches the engine, and the clock, a moment later.
  await expect
    .poll(async () => {
      const before = await clock.innerText();
      await page.waitForTimeout(1_200);
      return (await clock.innerText()) === before;
    })
    .toBe(true);
  const stood = await clock.innerText();
  await page.waitForTimeout(2_500);
  expect(await clock.innerText()).toBe(stood);
  await strip(page).getByRole("button", { name: "Go on" }).click();
  await strip(page).getByLabel("How fast").selectOption("20");
  await expect(clock).toHaveText(/^0:0[1-9]:/, { timeout: 20_000 });
  // By itself, at its minute of the rundown.
  await strip(page).getByRole("button", { name: "Jump 5 min ahead" }).click();
  await expect(strip(page)).toHaveAttribute("data-state", "runs", { timeout: 30_000 });
  await strip(page).getByLabel("How fast").selectOption("1");

  // A signal by hand, as any viewer; on the overlay only once that shows it.
  await strip(page).getByLabel("Overlays").check({ force: true });
  await expect(page.getByTestId("pages")).toContainText("1 page open");
  await strip(page).getByRole("button", { name: "Fire a signal" }).click();
  const form = page.getByRole("dialog", { name: "Fire a signal" });
  await form.getByLabel("As whom").fill("constructor");
  await form.getByLabel("What they do").selectOption("tip");
  await form.getByLabel("Cents").fill("1000");
  await form.getByRole("button", { name: "Fire it" }).click();
  await appears(overlay, "constructor tips 10.00 EUR");
  await expect(page.getByTestId("talk")).toContainText("constructor");
  await page.keyboard.press("Escape");

  // Somebody else's show begins: it gives way, says so, and the page is the channel's again.
  const moderator = await (await browser.newContext()).newPage();
  await signIn(moderator, "moderator", "/run");
  await expect(moderator.getByTestId("booth")).toBeVisible();
  await expect(moderator.getByTestId("talk")).not.toContainText("constructor");
  await expect(moderator.getByRole("button", { name: "The show: Off air" })).toBeVisible();
  expect(await everything(page)).toBe(before);
  await ask(moderator, "POST", "/games/show/command", { command: { do: "show", what: "on-air" }, id: "command-on-air-1" });
  await expect(page.getByTestId("learnt")).toContainText("the show began, so the rehearsal gave way");
  await expect(page.getByTestId("learnt")).toContainText("Everything stands as before");
  await expect(page.getByRole("button", { name: "The show: Rehearsal over" })).toBeVisible();
  await moderator.goto(`${base}/rehearse`);
  await expect(moderator.getByText("The show is on. A rehearsal can begin when it has ended.")).toBeVisible();
  const refused = await ask(page, "POST", "/rehearsals", { crowd: { from: "nobody" }, pace: 1, chat: false, overlays: false });
  expect(refused).toMatchObject({ ok: false, words: expect.stringContaining("The show is on") });
  await expect(moderator.getByRole("list", { name: "Rehearsals of today" })).toContainText("report");
});

test("past chat comes in from a file, plays along, and the lab is asked about evenings like it; a past show is played again; an engine that was killed has forgotten it", async ({
  page,
}) => {
  test.setTimeout(300_000);
  await signIn(page, "moderator", "/rehearse");
  const lines = Array.from(
    { length: 60 },
    (_, i) => `[19:0${Math.floor(i / 30)}:${String((i * 2) % 60).padStart(2, "0")}] <@marsh_${i % 7}> is the kiln warm ${i}`,
  );
  await page.getByLabel("A log of past chat").setInputFiles({
    name: "old room.log",
    mimeType: "text/plain",
    buffer: Buffer.from(`${lines.join("\n")}\nthis is no line of chat\n`),
  });
  const chats = page.getByTestId("chat-logs");
  await expect(chats).toContainText("60 lines by 7 people came in; 1 line was left out:");
  await expect(chats).toContainText("Line 61: It is no chat line");
  await page.getByLabel("A log of past chat").setInputFiles({ name: "nothing.log", mimeType: "text/plain", buffer: Buffer.from("no\n") });
  await expect(page.getByText(/No line of this file can be used: line 1/)).toBeVisible();
  await chats.getByRole("button", { name: "Remove old room" }).click();
  await chats.getByRole("button", { name: "Bring back old room" }).click();
  await begin(page, "the chat “old room”");
  await expect(page.getByTestId("talk")).toContainText("marsh_1");
  await strip(page).getByRole("button", { name: "Jump 5 min ahead" }).click();
  await expect(page.getByTestId("learnt")).toContainText("all that was written down has been played", { timeout: 30_000 });

  await page.goto(`${base}/rehearse/lab`);
  await page.getByTestId("composer").getByLabel("On which evening").selectOption({ label: "an evening like the chat “old room”" });
  await page.getByTestId("composer").getByLabel("How many evenings").selectOption("50");
  await page.getByTestId("composer").getByRole("button", { name: "Ask" }).click();
  await expect(page.getByRole("list", { name: "Asked so far" })).toContainText("an evening like the chat “old room”");
  await expect(page.getByRole("list", { name: "Asked so far" })).toContainText("By 50 evenings", { timeout: 150_000 });

  await page.goto(`${base}/rehearse`);
  const options = await page.getByTestId("begin").getByLabel("The crowd").locator("option").allTextContents();
  await page
    .getByTestId("begin")
    .getByLabel("The crowd")
    .selectOption({ label: options.find((o) => o.endsWith("played again")) ?? "" });
  await page.getByTestId("begin").getByLabel("From which minute").fill("40");
  await page.getByTestId("begin").getByLabel("From which minute").press("Tab");
  await page.getByTestId("begin").getByLabel("How fast").selectOption("10");
  await page.getByTestId("begin").getByRole("button", { name: "Begin" }).click();
  await expect(page.getByTestId("talk").getByRole("button").first()).toBeVisible({ timeout: 20_000 });
  await control("/demo/kill/engine");
  await control("/demo/revive/engine");
  await expect(page.getByRole("heading", { name: "This rehearsal is not there any more" })).toBeVisible({ timeout: 40_000 });
});
