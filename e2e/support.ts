import axe from "axe-core";
import { type Browser, type BrowserContext, expect, type Locator, type Page, test as plainTest } from "@playwright/test";
import sharp from "sharp";

const given = (name: string): string => {
  const value = process.env[name];
  if (value === undefined) throw new Error("run the browser tests with `npm run browser`: they need its installation");
  return value;
};
/** Each worker has an installation of its own. */
const worker = Number(process.env["TEST_PARALLEL_INDEX"] ?? 0);
const demo = (JSON.parse(given("IZZAM_DEMOS")) as { base: string; practice: string }[])[worker];
if (demo === undefined) throw new Error(`there is no installation for worker ${worker}`);
export const { base, practice } = demo;
export const emptyBase = given("IZZAM_EMPTY");
export const setupCode = given("IZZAM_SETUP");

/**
 * One browser context for each worker, which keeps what it has loaded: a megabyte of script is fetched and compiled once,
 * not for every test. Between tests nothing else of it is kept: no page, no cookie, no storage, no rule of the network.
 * What a test opens beside it (a phone, a second broadcast) is closed with it, or it would go on drawing for good.
 *
 * A page that is led somewhere while it stands behind another draws one frame a second from then on, and each click on it
 * waits for two: so whatever is led somewhere comes to the front. What was in front goes on drawing.
 */
export const test = plainTest.extend<{ awake: undefined }, { house: BrowserContext }>({
  house: [
    async ({ browser }, use) => {
      const house = await browser.newContext({ viewport: desk, permissions: ["clipboard-read", "clipboard-write"] });
      await use(house);
      await house.close();
    },
    { scope: "worker" },
  ],
  context: async ({ house, browser }, use, info) => {
    await use(house);
    if (info.status !== info.expectedStatus)
      for (const page of house.pages()) {
        const body = await page.screenshot().catch(() => null);
        if (body !== null) await info.attach("page", { body, contentType: "image/png" });
      }
    // An answer that a test made late is still on its way: nobody waits for it any more.
    const open = browser.contexts().flatMap((c) => c.pages());
    await Promise.all(open.map((p) => p.unrouteAll({ behavior: "ignoreErrors" })));
    await Promise.all(browser.contexts().map((c) => (c === house ? emptied(c) : c.close())));
  },
  page: async ({ context }, use) => use(await context.newPage()),
  awake: [
    async ({ context }, use) => {
      const watch = (page: Page): void =>
        void page.on("framenavigated", (frame) => {
          if (frame === page.mainFrame()) page.bringToFront().catch(() => undefined);
        });
      context.pages().forEach(watch);
      context.on("page", watch);
      await use(undefined);
      context.off("page", watch);
    },
    { auto: true },
  ],
});
const desk = { width: 1280, height: 800 };
async function emptied(context: BrowserContext): Promise<void> {
  const [page] = context.pages();
  if (page !== undefined) {
    const session = await context.newCDPSession(page);
    for (const origin of [base, emptyBase, practice])
      await session.send("Storage.clearDataForOrigin", { origin, storageTypes: "local_storage,indexeddb,service_workers" });
  }
  await Promise.all(context.pages().map((p) => p.close()));
  await context.clearCookies();
  await context.unrouteAll({ behavior: "ignoreErrors" });
  await context.setOffline(false);
}

/** Makes things go wrong and whole again: /demo/kill/engine, /demo/revive/database, /demo/reset … */
export async function control(path: string): Promise<number | null> {
  const response = await fetch(`${given("IZZAM_CONTROL")}${path.replace(/^\/demo\//, `/demo${worker}/`)}`);
  const said = (await response.json()) as { ok: boolean; words?: string; value: number | null };
  if (!said.ok) throw new Error(`${path}: ${said.words}`);
  return said.value;
}

/** Signed in as by the button of the sign-in page (which has a test of its own); led to a page when one is named. */
export async function signIn(page: Page, as: "owner" | "moderator" = "owner", to?: string): Promise<void> {
  const entered = await again(() => page.request.post(`${base}/api/demo-sign-in`, { headers: { origin: base }, data: { role: as } }));
  expect([entered.status(), entered.ok() ? "" : await entered.text()]).toEqual([200, ""]);
  await page.emulateMedia({ reducedMotion: "reduce" });
  if (to !== undefined) await page.goto(`${base}${to}`);
}

