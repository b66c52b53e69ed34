import { readdirSync, readFileSync } from "node:fs";
import { expect } from "@playwright/test";
import { appears, ask, base, byKeys, control, emptyBase, facts, openOverlay, setupCode, signIn, test } from "./support";

test("an empty installation leads through creating the owner and the channel, once", async ({ page, context }) => {
  test.setTimeout(240_000);
  await page.goto(emptyBase);
  await page.waitForURL(/set-up/);
  const fill = async (code: string): Promise<void> => {
    await page.getByLabel("Set-up code").fill(code);
    await page.getByLabel("Channel name").fill("Driftwood Loom");
    await page.getByLabel("Your name").fill("weaver");
    await page.getByLabel("Password").fill("a long enough password");
    await page.getByRole("button", { name: "Create the channel" }).click();
  };
  await fill("111111");
  await expect(page.getByRole("alert").filter({ hasText: "This is not the set-up code" })).toBeVisible();
  await fill(setupCode);
  await page.waitForURL(/prepare/);
  await expect(page.getByText("Driftwood Loom")).toBeVisible();
  await expect(page.getByText("No chat is set up yet.")).toBeVisible();
  await expect(page.getByText("Put the first game on screen")).toBeVisible();

  // The booth with nothing set up says what comes there and where to begin.
  await page.goto(`${emptyBase}/run`);
  await expect(page.getByText("No game is running yet")).toBeVisible();
  await expect(page.getByText("No page of it is open: viewers see nothing.")).toBeVisible();
  await expect(page.getByText("No cue yet. Add the first")).toBeVisible();
  await expect(page.getByText("Nothing is planned.")).toBeVisible();
  await page.goto(`${emptyBase}/prepare`);

  // From nothing to a published wall, a link and a chat, by keyboard alone, without a word of demo data.
  const keys = byKeys(page);
  await keys.to(page.getByRole("listitem", { name: "Put the first game on screen" }));
  await keys.press("Enter");
  await keys.to(page.getByRole("button", { name: "Add an emote wall" }));
  await keys.press("Enter");
  // The cursor stands in the new game's name; its page is published from where one is.
  await expect(page.getByLabel("Name of the game")).toBeFocused();
  await keys.to(page.getByRole("button", { name: "Publish to “Main stage”" }));
  await keys.press("Enter");
  await expect(page.getByText(/Published as version 1/)).toBeVisible();
  await keys.to(page.getByRole("tab", { name: "Rules", exact: true }));
  await keys.press("ArrowRight");
  await expect(page.getByRole("tab", { name: "Appearance" })).toBeFocused();
  await keys.press("ArrowRight");
  await expect(page.getByRole("tab", { name: "Where it is seen" })).toHaveAttribute("aria-selected", "true");
  await keys.to(page.getByRole("button", { name: "Make a link" }));
  await keys.press("Enter");
  await expect(page.getByText(/New link made and copied/)).toBeVisible();
  const link = await page.evaluate(() => navigator.clipboard.readText());
  const overlay = await openOverlay(context, link);
  await page.bringToFront();
  await keys.press("Control+k");
  await keys.type("practice");
  await keys.press("Enter");
  await keys.to(page.getByRole("button", { name: "Connect to the practice rig" }));
  await keys.press("Enter");
  await expect(page.getByText("Connected to the practice rig.")).toBeVisible();
  await expect(page.getByTestId("chat-line")).toHaveAttribute("data-state", "connected", { timeout: 15_000 });
  // Whoever takes two seconds over each key is done in less than five minutes.
  expect(keys.pressed()).toBeLessThan(110);

  // Chat and events from the practice rig, with nothing filled in: an emote written there flies on the overlay.
  const rig = new URL(
    await page
      .getByRole("link", { name: "Chat as a viewer" })
      .getAttribute("href")
      .then((h) => h ?? ""),
  ).origin;
  const post = (path: string, body: object) => fetch(`${rig}${path}`, { method: "POST", body: JSON.stringify(body) });
  await expect(async () => {
    await post("/say", { as: "mossy_teapot", text: "🔥" });
    await expect.poll(async () => (await facts(overlay)).live, { timeout: 1_500 }).toBeGreaterThan(0);
  }).toPass({ timeout: 20_000 });
  await expect(page.getByTestId("chat-line")).toContainText("Last heard just now");
  const sent = (await (await post("/event", { kind: "follow", as: "mossy_teapot" })).json()) as { words: string };
  expect(sent.words).toBe("taken");

  // A channel that begins with nothing is offered what Izzam comes with; asking again adds nothing twice.
  await page.goto(`${emptyBase}/prepare/emotes`);
  await page.getByRole("button", { name: "Begin with twelve drawn ones" }).click();
  await expect(page.getByText("12 were added.")).toBeVisible({ timeout: 30_000 });
  await expect(page.locator("[data-emote]")).toHaveCount(12);
  await expect(page.getByRole("button", { name: "Begin with twelve drawn ones" })).toHaveCount(0);
  expect(await ask(page, "POST", "/starter", { what: "emotes" })).toEqual({ ok: true, value: { added: 0 } });
  await page.goto(`${emptyBase}/prepare/rules`);
  await page.getByRole("button", { name: "Begin with three rules" }).click();
  await expect(page.getByRole("list", { name: "Rules" }).locator("[data-rule]")).toHaveCount(3);
  await expect(page.getByTestId("save-state")).toContainText("not published");
  await page.goto(`${emptyBase}/prepare/rewards`);
  await page.getByRole("button", { name: "Begin with three rewards" }).click();
  await expect(page.locator("[data-reward]")).toHaveCount(3);
  await expect(page.getByTestId("save-state")).toContainText("not published");
  await page.goto(`${emptyBase}/prepare/cues`);
  await page.getByRole("button", { name: "Begin with three cues" }).click();
  await expect(page.locator("[data-cue]")).toHaveCount(3);
  await page.getByRole("button", { name: /^Publish/ }).click();
  // As they are: published, they are seen at once.
  await expect(overlay.getByText("One last question?")).toHaveCount(0);
  await page.locator("[data-cue]").last().getByRole("button", { name: /^Fire/ }).click();
  await appears(overlay, "One last question?");
  await page.goto(`${emptyBase}/prepare`);

  await page.getByRole("button", { name: /^Account: weaver/ }).click();
  await page.getByRole("menuitem", { name: "Sign out" }).click();
  await page.waitForURL(/sign-in/);
  await expect(page.getByRole("button", { name: /Enter as/ })).toHaveCount(0);
  await page.goto(`${emptyBase}/set-up`);
  await page.waitForURL(/sign-in/);
  await page.getByLabel("Name").fill("Weaver");
  await page.getByLabel("Password").fill("not the password");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Name and password don’t match." })).toBeVisible();
  await page.getByLabel("Password").fill("a long enough password");
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.waitForURL(/prepare/);
});

