import { type Browser, expect, type Page } from "@playwright/test";
import {
  ask,
  base,
  chatConnected,
  control,
  copyLink,
  focusGame,
  give,
  heard,
  openOverlay,
  practice,
  say,
  seen,
  signIn,
  test,
  viewerPage,
} from "./support";

test.beforeEach(() => control("/demo/reset"));

type Shown = Readonly<Record<string, Readonly<{ title?: string; line?: string; name?: string; page?: string; text?: string }> | null>>;
const shown = (page: Page): Promise<Shown> =>
  page.evaluate(() => (window as unknown as { izzamFacts: () => { shown: Shown } }).izzamFacts().shown);
/** How loud a page is just now. */
const level = (page: Page): Promise<number> =>
  page.evaluate(() => (window as unknown as { izzamFacts: () => { level: number } }).izzamFacts().level);
const onAir = async (page: Page): Promise<void> => {
  const done = await ask(page, "POST", "/games/show/command", { command: { do: "show", what: "on-air" }, id: `command-${Date.now()}` });
  expect(done.ok).toBe(true);
};
async function phoneOf(browser: Browser, page: Page): Promise<Page> {
  await page.goto(`${base}/run`);
  await page.getByRole("button", { name: "Phone remote" }).click();
  await page.getByRole("button", { name: "Pair a phone" }).click();
  const code = (await page.getByTestId("pairing-code").innerText()).replace(/\s/g, "");
  await page.getByRole("button", { name: "Close" }).first().click();
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })).newPage();
  await phone.goto(`${base}/remote`);
  await phone.getByLabel("Code").fill(code);
  await phone.getByLabel("What this phone is called in the booth").fill("Tom’s phone");
  await phone.getByRole("button", { name: "Pair", exact: true }).click();
  return phone;
}
/** Whether a page ever had this face drawn from the platform, not from letters. */
const faceOf = async (overlay: Page, name: string): Promise<number> =>
  overlay.evaluate(async (who) => {
    const asked = performance.getEntriesByType("resource").filter((r) => r.name.includes(`/${who}?`));
    const last = asked.at(-1)?.name;
    // As the server says now, whatever this browser has kept.
    return last === undefined ? 0 : (await fetch(last, { cache: "no-store" })).status;
  }, name);

test("somebody new is greeted by name and face, presented by a moderator’s word, heard in the voice of their role and captioned; skipped from the phone", async ({
  page,
  browser,
}) => {
  test.setTimeout(150_000);
  const broadcast = await browser.newContext({ permissions: ["clipboard-read", "clipboard-write"] });
  const owner = await broadcast.newPage();
  await signIn(owner);
  const overlay = await openOverlay(broadcast, await copyLink(owner, { boss: true }));
  await signIn(page);
  await chatConnected(page);
  expect(
    await ask(page, "PATCH", "/overlays/main-stage/set-up", {
      dress: { look: "kiln", colours: { panel: "", letters: "", accent: "" }, font: { name: "", url: "" }, captions: true },
    }),
  ).toMatchObject({ ok: true });
  const phone = await phoneOf(browser, page);
  await onAir(page);

  // Greeted: once, by the name, with a line of the list that is for them, and the face that the platform has of them.
  await say("good evening", "seaglass_sia");
  await expect.poll(async () => (await shown(overlay))["at-the-door"]?.title).toBe("seaglass_sia");
  expect(["comes in from the marsh for the first time", "found the kiln. Mind the buckets!"]).toContain(
    (await shown(overlay))["at-the-door"]?.line,
  );
  await expect.poll(() => faceOf(overlay, "seaglass_sia")).toBe(200);
  await expect.poll(async () => (await seen(overlay)).drawn).toBeGreaterThan(20_000);
  await expect(page.getByTestId("talk").locator("[data-chip]").filter({ hasText: "greeted" }).first()).toBeVisible();
  await say("and again", "seaglass_sia");

  // Presented: by a moderator's word; who is nobody is told in chat and never shown.
  await say("!meet nobody_at_all", "spongebearer");
  await expect.poll(heard).toContainEqual(expect.stringContaining("Nobody called nobody_at_all was found."));
  await say("!meet @seaglass_sia", "spongebearer");
  await expect.poll(async () => (await shown(overlay))["worth-a-visit"]?.page).toBe("https://marsh.example/seaglass_sia");
  await expect.poll(heard).toContainEqual("Do knock at seaglass_sia’s door: https://marsh.example/seaglass_sia");

  // Spoken: heard on the page that has the voice, in their role's voice, and captioned. The booth is led there before.
  await focusGame(page, "read-aloud", "voices-booth");
  await say(
    "!say the tall vase will survive, I am quite sure of it, whatever the tide and the kiln may say tonight, and whoever says otherwise shall bring the biscuits next week",
    "seaglass_sia",
  );
  await expect.poll(async () => (await shown(overlay))["read-aloud"]?.name).toBe("seaglass_sia");
  await expect(overlay.locator(".izzam-caption")).toContainText("seaglass_sia: the tall vase will survive");
  await expect.poll(() => level(overlay), { intervals: [100] }).toBeGreaterThan(0.005);
  await expect(page.getByTestId("voices-booth")).toContainText("the tall vase will survive");
  await phone.locator("section").filter({ hasText: "Read aloud" }).getByRole("button", { name: "Skip" }).tap();
  await expect.poll(async () => (await shown(overlay))["read-aloud"]).toBeNull();
  await expect.poll(() => level(overlay), { intervals: [100] }).toBeLessThan(0.002);
  await expect(overlay.locator(".izzam-caption")).toHaveCount(0);

  // Hushed: what is said falls silent at once, and nothing begins until it is over.
  await say("!say once more, and this time the kiln itself shall be quiet and listen to every single word of it", "grandad_grog");
  await expect.poll(() => level(overlay), { intervals: [100] }).toBeGreaterThan(0.005);
  await page.keyboard.press(".");
  await expect.poll(() => level(overlay), { intervals: [100] }).toBeLessThan(0.002);
});