/** The bot is in the rig's chat: as the page says, or the rig where no page is open yet. */
export const chatConnected = async (page: Page): Promise<void> => {
  const by = { timeout: 20_000 };
  if (page.url() === "about:blank") await expect.poll(async () => (await rig()).connected, by).toBeGreaterThan(0);
  else await expect(page.getByTestId("chat-line")).toHaveAttribute("data-state", "connected", by);
};
const rig = async (): Promise<Readonly<{ connected: number; log: readonly Readonly<{ name: string; text: string }>[] }>> =>
  (await (await fetch(`${practice}/state`)).json()) as Awaited<ReturnType<typeof rig>>;

const post = async (path: string, body: unknown): Promise<void> => {
  const response = await fetch(`${practice}${path}`, { method: "POST", body: JSON.stringify(body) });
  const said = (await response.json()) as { ok: boolean; words?: string };
  if (!said.ok) throw new Error(`${path}: ${said.words ?? "refused"}`);
};
/** Said in the rig's chat, by way of its real IRC server. */
export const say = (text: string, as = "mossy_teapot"): Promise<void> => post("/say", { as, text });
export const rawChat = (bytes: Buffer): Promise<void> => post("/raw", { base64: bytes.toString("base64") });
export const fault = (what: "none" | "hang" | "refuse" | "drop"): Promise<void> => post("/fault", { fault: what });
export const crowd = (perSecond: number): Promise<void> =>
  post("/crowd", { seed: 3, perSecond, emoteShare: 0.9, copyShare: 0.3, rushesPerMinute: 0 });
export const quiet = (): Promise<void> => post("/crowd/stop", {});

type Answer = Readonly<{ ok: boolean; words?: string; value?: unknown }>;
/** Calls the operator side as a click on its own pages would; no page needs to be open. */
export async function askOnce(page: Page, method: string, path: string, body: unknown = {}): Promise<Answer & { status: number }> {
  const at = page.url().startsWith("http") ? new URL(page.url()).origin : base;
  const head = { method, headers: { origin: at } };
  const response = await page.request.fetch(`${at}/api${path}`, method === "GET" ? head : { ...head, data: body });
  return { ...((await response.json()) as Answer), status: response.status() };
}
/** The same; "not now" is no answer: asked again for twenty seconds, as a person would. */
export async function ask(page: Page, method: string, path: string, body: unknown = {}): Promise<Answer> {
  const answer: Answer & { status?: number } = { ...(await again(() => askOnce(page, method, path, body))) };
  delete answer.status;
  return answer;
}
async function again<T extends { status: number | (() => number) }>(call: () => Promise<T>): Promise<T> {
  for (const untilMs = Date.now() + 20_000; ;) {
    const answer = await call();
    const status = typeof answer.status === "number" ? answer.status : answer.status();
    if (status !== 503 || Date.now() > untilMs) return answer;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
}
const wholePlace = { x: 0, y: 0, width: 1, height: 1 };
/** Leaves only the emote wall on the main stage: for tests that count what is drawn. */
export async function onlyWall(page: Page): Promise<void> {
  const done = await ask(page, "PUT", "/overlays/main-stage/layout", { places: [{ game: "emote-wall", place: wholePlace }], onAir: true });
  expect(done).toEqual({ ok: true, value: null });
}
/** What the rig sends through its signed endpoint. */
export type Give = Readonly<{
  kind: string;
  as?: string;
  amount?: number;
  currency?: string;
  text?: string;
  reaction?: string;
  id?: string;
}>;
export const give = (given: Give): Promise<void> => post("/event", { as: "mossy_teapot", ...given });
/** Whether the signed endpoint took it; false while the engine or its database is away. */
export async function giveOnce(given: Give): Promise<boolean> {
  const response = await fetch(`${practice}/event`, { method: "POST", body: JSON.stringify({ as: "mossy_teapot", ...given }) });
  return ((await response.json()) as { status?: number }).status === 200;
}
/** Anything at all, signed, to the endpoint. */
export async function giveRaw(text: string, type: string): Promise<{ status: number; said: string }> {
  const response = await fetch(`${practice}/event/raw`, { method: "POST", body: JSON.stringify({ text, type }) });
  return (await response.json()) as { status: number; said: string };
}
/** A person who has no mouse: counts every key, goes to something by Tab alone, and gives up after sixty. */
export function byKeys(page: Page) {
  let pressed = 0;
  const press = async (key: string): Promise<void> => {
    pressed += 1;
    await page.keyboard.press(key);
  };
  return {
    press,
    type: async (text: string): Promise<void> => {
      pressed += text.length;
      await page.keyboard.type(text);
    },
    to: async (there: Locator): Promise<void> => {
      await there.waitFor();
      for (let n = 0; n < 60; n += 1) {
        if (await there.evaluate((el) => el === document.activeElement)) return;
        await press("Tab");
      }
      throw new Error(`not reached by sixty tabs: ${String(there)}`);
    },
    pressed: () => pressed,
  };
}
/** Waits until what has just been changed is drawn and nothing is on its way any more, but what goes on for long. */
export const settled = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    const frame = (): Promise<number> => new Promise(requestAnimationFrame);
    await frame();
    await frame();
    const short = document.getAnimations().filter((a) => Number(a.effect?.getComputedTiming().endTime) < 2_000);
    await Promise.allSettled(short.map((a) => a.finished));
  });
