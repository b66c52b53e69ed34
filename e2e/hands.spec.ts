import { AxeBuilder } from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";
import { base, chatConnected, control, practice, say, settled, signIn, test } from "./support";

test.beforeAll(() => control("/demo/reset"));

const screens: [string, (page: Page) => Promise<void>][] = [
  [
    "Games",
    async (page) => {
      await page.goto(`${base}/prepare`);
      await chatConnected(page);
    },
  ],
  [
    "Editor, rules",
    async (page) => {
      await page.goto(`${base}/prepare/games/emote-wall`);
      await page.getByRole("button", { name: /^One emote/ }).click();
    },
  ],
  [
    "Editor, looks",
    async (page) => {
      await page.goto(`${base}/prepare/games/emote-wall`);
      await page.getByRole("tab", { name: "Appearance" }).click();
      await page.getByText("Where they move").waitFor();
    },
  ],
  [
    "Editor, where it is seen",
    async (page) => {
      await page.goto(`${base}/prepare/games/emote-wall`);
      await page.getByRole("tab", { name: "Where it is seen" }).click();
      await page.getByText("Main stage", { exact: true }).waitFor();
    },
  ],
  [
    "Boss editor, rules",
    async (page) => {
      await page.goto(`${base}/prepare/games/old-spall`);
      await page.getByRole("button", { name: /^A tip/ }).click();
    },
  ],
  [
    "Boss editor, looks",
    async (page) => {
      await page.goto(`${base}/prepare/games/old-spall`);
      await page.getByRole("tab", { name: "Appearance" }).click();
      await page.getByText("What is shown").waitFor();
    },
  ],
  [
    "Rules",
    async (page) => {
      await page.goto(`${base}/prepare/rules`);
      await page.locator("[data-rule=tips]").getByRole("button", { name: "Change" }).click();
      await page.getByText("Words never shown").waitFor();
    },
  ],
  [
    "Cues",
    async (page) => {
      await page.goto(`${base}/prepare/cues`);
      await page.locator("[data-cue=break]").getByRole("button", { name: "Change" }).click();
      await page.getByText("When it is fired again").waitFor();
    },
  ],
  [
    "Show",
    async (page) => {
      await page.goto(`${base}/prepare/show`);
      await page.locator("[data-plan=wake]").waitFor();
    },
  ],
  [
    "Booth",
    async (page) => {
      await page.goto(`${base}/run`);
      await page.getByTestId("boss-health").waitFor();
      await page.locator("[data-stub=wake]").waitFor();
    },
  ],
  [
    "Remote",
    async (page) => {
      await page.goto(`${base}/remote`);
      await page.getByText("Next in the rundown").or(page.getByText("Off air")).first().waitFor();
    },
  ],
  [
    "Props",
    async (page) => {
      await page.goto(`${base}/prepare/props`);
      await page.getByRole("button", { name: "Change Small bell" }).click();
      await page.getByTestId("prop-detail").waitFor();
    },
  ],
  [
    "Stage",
    async (page) => {
      await page.goto(`${base}/prepare/overlays/main-stage`);
      await page.locator("[data-place=old-spall]").click();
      await page.getByText("What it is for").waitFor();
    },
  ],
  [
    "Emotes",
    async (page) => {
      await page.goto(`${base}/prepare/emotes`);
      await page.locator("[data-emote]").first().waitFor();
    },
  ],
  [
    "Overlays",
    async (page) => {
      await page.goto(`${base}/prepare/overlays`);
      await page.getByRole("button", { name: "Copy link" }).waitFor();
    },
  ],
  [
    "Connections",
    async (page) => {
      await page.goto(`${base}/prepare/connections`);
      await page.getByRole("button", { name: /tags mean/ }).click();
    },
  ],
  [
    "Rewards",
    async (page) => {
      await page.goto(`${base}/prepare/rewards`);
      await page.getByLabel("Price in clay").waitFor();
    },
  ],
  [
    "Commands",
    async (page) => {
      await page.goto(`${base}/prepare/commands`);
      await page.locator("[data-command='!cone']").getByRole("button", { name: "Change" }).click();
    },
  ],
  ["Points", async (page) => void (await page.goto(`${base}/prepare/points`))],
  ["Points in review", async (page) => void (await page.goto(`${base}/review/points`))],
  ["Sales", async (page) => void (await page.goto(`${base}/review/sales`))],
  [
    "People",
    async (page) => {
      await page.goto(`${base}/review/people`);
      await page.getByRole("button", { name: /oatcake_ada/ }).click();
      await page.getByRole("list", { name: "History of oatcake_ada" }).waitFor();
    },
  ],
  ["The viewer page", async (page) => void (await page.goto(`${base}/c/saltmarsh-kiln`))],
  ["Rehearse", async (page) => void (await page.goto(`${base}/rehearse`))],
  ["Run", async (page) => void (await page.goto(`${base}/run`))],
  ["Review", async (page) => void (await page.goto(`${base}/review`))],
];