test.describe("on the demo installation", () => {
  test.beforeAll(() => control("/demo/reset"));

  test("a moderator runs the games; links and the connection stay with the owner", async ({ page }) => {
    await signIn(page, "moderator", "/prepare/overlays");
    await expect(page.getByText("Only the owner may copy or change this link.")).toBeVisible();
    await expect(page.getByRole("button", { name: "Copy link" })).toHaveCount(0);
    await page.goto(`${base}/prepare/connections`);
    await expect(page.getByText("Only the owner may change the connection")).toBeVisible();
    await expect(page.getByRole("button", { name: "Save and connect" })).toBeDisabled();
    // Not by asking the server directly, either.
    const asked = await page.evaluate(async () => {
      const ask = async (method: string, path: string, body: unknown) =>
        (await fetch(path, { method, headers: { "content-type": "application/json" }, body: JSON.stringify(body) })).status;
      return [
        await ask("POST", "/api/overlays/main-stage/link", { do: "copy" }),
        await ask("PUT", "/api/chat", {
          enabled: false,
          settings: { host: "x", port: 1, tls: false, nick: "x", login: "none", channel: "#x", emotePictures: "", dialect: {} },
          password: null,
        }),
        await ask("POST", "/api/hush", { on: false }),
      ];
    });
    expect(asked).toEqual([403, 403, 200]);
  });

  test("who is not signed in sees and does nothing", async ({ page, request }) => {
    await page.goto(`${base}/prepare/games/emote-wall`);
    await page.waitForURL(/sign-in/);
    const ask = (path: string, headers: Record<string, string>) => request.post(`${base}${path}`, { headers, data: { on: true } });
    expect((await ask("/api/hush", { origin: base })).status()).toBe(401);
    expect((await ask("/api/hush", {})).status()).toBe(403);
    expect((await ask("/api/hush", { origin: "http://evil.invalid" })).status()).toBe(403);
    expect((await request.post(`${base}/_engine/hush`, { data: { channel: "saltmarsh-kiln", on: true } })).status()).toBe(404);
  });

  test("a form on another site can do nothing with the session of who is signed in", async ({ page }) => {
    await signIn(page);
    const response = await page.request.post(`${base}/api/hush`, { headers: { origin: "http://evil.invalid" }, data: { on: true } });
    expect(response.status()).toBe(403);
  });

  test("pages carry strict headers, and the server answers to no other name", async ({ request }) => {
    const page = await request.get(`${base}/sign-in`);
    expect(page.headers()["content-security-policy"]).toMatch(/script-src 'self' 'nonce-[0-9a-f]+' 'strict-dynamic'/);
    expect(page.headers()["x-content-type-options"]).toBe("nosniff");
    expect(page.headers()["x-powered-by"]).toBeUndefined();
    const overlay = await request.get(`${base}/overlay`);
    expect(overlay.headers()["content-security-policy"]).toContain("default-src 'none'");
    expect((await request.get(`${base}/sign-in`, { headers: { host: "evil.invalid" } })).status()).toBe(421);
    // The web process has a port of its own; it answers only what came through the one door.
    expect((await request.get(`http://127.0.0.1:${Number(new URL(base).port) + 1}/sign-in`)).status()).toBe(421);
  });

  test("the practice rig, which stands for strangers, is given no key of the installation", () => {
    const told = readdirSync("/proc")
      .filter((pid) => /^\d+$/.test(pid))
      .flatMap((pid) => {
        try {
          return readFileSync(`/proc/${pid}/cmdline`, "utf8").includes(`${process.cwd()}/.build/practice.mjs`)
            ? [readFileSync(`/proc/${pid}/environ`, "utf8").split("\0")]
            : [];
        } catch {
          return []; // It ended meanwhile.
        }
      });
    expect(told.length).toBeGreaterThan(0);
    const names = told.flat().map((line) => line.split("=")[0] ?? "");
    expect(names).toContain("IZZAM_PRACTICE_PORT");
    expect(names.filter((name) => /^IZZAM_.*(PASSWORD|KEY|DB_|SETUP)/.test(name))).toEqual([]);
  });

  test("the session cookie can’t be read by scripts and is not sent along by other sites", async ({ page, context }) => {
    await signIn(page);
    const cookie = (await context.cookies()).find((c) => c.name === "izzam_session");
    expect(cookie).toMatchObject({ httpOnly: true, sameSite: "Lax" });
  });

  test("bad input to the server is refused in words", async ({ page }) => {
    await signIn(page, "owner", "/prepare");
    const said = await page.evaluate(async () => {
      const ask = async (method: string, path: string, body: string) =>
        ((await (await fetch(path, { method, headers: { "content-type": "application/json" }, body })).json()) as { words?: string }).words;
      return [
        await ask("POST", "/api/games", "{not json"),
        await ask("POST", "/api/games", JSON.stringify({ kind: "emote-wall", name: "" })),
        await ask("PUT", "/api/games/emote-wall/draft", JSON.stringify({ revision: 1, settings: { schema: 1 } })),
        await ask("PUT", "/api/games/nope/draft", JSON.stringify({ revision: 1, settings: {} })),
        await ask("POST", "/api/overlays", JSON.stringify({ name: "x", width: 1e9, height: 10 })),
        await ask("POST", "/api/emotes", ""),
      ];
    });
    for (const words of said) expect(words).toMatch(/^[A-Z].+\.$/);
  });
});
