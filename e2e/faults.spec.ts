import { expect, type WebSocket } from "@playwright/test";
import {
  ask,
  askOnce,
  base,
  chatConnected,
  control,
  copyLink,
  noneSerious,
  nothingShows,
  openOverlay,
  practice,
  say,
  sayUntilShown,
  signIn,
  somethingShows,
  test,
} from "./support";

/** What must hold when something else does not. */
test.afterEach(async ({ page }) => {
  await page.goto("about:blank");
});

test("hush works while the web process is gone, and while the database is", async ({ page, context }) => {
  await signIn(page);
  await chatConnected(page);
  const overlay = await openOverlay(context, await copyLink(page));
  await page.goto(`${base}/run`);
  await expect(page.getByRole("button", { name: /^Hush/ })).toBeVisible();
  for (const what of ["web", "database"] as const) {
    await sayUntilShown(overlay, "wobblePot wobblePot");
    await somethingShows(overlay);
    await control(`/demo/kill/${what}`);
    try {
      const from = Date.now();
      await page.keyboard.press(".");
      await expect(page.getByText("Hushed: every overlay is empty and silent")).toBeVisible({ timeout: 4_000 });
      expect(Date.now() - from).toBeLessThan(4_000);
      await nothingShows(overlay);
      await page.getByRole("button", { name: "Release" }).click();
      await expect(page.getByText("Hushed: every overlay is empty and silent")).toHaveCount(0);
      // What a page asks meanwhile is answered with "not yet", in words.
      if (what === "web") expect(await askOnce(page, "GET", "/find")).toMatchObject({ ok: false, refusal: { code: "web/away" } });
    } finally {
      await control(`/demo/revive/${what}`);
    }
    await expect.poll(async () => (await ask(page, "GET", "/remotes").catch(() => ({ ok: false }))).ok, { timeout: 30_000 }).toBe(true);
  }
});

test("a page that is asked for while the database is away says so, and comes by itself when it is back", async ({ page }) => {
  await signIn(page);
  await control("/demo/kill/database");
  try {
    expect((await page.goto(`${base}/run`))?.status()).toBe(503);
    const entrance = await page.request.get(`${base}/sign-in`, { headers: { accept: "text/html" } });
    expect([entrance.status(), await entrance.text()]).toEqual([503, expect.stringContaining("The database does not answer")]);
    await expect(page.getByRole("heading", { name: "This page can’t be read at the moment" })).toBeVisible();
  } finally {
    await control("/demo/revive/database");
  }
  await expect(page.getByTestId("boss-health")).toBeVisible({ timeout: 30_000 });
});