test("a picture is shown no more, by its owner or an operator: initials at once, on every page", async ({ page, browser }) => {
  test.setTimeout(150_000);
  const broadcast = await browser.newContext({ permissions: ["clipboard-read", "clipboard-write"] });
  const owner = await broadcast.newPage();
  await signIn(owner);
  const overlay = await openOverlay(broadcast, await copyLink(owner, { boss: true }));
  await signIn(page, "moderator");
  await chatConnected(page);
  await page.goto(`${base}/run`);
  await onAir(page);
  await say("good evening", "oatcake_ada");
  await expect.poll(() => faceOf(overlay, "oatcake_ada")).toBe(200);
  // By its owner, on their page, which shows them what others see.
  const own = await viewerPage(browser, "oatcake_ada");
  const face = own.locator(".you .face");
  await expect(face).toHaveAttribute("data-face", "picture");
  // Answers come late: whoever thinks again meanwhile is heard all the same.
  await own.route("**/api/viewer/*/act", async (route) => {
    const answer = await route.fetch();
    await new Promise((resolve) => setTimeout(resolve, 4_000));
    await route.fulfill({ response: answer });
  });
  await own.getByRole("button", { name: "Hide my picture on stream" }).click();
  await expect(face).toHaveAttribute("data-face", "initials");
  await expect.poll(() => faceOf(overlay, "oatcake_ada")).toBe(204);
  await own.getByRole("button", { name: "Show my picture on stream" }).click();
  await expect(face).toHaveAttribute("data-face", "picture");
  await expect.poll(() => faceOf(overlay, "oatcake_ada")).toBe(200);
  await page.getByTestId("talk").getByRole("button", { name: "oatcake_ada" }).first().click();
  await page.getByRole("button", { name: "Hide their picture" }).click();
  await expect(page.getByText("Initials stand for oatcake_ada from now on.")).toBeVisible();
  await expect.poll(() => faceOf(overlay, "oatcake_ada")).toBe(204);
  // Nobody but pages of this channel is told a face, and nobody's who was never here.
  expect((await fetch(`${base}/faces/saltmarsh-kiln/a-word-that-is-wrong-22/oatcake_ada`)).status).toBe(204);
});

test("tips are shown and heard; each text waits for a yes where that is set, and is let through or dropped in the booth", async ({
  page,
  browser,
}) => {
  const broadcast = await browser.newContext({ permissions: ["clipboard-read", "clipboard-write"] });
  const owner = await broadcast.newPage();
  await signIn(owner, "owner", "/prepare/games/read-aloud");
  await owner.getByLabel("Whether somebody must say yes").selectOption("on");
  await owner.getByRole("button", { name: /^Publish/ }).click();
  await expect(owner.getByText("all published")).toBeVisible();
  await owner.goto(`${base}/prepare`);
  const overlay = await openOverlay(broadcast, await copyLink(owner, { boss: true }));
  await signIn(page, "moderator", "/run");
  await onAir(page);
  await give({ kind: "tip", as: "oatcake_ada", amount: 1_000, currency: "EUR", text: "for more <b>clay</b> https://example.com/x" });
  await give({ kind: "tip", as: "quietferry", amount: 1_000, currency: "EUR", text: "second thoughts" });
  await expect(page.getByText("Let this be said? “for more <b>clay</b> (link)”").first()).toBeVisible();
  expect((await shown(overlay))["read-aloud"]).toBeNull();
  await focusGame(page, "read-aloud", "voices-booth");
  const booth = page.getByTestId("voices-booth");
  await booth.getByRole("button", { name: "Drop what quietferry wrote" }).click();
  await booth.getByRole("button", { name: "Say it: what oatcake_ada wrote" }).click();
  await expect.poll(async () => (await shown(overlay))["read-aloud"]?.text).toBe("for more <b>clay</b> (link)");
  await expect(booth).not.toContainText("second thoughts");
});

test("the rig answers WebFinger for its viewers, and knows nobody else", async () => {
  const asked = (name: string) => fetch(`${practice}/.well-known/webfinger?resource=acct:${encodeURIComponent(name)}@rig`);
  const jrd = (await (await asked("oatcake_ada")).json()) as { links: { rel: string; href: string }[] };
  const avatar = jrd.links.find((l) => l.rel === "http://webfinger.net/rel/avatar")!.href;
  expect((await fetch(avatar)).headers.get("content-type")).toBe("image/svg+xml");
  expect([(await asked("nobody")).status, (await asked("../x")).status]).toEqual([404, 404]);
});