/** What was said and done at the rig so far. */
export const rigLog = async (): Promise<readonly Readonly<{ name: string; text: string }>[]> => (await rig()).log;
/** What chat heard from the bot and from each other so far. */
export const heard = async (): Promise<string[]> => (await rigLog()).map((l) => l.text);
export const pressPad = (n: number): Promise<void> => post("/pad/press", { n });

/** The overlay's link; the button that copies it has a test of its own. With the boss on it only if asked for. */
export async function copyLink(page: Page, { boss = false } = {}): Promise<string> {
  if (!boss) await onlyWall(page);
  const copied = await ask(page, "POST", "/overlays/main-stage/link", { do: "copy" });
  expect(copied).toMatchObject({ ok: true });
  return `${base}/overlay#${(copied.value as { token: string }).token}`;
}

/** For what is measured by the pixel. */
export const usualPicture = { width: 1280, height: 720 };
/** Large enough for what is asked of most pictures; a quarter of the drawing, which software does here. */
const smallPicture = { width: 640, height: 360 };
export async function openOverlay(context: BrowserContext, link: string, size = smallPicture): Promise<Page> {
  const page = await context.newPage();
  await page.setViewportSize(size);
  await page.addInitScript(() => {
    const alerts: string[] = [];
    Object.assign(window, { izzamAlerts: alerts });
    new MutationObserver((changes) => {
      for (const node of changes.flatMap((c) => [...c.addedNodes]))
        if (node instanceof HTMLElement && node.classList.contains("izzam-alert")) alerts.push(node.textContent);
    }).observe(document, { childList: true, subtree: true });
  });
  // Motion is by the clock: a third of the frames shows the same. Where frames are counted, the usual picture is asked for.
  await page.goto(size === usualPicture ? link : link.replace("#", "?frames=20#"));
  return page;
}

/**
 * Waits until an alert with this text has come, for the n-th time since the page was opened. It stays for a few seconds only:
 * on a busy machine it has gone again before anybody could look for it.
 */
export const appears = (overlay: Page, text: string, times = 1) =>
  expect
    .poll(
      () =>
        overlay.evaluate(
          (part) => (window as unknown as { izzamAlerts: string[] }).izzamAlerts.filter((alert) => alert.includes(part)).length,
          text,
        ),
      { message: `an alert that says “${text}”` },
    )
    .toBe(times);

/** As if the picture had the size of a usual stage, whatever the page's: `pixels` are counted as they are. */
export type Seen = Readonly<{
  drawn: number;
  pixels: number;
  width: number;
  height: number;
  colours: number;
  middle: Readonly<{ x: number; y: number }>;
}>;
/** How many pixels of a page are not transparent, and in how many colours. */
export async function seen(page: Page): Promise<Seen> {
  const { data, info } = await sharp(await page.screenshot({ omitBackground: true }))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  let drawn = 0;
  let sumX = 0;
  let sumY = 0;
  const colours = new Set<number>();
  for (let i = 0; i < data.length; i += 4) {
    if ((data[i + 3] ?? 0) < 20) continue;
    drawn += 1;
    sumX += (i / 4) % info.width;
    sumY += Math.floor(i / 4 / info.width);
    colours.add(((data[i] ?? 0) >> 5) * 64 + ((data[i + 1] ?? 0) >> 5) * 8 + ((data[i + 2] ?? 0) >> 5));
  }
  const usual = { width: 1280, height: 720 };
  return {
    drawn: (drawn * usual.width * usual.height) / (info.width * info.height),
    pixels: drawn,
    width: info.width,
    height: info.height,
    colours: colours.size,
    middle: {
      x: (sumX / Math.max(1, drawn)) * (usual.width / info.width),
      y: (sumY / Math.max(1, drawn)) * (usual.height / info.height),
    },
  };
}
/** Waits until something is on the picture; tells what. */
export async function somethingShows(page: Page, least = 400): Promise<Seen> {
  let last: Seen = { drawn: 0, pixels: 0, width: 0, height: 0, colours: 0, middle: { x: 0, y: 0 } };
  await expect.poll(async () => (last = await seen(page)).drawn, { timeout: 10_000 }).toBeGreaterThan(least);
  return last;
}
export const nothingShows = (page: Page) => expect.poll(async () => (await seen(page)).drawn, { timeout: 12_000 }).toBe(0);

