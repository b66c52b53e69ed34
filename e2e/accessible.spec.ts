import { expect, type Page } from "@playwright/test";
import { base, chatConnected, control, practice, serious, settled, signIn, test } from "./support";

test.describe.configure({ mode: "parallel" });
test.beforeAll(() => control("/demo/reset"));

/** Each screen: its address, and what is opened on it. */
const screens: readonly [name: string, path: string, open?: (page: Page) => Promise<unknown>][] = [
  [
    "Games",
    "/prepare",
    async (page) => {
      await chatConnected(page);
    },
  ],
  [
    "Editor, rules",
    "/prepare/games/emote-wall",
    async (page) => {
      await page.getByRole("button", { name: /^One emote/ }).click();
    },
  ],
  [
    "Editor, looks",
    "/prepare/games/emote-wall",
    async (page) => {
      await page.getByRole("tab", { name: "Appearance" }).click();
      await page.getByText("Where they move").waitFor();
    },
  ],
  [
    "Editor, where it is seen",
    "/prepare/games/emote-wall",
    async (page) => {
      await page.getByRole("tab", { name: "Where it is seen" }).click();
      await page.getByText("Main stage", { exact: true }).waitFor();
    },
  ],
  [
    "Boss editor, rules",
    "/prepare/games/old-spall",
    async (page) => {
      await page.getByRole("button", { name: /^A tip/ }).click();
    },
  ],
  [
    "Boss editor, looks",
    "/prepare/games/old-spall",
    async (page) => {
      await page.getByRole("tab", { name: "Appearance" }).click();
      await page.getByText("What is shown").waitFor();
    },
  ],
  [
    "Wheel editor, segments",
    "/prepare/games/glaze-wheel",
    async (page) => {
      await page.getByRole("button", { name: "More of Iron red" }).click();
      await page.getByRole("button", { name: "Paste lines" }).click();
    },
  ],
  [
    "Wheel editor, looks",
    "/prepare/games/glaze-wheel",
    async (page) => {
      await page.getByRole("tab", { name: "Appearance" }).click();
      await page.getByText("The tick of the pegs").waitFor();
    },
  ],
  [
    "Wheel, what happened",
    "/prepare/games/glaze-wheel",
    async (page) => {
      await page.getByRole("tab", { name: "What happened" }).click();
      await page.getByRole("list", { name: "Spins" }).getByRole("listitem").first().waitFor();
    },
  ],
  [
    "A round, checked",
    "/prepare/games/glaze-wheel",
    async (page) => {
      await page.getByRole("tab", { name: "What happened" }).click();
      const round = await page.getByRole("link", { name: "Check it" }).first().getAttribute("href");
      await page.goto(`${base}${round ?? ""}`);
      await page.getByText("It holds").waitFor();
    },
  ],
  [
    "Brimful editor",
    "/prepare/games/the-open-pot",
    async (page) => {
      await page.locator("[data-tier=brick]").getByRole("button", { name: "Change this tier" }).click();
      await page.getByLabel("Mass of a piece").waitFor();
    },
  ],
  [
    "Brimful appearance",
    "/prepare/games/the-open-pot",
    async (page) => {
      await page.getByRole("tab", { name: "Appearance" }).click();
      await page.getByRole("button", { name: "Use an outline of your own" }).click();
    },
  ],
  [
    "How things move",
    "/prepare/motion",
    async (page) => {
      await page.getByRole("button", { name: /^Play drop/ }).waitFor();
      // Half faded it is no text to be read: each has been played, and stands there again.
      await page.waitForFunction(() =>
        [...document.querySelectorAll<HTMLElement>("[data-word] [aria-hidden] > div")].every(
          (tag) => tag.style.opacity === "1" && tag.style.transform === "",
        ),
      );
    },
  ],
  [
    "Draw editor",
    "/prepare/games/weekly-mug",
    async (page) => {
      await page.getByText("What chat is told").click();
      await page.getByLabel("It is opened").waitFor();
    },
  ],
  [
    "Prediction editor",
    "/prepare/games/kiln-prediction",
    async (page) => {
      await page.getByRole("list", { name: "Templates" }).getByRole("listitem").first().waitFor();
    },
  ],
  [
    "A new question, in the booth",
    "/run",
    async (page) => {
      await page.getByTestId("focus").waitFor();
      for (let n = 0; n < 7 && !(await page.getByTestId("prediction-booth").isVisible()); n += 1) {
        await page.keyboard.press("g");
        await settled(page);
      }
      await page.getByRole("button", { name: "Ask something else…" }).click();
      await page.getByLabel("The question").waitFor();
    },
  ],
  [
    "Rounds and prizes",
    "/review/rounds",
    async (page) => {
      await page.getByRole("list", { name: "Prizes to hand over" }).waitFor();
    },
  ],
  [
    "Greeting editor",
    "/prepare/games/at-the-door",
    async (page) => {
      await page.getByTestId("greeting-lines").waitFor();
    },
  ],
  [
    "Presenting editor",
    "/prepare/games/worth-a-visit",
    async (page) => {
      await page.getByText("What chat is told").first().waitFor();
    },
  ],
  [
    "Voices editor",
    "/prepare/games/read-aloud",
    async (page) => {
      await page.getByTestId("voices-list").waitFor();
    },
  ],
  [
    "Rules",
    "/prepare/rules",
    async (page) => {
      await page.locator("[data-rule=tips]").getByRole("button", { name: "Change" }).click();
      await page.getByText("Words never shown").waitFor();
    },
  ],
  [
    "Cues",
    "/prepare/cues",
    async (page) => {
      await page.locator("[data-cue=break]").getByRole("button", { name: "Change" }).click();
      await page.getByText("When it is fired again").waitFor();
    },
  ],
  [
    "Show",
    "/prepare/show",
    async (page) => {
      await page.locator("[data-plan=wake]").waitFor();
    },
  ],
  [
    "Booth",
    "/run",
    async (page) => {
      await page.getByTestId("boss-health").waitFor();
      await page.locator("[data-stub=wake]").waitFor();
    },
  ],
  [
    "Remote",
    "/remote",
    async (page) => {
      await page.getByText("Next in the rundown").or(page.getByText("Off air")).first().waitFor();
    },
  ],
  [
    "Props",
    "/prepare/props",
    async (page) => {
      await page.getByRole("button", { name: "Change Small bell" }).click();
      await page.getByTestId("prop-detail").waitFor();
    },
  ],
  [
    "Stage",
    "/prepare/overlays/main-stage",
    async (page) => {
      await page.locator("[data-place=old-spall]").click();
      await page.getByText("What it is for").waitFor();
    },
  ],
  [
    "Emotes",
    "/prepare/emotes",
    async (page) => {
      await page.locator("[data-emote]").first().waitFor();
    },
  ],
  [
    "Overlays",
    "/prepare/overlays",
    async (page) => {
      await page.getByRole("button", { name: "Copy link" }).waitFor();
    },
  ],
  [
    "Connections",
    "/prepare/connections",
    async (page) => {
      await page.getByRole("button", { name: /tags mean/ }).click();
    },
  ],
  [
    "Rewards",
    "/prepare/rewards",
    async (page) => {
      await page.getByLabel("Price in clay").waitFor();
    },
  ],
  [
    "Commands",
    "/prepare/commands",
    async (page) => {
      await page.locator("[data-command='!cone']").getByRole("button", { name: "Change" }).click();
    },
  ],
  ["Points", "/prepare/points"],
  ["Points in review", "/review/points"],
  ["Sales", "/review/sales"],
  [
    "People",
    "/review/people",
    async (page) => {
      await page.getByRole("button", { name: /oatcake_ada/ }).click();
      await page.getByRole("list", { name: "History of oatcake_ada" }).waitFor();
    },
  ],
  ["The viewer page", "/c/saltmarsh-kiln"],
  [
    "Rehearse",
    "/rehearse",
    async (page) => {
      await page.getByTestId("check-list").getByRole("list").waitFor();
    },
  ],
  ["The odds lab", "/rehearse/lab"],
  ["Run", "/run"],
  ["Review", "/review"],
  [
    "A past show",
    "/review",
    async (page) => {
      await page.getByRole("list", { name: "Shows so far" }).getByRole("link").nth(1).click();
      await page.getByRole("list", { name: "Moments" }).waitFor();
      await page.getByRole("list", { name: "Lines of the show" }).waitFor();
    },
  ],
  [
    "Health",
    "/review",
    async (page) => {
      await page.getByRole("button", { name: /to look at|All connected/ }).click();
      await page.locator("[data-health-item=chat]").waitFor();
    },
  ],
  [
    "Keys",
    "/review",
    async (page) => {
      await page.getByRole("heading", { name: "Shows so far" }).click();
      await page.keyboard.press("Shift+?");
      await page.getByRole("dialog").waitFor();
    },
  ],
];