test("files that were made to stop a server are refused in words, and nothing waits for them", async ({ page }) => {
  await signIn(page, "owner", "/prepare");
  const masks = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 99 99"><defs>${Array.from({ length: 24 }, (_, i) => `<mask id="m${i}"><g mask="url(#m${i + 1})"><rect width="99" height="99" mask="url(#m${i + 1})"/></g></mask>`).join("")}</defs><rect width="99" height="99" mask="url(#m0)"/></svg>`;
  const deep = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9">${"<g>".repeat(100_000)}${"</g>".repeat(100_000)}</svg>`;
  const dashed = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 99 99"><path stroke="red" stroke-dasharray="0.01" d="M0 0${" L99 0 L0 99".repeat(80_000)}"/></svg>`;
  const upload = (name: string, text: string) =>
    page.evaluate(
      async ([n, t]) => {
        const form = new FormData();
        form.append("file", new File([t], n, { type: "image/svg+xml" }));
        const response = await fetch("/api/props", { method: "POST", body: form });
        return ((await response.json()) as { words?: string }).words ?? "";
      },
      [name, text] as const,
    );
  const waits: number[] = [];
  let over = false;
  const others = (async () => {
    while (!over) {
      const from = Date.now();
      await page.request.get(`${base}/sign-in`);
      waits.push(Date.now() - from);
    }
  })();
  const said = await Promise.all([upload("masks.svg", masks), upload("deep.svg", deep), upload("dashed.svg", dashed)]);
  over = true;
  await others;
  for (const words of said) expect(words).toMatch(/too complex|took too long/);
  expect(Math.max(...waits)).toBeLessThan(4_000);
});

test("who signs out sees nothing more, in any tab; who ends a session elsewhere ends it there", async ({ page, context, browser }) => {
  await signIn(page, "owner", "/prepare");
  const other = await context.newPage();
  const open = new Set<WebSocket>();
  // Those that are told something: one that asks again, and is turned away, is none.
  other.on("websocket", (ws) => {
    ws.on("framereceived", ({ payload }) => String(payload).includes('"gone"') || open.add(ws));
    ws.on("close", () => open.delete(ws));
  });
  await other.goto(`${base}/run`);
  // The booth's own socket, and the live picture's.
  await expect.poll(() => open.size, { timeout: 15_000 }).toBeGreaterThanOrEqual(2);
  await page.getByRole("button", { name: /^Account:/ }).click();
  await page.getByRole("menuitem", { name: "Sign out" }).click();
  // By its own button, or since its socket heard of it first: whichever leads there.
  await expect(page).toHaveURL(/sign-in/, { timeout: 15_000 });
  await expect.poll(() => open.size, { timeout: 5_000 }).toBe(0);

  await signIn(page);
  const elsewhere = await browser.newContext();
  const there = await elsewhere.newPage();
  await signIn(there, "owner", "/run");
  await page.goto(`${base}/account`);
  const sessions = page.getByRole("list", { name: "Your sessions" });
  await expect(sessions.getByText("this page")).toHaveCount(1);
  const before = await sessions.getByRole("listitem").count();
  await sessions.getByRole("button", { name: "End", exact: true }).first().click();
  await expect(sessions.getByRole("listitem")).toHaveCount(before - 1);
  await elsewhere.close();
});

test("a moderator is invited by a link that works once, and removed: out at once", async ({ page, browser }) => {
  await signIn(page, "owner", "/account");
  await page.getByRole("button", { name: "Invite a moderator" }).click();
  await expect(page.getByText("Invitation copied, without being shown.")).toBeVisible();
  await expect(page.getByText("One invitation was not used yet")).toBeVisible();
  const link = await page.evaluate(() => navigator.clipboard.readText());
  await noneSerious(page);
  const elsewhere = await browser.newContext();
  const guest = await elsewhere.newPage();
  await guest.goto(link);
  await noneSerious(guest);
  await guest.getByLabel("Your name").fill("Kiln Keeper".toLowerCase().replace(" ", ""));
  await guest.getByLabel("Password").fill("a long password");
  await guest.getByRole("button", { name: "Join" }).click();
  await expect(guest.getByText("This name is taken")).toBeVisible();
  await guest.getByLabel("Your name").fill("slipbucket");
  await guest.getByRole("button", { name: "Join" }).click();
  await guest.waitForURL(/\/prepare$/);
  // The link is used up.
  const late = await elsewhere.newPage();
  await late.goto(link);
  await late.reload();
  await late.getByLabel("Your name").fill("toolate");
  await late.getByLabel("Password").fill("a long password");
  await late.getByRole("button", { name: "Join" }).click();
  await expect(late.getByText("used already")).toBeVisible();
  await page.reload();
  const people = page.getByRole("list", { name: "Operators" });
  const line = people.getByRole("listitem").filter({ hasText: "slipbucket" });
  await line.getByRole("button", { name: "Remove" }).click();
  await line.getByRole("button", { name: "Remove slipbucket" }).click();
  await expect(people.getByText("slipbucket")).toHaveCount(0);
  await guest.waitForURL(/sign-in/, { timeout: 15_000 });
  await elsewhere.close();
});

test("what is kept, for how long, and how it is had: on a page of its own", async ({ page }) => {
  await signIn(page);
  await chatConnected(page);
  await say("good evening", "quietferry");
  await page.goto(`${base}/prepare/connections`);
  await page.getByRole("link", { name: "Data" }).first().click();
  await page.waitForURL(/connections\/data/);
  await expect(page.getByRole("heading", { name: "The log" })).toBeVisible();
  const waiting = page.waitForEvent("download");
  await page
    .getByRole("link", { name: /^Download the log of/ })
    .first()
    .click();
  const stream = await (await waiting).createReadStream();
  let text = "";
  for await (const part of stream) text += String(part);
  const lines = text
    .trim()
    .split("\n")
    .map((l) => JSON.parse(l) as { kind: string; text?: string; viewer: { id: string } | null });
  expect(lines.some((l) => l.kind === "message" && l.text === "good evening" && l.viewer?.id === "quietferry")).toBe(true);
  await page.getByLabel("The log, in days").fill("3");
  await page.getByRole("button", { name: "Keep it so" }).click();
  await expect(page.getByLabel("The log, in days")).toHaveJSProperty("validity.valid", false);
  await page.getByLabel("The log, in days").fill("120");
  await page.getByRole("button", { name: "Keep it so" }).click();
  await expect(page.getByText("Kept so from now on.")).toBeVisible();
  for (const surface of ["Paper", "Night"]) {
    // Colours on their way from one to the other are neither.
    await page.waitForFunction(() => document.getAnimations().every((a) => a.playState !== "running"));
    await noneSerious(page);
    if (surface === "Paper") await page.keyboard.press("n");
  }
  await page.keyboard.press("n");
  expect((await page.request.get(`${base}/api/data/1999-01`)).status()).toBe(422);
  expect((await page.request.get(`${base}/api/data/__proto__`)).status()).toBe(422);
});

test("viewers with names that mean something to an address are found, and forgotten, and nobody else is", async ({ page }) => {
  await signIn(page);
  const names = ["..", "100%", "%41da", "a/b?c#d", "__proto__"];
  const event = (name: string, i: number) => ({
    specversion: "1.0",
    id: `odd-${i}`,
    source: "urn:odd",
    type: "app.izzam.follow.v1",
    data: { viewer: { id: name, name } },
  });
  const sent = await page.request.post(`${practice}/event/raw`, {
    data: { text: JSON.stringify([...names, "ada"].map(event)), type: "application/cloudevents-batch+json" },
  });
  expect(await sent.json()).toMatchObject({ status: 200 });
  await page.goto(`${base}/review/people`);
  for (const name of names) {
    await page.getByLabel("Find a viewer").fill(name);
    await page.getByRole("button", { name: new RegExp(`^${name.replace(/[.*+?^${}()|[\]\\/]/g, "\\$&")}`, "i") }).click();
    await expect(page.getByTestId("balance")).toHaveText("100");
    expect([name, (await ask(page, "DELETE", "/people/card", { id: name.toLowerCase() })).ok]).toEqual([name, true]);
    expect((await ask(page, "GET", `/people/card?id=${encodeURIComponent(name.toLowerCase())}`)).ok).toBe(false);
  }
  expect(await ask(page, "GET", "/people/card?id=ada")).toMatchObject({ ok: true, value: { balance: 100 } });
});
