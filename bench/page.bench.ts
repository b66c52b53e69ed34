import { gzipSync } from "node:zlib";
import { chromium as playwright } from "@playwright/test";
import { type Bench, browserArgs, median, ms, type Row } from "./row";

/** The overlay page: how much script it loads, and how long until it stands ready with its stage. */
export async function measure({ chromium, startStack }: Bench): Promise<Row[]> {
  /** What the page loads, and nothing that lies beside it: the physics worker comes with a stage that needs it. */
  const loaded = new Map<string, number>();
  const stack = await startStack({ name: "bench" });
  const browser = await playwright.launch({ executablePath: chromium, args: browserArgs });
  try {
    const context = await browser.newContext({ viewport: { width: 1920, height: 1080 } });
    const operator = await context.newPage();
    await operator.goto(`${stack.base}/sign-in`);
    await operator.getByRole("button", { name: "Enter as owner" }).click();
    await operator.waitForURL(/prepare/);
    const made = (await (
      await operator.request.post(`${stack.base}/api/overlays/main-stage/link`, { headers: { origin: stack.base }, data: { do: "copy" } })
    ).json()) as { value: { token: string } };
    const times: number[] = [];
    for (let i = 0; i < 5; i += 1) {
      const cold = await browser.newContext({ viewport: { width: 1920, height: 1080 } });
      const page = await cold.newPage();
      await page.addInitScript(() => {
        const Real = window.WebSocket;
        window.WebSocket = class extends Real {
          constructor(url: string | URL) {
            super(url);
            this.addEventListener("message", () => requestAnimationFrame(() => Object.assign(window, { readyAt: performance.now() })), {
              once: true,
            });
          }
        };
      });
      page.on("response", (response) => {
        const { pathname } = new URL(response.url());
        if (!pathname.endsWith(".js")) return;
        void response.body().then(
          (body) => loaded.set(pathname, gzipSync(body).length),
          () => undefined,
        );
      });
      await page.goto(`${stack.base}/overlay#${made.value.token}`);
      await page.waitForFunction(() => "readyAt" in window);
      times.push(await page.evaluate(() => (window as unknown as { readyAt: number }).readyAt));
      await cold.close();
    }
    const [own, physics] = [false, true].map((is) => [...loaded].filter(([p]) => /physics|rapier/.test(p) === is));
    const sum = (list: readonly (readonly [string, number])[] = []): number => list.reduce((all, [, bytes]) => all + bytes, 0);
    const gzipped = sum(own);
    return [
      {
        what: "overlay page: physics, gzipped, where something piles up",
        ours: `${(sum(physics) / 1000).toFixed(0)} kB in ${physics?.length ?? 0}`,
        budget: "once",
        met: (physics?.length ?? 0) <= 1,
      },
      { what: "overlay page: script, gzipped", ours: `${(gzipped / 1000).toFixed(0)} kB`, budget: "< 200 kB", met: gzipped < 200_000 },
      { what: "overlay page: first frame after the link opens", ours: ms(median(times)), budget: "< 1.5 s", met: median(times) < 1_500 },
    ];
  } finally {
    await browser.close();
    await stack.stop();
  }
}