/** By all that is known of it on paper; the other surface is the same page in other colours. */
async function inTheWay(page: Page): Promise<string[]> {
  const found: string[] = [];
  await settled(page);
  // A place that is half under the top bar, since the page was scrolled, is no smaller for that.
  await page.evaluate(() => scrollTo(0, 0));
  found.push(...(await serious(page, { tags: ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"] })));
  await page.evaluate(() => document.documentElement.classList.add("dark"));
  await settled(page);
  found.push(...(await serious(page, { rules: ["color-contrast", "link-in-text-block"] })));
  return found;
}

test.beforeEach(({ context }) => context.addCookies([{ name: "izzam_surface", value: "paper", url: base }]));

test("Sign in: nothing serious stands in anybody’s way, on either surface", async ({ page }) => {
  await page.emulateMedia({ reducedMotion: "reduce" });
  await page.goto(`${base}/sign-in`);
  expect(await inTheWay(page)).toEqual([]);
});

/** Each group in one page, one screen after the other: what is new of a screen is itself, not the way there. */
const groups: readonly [name: string, of: (path: string) => boolean][] = [
  ["where games are set up", (path) => path.startsWith("/prepare/games/")],
  ["in the rest of Prepare", (path) => path.startsWith("/prepare") && !path.startsWith("/prepare/games/")],
  ["in Rehearse, Run and Review", (path) => /^\/(rehearse|run|review)/.test(path)],
];
const rest = screens.filter(([, path]) => !groups.some(([, of]) => of(path)));
for (const [name, list] of [...groups.map(([n, of]) => [n, screens.filter(([, path]) => of(path))] as const), ["elsewhere", rest] as const])
  test(`nothing serious stands in anybody’s way ${name}, on either surface`, async ({ page }) => {
    test.setTimeout(45_000 * list.length);
    expect(list.length).toBeGreaterThan(0);
    await signIn(page, "owner", "/account");
    for (const [screen, path, open] of list)
      await test.step(
        screen,
        async () => {
          await page.goto(`${base}${path}`);
          await open?.(page);
          expect.soft(await inTheWay(page), screen).toEqual([]);
        },
        { timeout: 45_000 },
      );
  });

test("the practice rig stands in nobody’s way either", async ({ page }) => {
  await page.goto(practice);
  await page.getByText("Izzam is listening").waitFor();
  expect(await serious(page, { tags: ["wcag2a", "wcag2aa"] })).toEqual([]);
});
