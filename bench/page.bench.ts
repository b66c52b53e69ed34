import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { chromium as playwright } from "@playwright/test";
import { type Bench, browserArgs, median, ms, type Row } from "./row";

/** The overlay page: how much script it loads, and how long until it stands ready with its stage. */
export async function measure({ root, chromium, startStack }: Bench): Promise<Row[]> {
  const folder = join(root, ".build/overlay");
  const gzipped = readdirSync(folder)
    .filter((f) => f.endsWith(".js"))
    .reduce((sum, f) => sum + gzipSync(readFileSync(join(folder, f))).length, 0);
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
      await page.goto(`${stack.base}/overlay#${made.value.token}`);
      await page.waitForFunction(() => "readyAt" in window);
      times.push(await page.evaluate(() => (window as unknown as { readyAt: number }).readyAt));
      await cold.close();
    }
    return [
      { what: "overlay page: script, gzipped", ours: `${(gzipped / 1000).toFixed(0)} kB`, budget: "< 200 kB", met: gzipped < 200_000 },
      { what: "overlay page: first frame after the link opens", ours: ms(median(times)), budget: "< 1.5 s", met: median(times) < 1_500 },
    ];
  } finally {
    await browser.close();
    await stack.stop();
  }
}
