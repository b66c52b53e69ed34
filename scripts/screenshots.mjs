// npm run screenshots: one current picture of each main view, from the demo data, into docs/screenshots.
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { ensureBuilt } from "./build.mjs";
import { endWith, say } from "./lib/say.mjs";
import { startStack } from "./lib/stack.mjs";
import { databasePrograms, soundPrograms, ensureSystem, program, root } from "./lib/system.mjs";

const out = join(root, "docs/screenshots");
mkdirSync(out, { recursive: true });

/** The demo's evening so far: the show on air since then, what happened in it, and the first things of the rundown done. */
async function backdate(stack, minutes) {
  const { createConnection } = await import("mysql2/promise");
  await stack.kill("engine");
  const { port, password } = stack.database;
  const db = await createConnection({ host: "127.0.0.1", port, user: "izzam", password, database: stack.databaseName });
  const now = Date.now();
  const at = (minute) => now - (minutes - minute) * 60_000;
  const [[state]] = await db.query("SELECT durable FROM game_states WHERE game_id = 'kiln-show'");
  const durable = typeof state.durable === "string" ? JSON.parse(state.durable) : state.durable;
  const show = { id: "show1", sinceMs: at(0), by: "kilnkeeper", how: "hand" };
  const done = ["wake", "gold"].map((item, i) => ({ item, atMs: at(5 + i * 19), times: 1 }));
  Object.assign(durable, { state: "on", show, done, checkMs: now + 3_600_000 });
  await db.query("UPDATE game_states SET durable = ? WHERE game_id = 'kiln-show'", [JSON.stringify(durable)]);
  const [[last]] = await db.query("SELECT MAX(last_seq) AS seq FROM leases");
  let seq = Number(last.seq ?? 0);
  const add = (minute, kind, source, body) =>
    db.query("INSERT INTO log (channel, at_ms, seq, viewer, kind, source, body) SELECT num, ?, ?, NULL, ?, ?, ? FROM channels", [
      at(minute),
      (seq += 1),
      kind,
      source,
      JSON.stringify(body),
    ]);
  const who = (name) => ({ viewer: { id: name, name, roles: [] } });
  const note = (did, subject) => ({ notes: [{ game: "kiln-show", note: { did, count: 1, subject } }] });
  await add(0, "live", "show", {});
  await add(5, "timer", "timer", note("show/started", "Old Spall wakes"));
  await add(12, "raid", "event", { ...who("ferrule7"), viewers: 48 });
  for (const minute of [13, 14, 17, 21, 22, 30, 31, 33, 39]) await add(minute, "follow", "event", who("pale_oar"));
  await add(24, "command", "operator", {
    gameId: "kiln-show",
    by: "kilnkeeper",
    command: { do: "plan-fire" },
    ...note("show/started", "Golden flock"),
  });
  await add(31, "happened", "game", { what: "boss/fell", text: "Old Spall" });
  await add(36, "tip", "event", { ...who("brambleandson"), amountMinor: 2_100, currency: "EUR" });
  await add(42, "cue", "operator", note("cue/fired", "Kiln door"));
  await db.query("UPDATE leases SET last_seq = ?", [seq]);
  await db.end();
  await stack.revive("engine");
}

