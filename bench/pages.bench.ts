import { readdirSync, readFileSync } from "node:fs";
import { chromium as playwright, type Browser, type Page } from "@playwright/test";
import { type Bench, browserArgs, median, ms, type Row, type Stack } from "./row";

/** Lists and forms; and the pages that show games, whose previews come after them. */
const lists = ["/account", "/prepare/emotes", "/prepare/props", "/prepare/connections", "/review", "/review/people", "/review/sales"];
const editors = ["/prepare", "/prepare/games/old-spall", "/prepare/overlays/main-stage", "/prepare/rules", "/prepare/rewards", "/run"];
const rest = [
  "/prepare/commands",
  "/prepare/cues",
  "/prepare/points",
  "/prepare/show",
  "/rehearse",
  "/rehearse/lab",
  "/review/points",
  "/review/rounds",
];

const signIn = (page: Page, base: string) =>
  page.request.post(`${base}/api/demo-sign-in`, { headers: { origin: base }, data: { role: "owner" } });

/** A page as somebody meets it who was never here: its script before it works, and when something is first seen. */
async function cold(browser: Browser, base: string, path: string): Promise<Readonly<{ kilobytes: number; paintMs: number }>> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  try {
    const page = await context.newPage();
    await signIn(page, base);
    const sizes = new Map<string, number>();
    page.on("response", (response) => {
      const { pathname } = new URL(response.url());
      if (pathname.endsWith(".js"))
        void response.body().then(
          (body) => sizes.set(pathname, body.length),
          () => undefined,
        );
    });
    const html = await (await page.goto(`${base}${path}`))?.text();
    await page.waitForTimeout(600);
    const before = new Set([...(html ?? "").matchAll(/\/_next\/static\/chunks\/[\w.~-]+\.js/g)].map((m) => m[0]));
    const bytes = [...sizes].filter(([path_]) => before.has(path_)).reduce((sum, [, size]) => sum + size, 0);
    const paintMs = await page.evaluate(() => performance.getEntriesByName("first-contentful-paint")[0]?.startTime ?? NaN);
    return { kilobytes: bytes / 1000, paintMs };
  } finally {
    await context.close();
  }
}

/** From a click on a place to the first of its content, with what was loaded so far. */
async function clicks(page: Page, base: string): Promise<number[]> {
  await page.goto(`${base}/prepare/emotes`);
  const took: number[] = [];
  for (const name of ["Pictures, films and sounds", "Emotes", "Connections", "Emotes", "Pictures, films and sounds"]) {
    const link = page.getByRole("navigation").getByRole("link", { name, exact: true }).first();
    if ((await link.count()) === 0) continue;
    await page.evaluate(() => {
      const seen = document.querySelector("main")?.textContent ?? "";
      Object.assign(window, { clickedAt: 0, changedAt: 0 });
      document.addEventListener("click", () => Object.assign(window, { clickedAt: performance.now() }), { once: true, capture: true });
      new MutationObserver((_, observer) => {
        if ((document.querySelector("main")?.textContent ?? "") === seen) return;
        observer.disconnect();
        requestAnimationFrame(() => Object.assign(window, { changedAt: performance.now() }));
      }).observe(document.body, { childList: true, subtree: true, characterData: true });
    });
    await link.click();
    await page.waitForFunction(() => (window as unknown as { changedAt: number }).changedAt > 0, undefined, { timeout: 10_000 });
    took.push(
      await page.evaluate(
        () =>
          (window as unknown as { changedAt: number; clickedAt: number }).changedAt -
          (window as unknown as { clickedAt: number }).clickedAt,
      ),
    );
    await page.waitForTimeout(300);
  }
  return took;
}

/** What a process holds of its own, and its share of what it has together with others. */
const pss = (pid: number): number => Number(/^Pss:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/smaps_rollup`, "utf8"))?.[1] ?? NaN) / 1024;
const databaseOf = (stack: Stack): number =>
  Number(
    readdirSync("/proc").find((pid) => {
      try {
        return /^\d+$/.test(pid) && readFileSync(`/proc/${pid}/cmdline`, "utf8").includes(`--datadir=${stack.folder}/mariadb`);
      } catch {
        return false;
      }
    }),
  );

/** Operator pages: their weight, how soon they are seen, and what the whole installation holds after a tour of them. */
export async function measure({ chromium, startStack, isQuick }: Bench): Promise<Row[]> {
  const stack = await startStack({ name: "bench" });
  const browser = await playwright.launch({ executablePath: chromium, args: browserArgs });
  try {
    const weigh = async (paths: readonly string[]) => {
      const of: Readonly<{ path: string; kilobytes: number; paintMs: number }>[] = [];
      for (const path of paths) of.push({ path, ...(await cold(browser, stack.base, path)) });
      return of.sort((a, b) => b.kilobytes - a.kilobytes);
    };
    // The first page of all warms up the server; it is nobody's figure.
    await cold(browser, stack.base, "/account");
    const [light, heavy] = [await weigh(isQuick ? lists.slice(0, 4) : lists), await weigh(isQuick ? editors.slice(1, 6) : editors)];
    const paints = [...light, ...heavy].map((p) => p.paintMs);
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    await signIn(page, stack.base);
    const clicked = await clicks(page, stack.base);
    for (const path of [...lists, ...editors, ...rest]) await page.goto(`${stack.base}${path}`);
    const parts = Object.fromEntries(["web", "engine", "media", "lab", "practice"].map((name) => [name, pss(stack.pid(name))]));
    const database = pss(databaseOf(stack));
    const all = Object.values(parts).reduce((sum, mb) => sum + mb, 0) + database;
    const megabytes = (name: string, most: number): Row => ({
      what: `memory after a tour of all pages: ${name}`,
      ours: `${(parts[name] ?? NaN).toFixed(0)} MB`,
      budget: `≤ ${most} MB`,
      met: (parts[name] ?? NaN) <= most,
    });
    const weight = (what: string, pages: typeof light, most: number): Row => ({
      what: `script before a page works, raw: ${what}`,
      ours: `${(pages[0]?.kilobytes ?? NaN).toFixed(0)} kB (${pages[0]?.path}), middle ${median(pages.map((p) => p.kilobytes)).toFixed(0)} kB`,
      budget: `≤ ${most} kB`,
      met: (pages[0]?.kilobytes ?? NaN) <= most,
    });
    return [
      weight("lists and forms", light, 700),
      weight("editors and booth", heavy, 900),
      {
        what: "operator page, cold: first paint, the slowest",
        ours: ms(Math.max(...paints)),
        budget: "< 1 s",
        met: Math.max(...paints) < 1_000,
      },
      { what: "operator page, cold: first paint, the middle one", ours: ms(median(paints)), budget: "< 1 s", met: median(paints) < 1_000 },
      {
        what: "a click that changes the page: first content, the middle one",
        ours: ms(median(clicked)),
        budget: "< 300 ms",
        met: median(clicked) < 300,
      },
      megabytes("web", 350),
      megabytes("engine", 250),
      megabytes("media", 120),
      megabytes("lab", 120),
      { what: "memory: the whole installation with MariaDB", ours: `${all.toFixed(0)} MB`, budget: "≤ 900 MB", met: all <= 900 },
    ];
  } finally {
    await browser.close();
    await stack.stop();
  }
}
