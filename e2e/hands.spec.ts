import { AxeBuilder } from "@axe-core/playwright";
import { expect, type Page, test } from "@playwright/test";
import { base, chatConnected, control, practice, signIn } from "./support";

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
      await page.getByRole("tab", { name: "Looks" }).click();
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
      await page.getByRole("tab", { name: "Looks" }).click();
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

for (const surface of ["paper", "night"] as const) {
  test(`nothing serious stands in anybody’s way, on ${surface}`, async ({ page, context }) => {
    test.setTimeout(300_000);
    await context.addCookies([{ name: "izzam_surface", value: surface, url: base }]);
    const check = async (name: string): Promise<void> => {
      const { violations } = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"]).analyze();
      expect(
        violations
          .filter((v) => v.impact === "serious" || v.impact === "critical")
          .map((v) => `${name}: ${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(" | ")}`),
      ).toEqual([]);
    };
    await page.goto(`${base}/sign-in`);
    await check("Sign in");
    await signIn(page);
    for (const [name, open] of screens) {
      await open(page);
      await page.waitForTimeout(250);
      await check(name);
    }
    await page.getByRole("button", { name: /to look at|All connected/ }).click();
    await page.locator("[data-health-item=chat]").waitFor();
    await check("Health");
    await page.keyboard.press("Escape");
    await page.getByRole("heading", { name: "Shows so far" }).click();
    await page.keyboard.press("Shift+?");
    await page.getByRole("dialog").waitFor();
    await page.waitForTimeout(250);
    await check("Keys");
  });
}

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
  await page.getByPlaceholder("What do you want to do?").fill("kiln sparks");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Name of the game")).toHaveValue("Kiln sparks");
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder("What do you want to do?").fill("zzzz");
  await expect(page.getByText("Nothing like that here.")).toBeVisible();
});

test("a single key is given to another action, or to none, and stays so", async ({ page }) => {
  await signIn(page);
  await page.goto(`${base}/prepare/games/emote-wall`);
  await expect(page.getByRole("button", { name: /^One emote/ })).toContainText("Q");
  await page.getByRole("heading", { name: "Try it" }).click();
  await page.keyboard.press("Shift+?");
  await page.getByRole("button", { name: "Change the key for: Try: one emote" }).click();
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

test("Night or Paper is chosen with one key, and stays", async ({ page }) => {
  await signIn(page);
  await page.keyboard.press("n");
  await expect(page.locator("html")).toHaveClass(/dark/);
  await page.reload();
  await expect(page.locator("html")).toHaveClass(/dark/);
});