async function main() {
  await ensureSystem([...databasePrograms, ...soundPrograms, "chromium"]);
  await ensureBuilt();
  const stack = await startStack({ name: "screenshots" });
  const browser = await chromium.launch({
    executablePath: program("chromium"),
    args: [
      "--no-sandbox",
      "--disable-gpu",
      "--disable-quic",
      "--disable-background-networking",
      "--disable-component-update",
      "--disable-sync",
    ],
  });
  try {
    const context = await browser.newContext({
      // Sessions are listed by what a browser calls itself; ours are shown without anybody's brand.
      userAgent: "Mozilla/5.0 (X11; Linux x86_64)",
      viewport: { width: 1280, height: 800 },
      permissions: ["clipboard-read", "clipboard-write"],
    });
    const page = await context.newPage();
    const shot = async (name, of = page, options = {}) => {
      await of.screenshot({ path: join(out, `${name}.png`), ...options });
      say(`· ${name}.png`);
    };
    const post = (path, body) => fetch(`${stack.practice}${path}`, { method: "POST", body: JSON.stringify(body) });
    await page.goto(`${stack.base}/sign-in`);
    await page.waitForTimeout(800);
    await page.getByRole("button", { name: "Enter as owner" }).click();
    await page.locator("[data-testid=chat-line][data-state=connected]").waitFor();
    await page.goto(`${stack.base}/prepare/overlays`);
    await page.getByRole("button", { name: "Copy link" }).click();
    await page.getByText("Link copied").waitFor();
    const overlay = await context.newPage();
    await overlay.goto(await page.evaluate(() => navigator.clipboard.readText()));
    const rig = await context.newPage();
    await rig.goto(stack.practice);
    await rig.getByRole("button", { name: "Busy" }).click();
    await rig.getByRole("button", { name: "Let them talk" }).click();
    await rig.waitForTimeout(6_000);
    await shot("practice-rig", rig);
    await post("/event", { kind: "tip", as: "oatcake_ada", amount: 2_100, text: "for the kiln" });
    // A clip plays in its window.
    const film = (name) => `http://127.0.0.1:${new URL(stack.practice).port}/shelf/${name}`;
    await post("/say", { as: "mossy_teapot", text: `!clip ${film("sail.webm")} 0:07 16s my first sail` });
    await page.goto(`${stack.base}/run`);
    await page.getByRole("button", { name: "Let it play" }).first().click({ timeout: 60_000 });
    await page.waitForTimeout(2_500);
    await overlay.addStyleTag({ content: "html{background:#77736b !important}" });
    await overlay.bringToFront();
    await overlay.waitForTimeout(1_500);
    await shot("overlay", overlay);
    await page.bringToFront();
    await page.goto(`${stack.base}/prepare`);
    await page.locator("[data-testid=chat-line][data-state=connected]").waitFor();
    await page.waitForTimeout(800);
    await shot("games");
    await post("/crowd/stop", {});
    await page.goto(`${stack.base}/prepare/games/emote-wall`);
    await page.waitForTimeout(800);
    await page.getByRole("button", { name: /Ten viewers at once/ }).click();
    await page.getByRole("button", { name: /A flock/ }).click();
    await page.waitForTimeout(1_900);
    await shot("editor");
    await page.goto(`${stack.base}/prepare/games/the-open-pot`);
    await page.waitForTimeout(2_500);
    await page.getByLabel("Amount", { exact: true }).fill("30");
    await page.getByRole("button", { name: /^A membership/ }).click();
    await page.getByRole("button", { name: /^Your drop/ }).click();
    await page.getByRole("button", { name: /^A follow/ }).click();
    await page.getByRole("button", { name: /^A heavy one/ }).click();
    await page.waitForTimeout(1_000);
    await shot("brimful");
    await page.goto(`${stack.base}/prepare/games/kiln-cat`);
    await page.waitForTimeout(1_500);
    await page.getByRole("tab", { name: "Appearance" }).click();
    await page.getByRole("button", { name: /^Somebody arrives/ }).click();
    await page.waitForTimeout(900);
    await shot("companion");
    await page.goto(`${stack.base}/prepare/games/glaze-wheel`);
    await page.waitForTimeout(1_500);
    await page.getByRole("button", { name: /^Spin/ }).first().click();
    await page.waitForTimeout(10_000);
    await shot("wheel");
    await page.getByRole("tab", { name: "What happened" }).click();
    const round = await page.getByRole("link", { name: "Check it" }).first().getAttribute("href");
    await page.goto(`${stack.base}${round}`);
    await page.getByText("It holds").waitFor();
    await page.goto(`${stack.base}/prepare/games/weekly-mug`);
    await page.waitForTimeout(1_500);
    await page.getByRole("button", { name: /^Open/ }).first().click();
    for (let i = 0; i < 2; i += 1) await page.getByRole("button", { name: /^Ten enter/ }).click();
    await page.waitForTimeout(3_500);
    await shot("draw");
    await page.goto(`${stack.base}/prepare/rules`);
    await page.waitForTimeout(1_200);
    await shot("rules");
    await page.goto(`${stack.base}/prepare/overlays/main-stage`);
    await page.locator("[data-place=old-spall]").focus();
    await page.waitForTimeout(800);
    await shot("stage");
    await page.goto(`${stack.base}/prepare/show`);
    await page.locator("[data-plan=wake]").waitFor();
    await page.waitForTimeout(600);
    await shot("show");
    await page.goto(`${stack.base}/prepare/rewards`);
    await page.getByLabel("Price in clay").waitFor();
    await page.waitForTimeout(1_000);
    await shot("rewards");
    await page.goto(`${stack.base}/review/people`);
    await page.getByLabel("Find a viewer").fill("amber");
    await page.getByRole("button", { name: /amber_kettle/ }).click();
    await page.getByRole("list", { name: "History of amber_kettle" }).waitFor();
    await page.waitForTimeout(600);
    await shot("people");
    await page.goto(`${stack.base}/rehearse`);
    await page.getByLabel("The crowd").first().selectOption({ label: "a busy evening" });
    await page.getByTestId("begin").getByRole("button", { name: "Begin" }).click();
    await page.getByTestId("strip").waitFor();
    await page.waitForTimeout(14_000);
    await shot("rehearsal");
    await page.getByTestId("strip").getByRole("button", { name: "End" }).click();
    await page.getByTestId("strip").getByRole("button", { name: "Yes, end" }).click();
    await page.getByTestId("learnt").waitFor();
    await page.goto(`${stack.base}/rehearse/lab`);
    await page.getByLabel("Which setting").selectOption({ label: "health" });
    await page.getByLabel("Health, if it were").fill("1200");
    await page.keyboard.press("Tab");
    await page.getByRole("button", { name: "Ask", exact: true }).click();
    await page.getByText(/On the same evenings/).waitFor({ timeout: 120_000 });
    await shot("lab");
    await page.goto(`${stack.base}/review`);
    await page.getByRole("list", { name: "Shows so far" }).getByRole("link").nth(1).click();
    await page
      .getByRole("button", { name: /^Keep / })
      .first()
      .click();
    await page.getByText("kept by kilnkeeper").waitFor();
    await shot("past-show");
    const phoneContext = await browser.newContext({ viewport: { width: 390, height: 844 } });
    const viewer = await phoneContext.newPage();
    await viewer.goto(`${stack.base}/c/saltmarsh-kiln`);
    await viewer.getByRole("button", { name: "That’s me in chat" }).click();
    await post("/say", { as: "mossy_teapot", text: await viewer.locator(".code b").textContent() });
    await viewer.locator(".you").waitFor();
    await post("/say", { as: "mossy_teapot", text: "!bell" });
    await viewer.waitForTimeout(2_000);
    await shot("viewer-page", viewer);
    await phoneContext.close();
    // A show in its twelfth second would be an empty tape: this one began 48 minutes ago, and its evening is in the log.
    await backdate(stack, 48);
    await page.goto(`${stack.base}/run`);
    await page.getByTestId("boss-health").waitFor();
    await post("/crowd", { seed: 3, perSecond: 2, emoteShare: 0.6, copyShare: 0.3, rushesPerMinute: 0, givesPerMinute: 12 });
    await page.waitForTimeout(9_000);
    await post("/event", { kind: "tip", as: "oatcake_ada", amount: 400, text: "for the kiln" });
    await page.keyboard.press("w");
    await page.waitForTimeout(1_400);
    await shot("booth");
    await post("/crowd/stop", {});
    const phone = await context.newPage();
    await phone.setViewportSize({ width: 390, height: 844 });
    await phone.goto(`${stack.base}/remote`);
    await phone.getByTestId("remote-stands").first().waitFor();
    await phone.waitForTimeout(500);
    await shot("remote", phone);
    await phone.close();
    await context.addCookies([{ name: "izzam_surface", value: "night", url: stack.base }]);
    await page.goto(`${stack.base}/prepare/games/emote-wall`);
    await page.goto(`${stack.base}/prepare/cues`);
    await page.waitForTimeout(1_200);
  } finally {
    await browser.close();
    await stack.stop();
  }
}
main()
  .then(() => process.exit(0))
  .catch(endWith);