test("nothing serious stands in anybody’s way, on either surface", async ({ page, context }) => {
  test.setTimeout(300_000);
  await context.addCookies([{ name: "izzam_surface", value: "paper", url: base }]);
  const found = async (name: string, axe: AxeBuilder): Promise<readonly string[]> =>
    (await axe.analyze()).violations
      .filter((v) => v.impact === "serious" || v.impact === "critical")
      .map((v) => `${name}: ${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(" | ")}`);
  const night = (on: boolean): Promise<void> => page.evaluate((is) => void document.documentElement.classList.toggle("dark", is), on);
  const check = async (name: string): Promise<void> => {
    // A place that is half under the top bar, since the page was scrolled, is no smaller for that.
    await page.evaluate(() => scrollTo(0, 0));
    expect(await found(name, new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"]))).toEqual([]);
    // The other surface is the same page in other colours.
    await night(true);
    await settled(page);
    expect(await found(`${name}, at night`, new AxeBuilder({ page }).withRules(["color-contrast", "link-in-text-block"]))).toEqual([]);
    await night(false);
  };
  await page.goto(`${base}/sign-in`);
  await check("Sign in");
  await signIn(page);
  for (const [name, open] of screens) {
    await open(page);
    await settled(page);
    await check(name);
  }
  await page.getByRole("button", { name: /to look at|All connected/ }).click();
  await page.locator("[data-health-item=chat]").waitFor();
  await check("Health");
  await page.keyboard.press("Escape");
  await page.getByRole("heading", { name: "Shows so far" }).click();
  await page.keyboard.press("Shift+?");
  await page.getByRole("dialog").waitFor();
  await settled(page);
  await check("Keys");
});

test("the practice rig stands in nobody’s way either", async ({ page }) => {
  await page.goto(practice);
  await page.getByText("Izzam is listening").waitFor();
  const { violations } = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa"]).analyze();
  expect(
    violations.filter((v) => v.impact === "serious" || v.impact === "critical").map((v) => `${v.id}: ${v.nodes[0]?.html ?? ""}`),
  ).toEqual([]);
});

test("one search over every action, and the phases by their keys", async ({ page }) => {
  await signIn(page);
  await page.keyboard.press("4");
  await expect(page).toHaveURL(/review/);
  await page.keyboard.press("1");
  await expect(page).toHaveURL(/prepare/);
  await page.keyboard.press("Control+k");
  const find = page.getByPlaceholder(/^Find a place/);
  await find.fill("kiln sparks");
  await expect(page.getByRole("option", { name: /^Kiln sparks/ })).toHaveAttribute("data-selected", "true");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Name of the game")).toHaveValue("Kiln sparks");
  await page.keyboard.press("Control+k");
  await find.fill("zzzz");
  await expect(page.getByText("Nothing is called that here.")).toBeVisible();
  // What silences is never the first for a word that is not its own.
  for (const [word, first] of [
    ["overlays", "Overlays"],
    ["rewards", "Rewards"],
    ["phone", "Pair a phone"],
    ["mute", "People"],
    ["kiln roar", "Kiln roar"],
    ["kiln door", "Kiln door"],
  ] as const) {
    await find.fill(word);
    await expect(page.locator("[cmdk-item]").first()).toContainText(first);
  }
  await find.fill("quietferry");
  await page.getByRole("option", { name: "quietferry" }).click();
  await expect(page).toHaveURL(/review\/people/);
  await expect(page.getByRole("heading", { name: "quietferry" })).toBeVisible();
  await expect(page.getByText("Hushed:")).toHaveCount(0);
});

test("a single key is given to another action, or to none, and stays so", async ({ page }) => {
  await signIn(page, "owner", "/prepare/games/emote-wall");
  await expect(page.getByRole("button", { name: /^One emote/ })).toContainText("Q");
  await page.getByRole("heading", { name: "Try it" }).click();
  await page.keyboard.press("Shift+?");
  await page.getByRole("button", { name: "Change the key for: Try: one emote" }).click();
  // One that is taken says by whom first.
  await page.keyboard.press("w");
  await expect(page.getByText("W is “Try: one message with many”")).toBeVisible();
  await page.keyboard.press("z");
  await page.getByRole("button", { name: "No key for: Try: a storm" }).click();
  await page.getByRole("button", { name: "Close" }).click();
  await page.reload();
  await expect(page.getByRole("button", { name: /^One emote/ })).toContainText("Z");
  await page.getByRole("heading", { name: "Try it" }).click();
  await page.keyboard.press("z");
  await expect(page.getByTestId("trial-report")).toContainText("1 emote shown");
  await page.keyboard.press("r");
  await expect(page.getByTestId("trial-report")).not.toContainText("storm");
  // Typing is never a command.
  await page.getByLabel("A message to try").fill("z");
  await page.getByLabel("A message to try").press(".");
  await expect(page.getByText("Hushed:")).toHaveCount(0);
});

test("by keys alone: over the bar, from part to part, and through the talk to a viewer’s card", async ({ page }) => {
  await signIn(page, "owner", "/run");
  await page.getByTestId("boss-health").waitFor();
  await page.keyboard.press("Tab");
  await expect(page.getByRole("link", { name: "Skip to the screen" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("main")).toBeFocused();
  for (const as of ["quietferry", "pale_oar"]) await say("good evening", as);
  const talk = page.getByTestId("talk");
  await expect(talk.getByRole("button", { name: "pale_oar" })).toBeVisible();
  // Part by part, backwards: the bar, and then the last of the screen, which is the talk; and forwards again.
  await page.keyboard.press("Shift+F6");
  await expect(page.locator("header:focus-within")).toHaveCount(1);
  await page.keyboard.press("Shift+F6");
  await expect(page.locator("[data-region]:focus-within").last()).toHaveText(/^Talk/);
  await page.keyboard.press("F6");
  await expect(page.locator("header:focus-within")).toHaveCount(1);
  await talk.focus();
  await page.keyboard.press("ArrowUp");
  await expect(talk.getByRole("button", { name: "pale_oar" })).toBeFocused();
  await page.keyboard.press("ArrowUp");
  await expect(talk.getByRole("button", { name: "quietferry" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog", { name: /quietferry/ })).toBeVisible();
  await page.keyboard.press("Escape");
  // The cues are one stop, and arrows move among them.
  const cues = page.getByRole("group", { name: "Cues" });
  await cues.getByRole("button").first().focus();
  await page.keyboard.press("ArrowRight");
  await expect(cues.getByRole("button").nth(1)).toBeFocused();
  await page.keyboard.press("Home");
  await expect(cues.getByRole("button").first()).toBeFocused();
});

test("Night or Paper is chosen with one key, and stays", async ({ page }) => {
  await signIn(page);
  await page.keyboard.press("n");
  await expect(page.locator("html")).toHaveClass(/dark/);
  await page.reload();
  await expect(page.locator("html")).toHaveClass(/dark/);
});