export type Facts = Readonly<{
  framesPerSecond: number;
  live: number;
  /** Pictures of each game. */
  lives: Readonly<Record<string, number>>;
  drawing: string;
  scriptMs: number;
  alerts: number;
  voice: boolean;
  sounds: number;
  /** How loud it is just now, 0 to 1. */
  level: number;
  shown: Readonly<Record<string, { name: string; health: number; max: number } | null>>;
}>;
export const facts = (page: Page): Promise<Facts> => page.evaluate(() => (window as unknown as { izzamFacts: () => Facts }).izzamFacts());
/** Says an emote until the page shows it: a page that has just been opened may miss the first. */
export async function sayUntilShown(page: Page, text: string): Promise<void> {
  await expect(async () => {
    await say(text);
    await expect.poll(async () => (await facts(page)).live, { timeout: 1_500 }).toBeGreaterThan(0);
  }).toPass({ timeout: 20_000 });
}

/** A tone as 16-bit mono WAV. */
export function wav(seconds: number, hz = 440, level = 0.4): Buffer {
  const rate = 22_050;
  const n = Math.floor(rate * seconds);
  const data = Buffer.alloc(44 + n * 2);
  data.write("RIFF", 0);
  data.writeUInt32LE(36 + n * 2, 4);
  data.write("WAVEfmt ", 8);
  data.writeUInt32LE(16, 16);
  data.writeUInt16LE(1, 20);
  data.writeUInt16LE(1, 22);
  data.writeUInt32LE(rate, 24);
  data.writeUInt32LE(rate * 2, 28);
  data.writeUInt16LE(2, 32);
  data.writeUInt16LE(16, 34);
  data.write("data", 36);
  data.writeUInt32LE(n * 2, 40);
  for (let i = 0; i < n; i += 1) data.writeInt16LE(Math.round(Math.sin((i / rate) * hz * 2 * Math.PI) * level * 32_767), 44 + i * 2);
  return data;
}

/** The booth, with this game in focus; its part of the booth comes after the panel. */
export async function focusGame(page: Page, game: string, testId: string): Promise<void> {
  await page.goto(`${base}/run?game=${game}`);
  await expect(page.getByTestId(testId)).toBeVisible();
}
/** A viewer page on a phone, tied to a chat name by its code. */
export async function viewerPage(browser: Browser, name: string): Promise<Page> {
  const page = await (await browser.newContext({ viewport: { width: 400, height: 800 } })).newPage();
  await page.goto(`${base}/c/saltmarsh-kiln`);
  await page.getByRole("button", { name: "That’s me in chat" }).click();
  await expect(page.locator(".code b")).toBeVisible();
  const code = (await page.locator(".code b").textContent()) ?? "";
  await expect(async () => {
    await say(code, name);
    await expect(page.locator(".you")).toContainText(name, { timeout: 4_000 });
  }).toPass({ timeout: 20_000 });
  return page;
}

type Looked = Readonly<{ impact?: string | null; id: string; nodes: readonly Readonly<{ html: string }>[] }>;
/**
 * What stands seriously in somebody's way on a page, as axe finds it: by tags or by single rules, all when none are named.
 * It runs in the page itself and is put there once for each document, which is half of its time.
 */
export async function serious(page: Page, only: Readonly<{ tags?: readonly string[]; rules?: readonly string[] }> = {}): Promise<string[]> {
  if (!(await page.evaluate(() => "axe" in window))) await page.evaluate(axe.source);
  const looked = await page.evaluate(async ({ tags, rules }) => {
    const runOnly = tags !== undefined ? { type: "tag", values: tags } : rules !== undefined ? { type: "rule", values: rules } : undefined;
    const { run } = (window as unknown as { axe: { run: (in_: Document, how: object) => Promise<{ violations: Looked[] }> } }).axe;
    return (await run(document, { resultTypes: ["violations"], ...(runOnly === undefined ? {} : { runOnly }) })).violations;
  }, only);
  return looked
    .filter((v) => v.impact === "serious" || v.impact === "critical")
    .map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(" | ")}`);
}
/** Axe finds nothing serious on this page. */
export async function noneSerious(page: Page): Promise<void> {
  expect(await serious(page)).toEqual([]);
}
