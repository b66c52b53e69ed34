import { chromium as playwright, type Page } from "@playwright/test";
import { saidLine } from "../src/practice/platform";
import { IrcServer } from "../src/practice/irc-server";
import { type Bench, browserArgs, ms, quantile, type Row } from "./row";

const channel = "#saltmarsh-kiln";
const pause = (forMs: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, forMs));

/**
 * From the moment a chat line is written to the engine's socket to the end of the frame that first draws
 * its emote. Both clocks are this machine's. Each line spawns one emote, and effects keep their order, so
 * the n-th spawned one is the n-th line's.
 */
async function run(page: Page, irc: IrcServer, perSecond: number, forS: number): Promise<number[]> {
  await page.evaluate(() => (window as unknown as { seenAt: number[] }).seenAt.splice(0));
  const writtenAt: number[] = [];
  const from = performance.now();
  for (let n = 0; performance.now() - from < forS * 1000;) {
    const due = ((performance.now() - from) / 1000) * perSecond;
    for (; n < due; n += 1) {
      irc.say(channel, saidLine({ nick: `viewer${n}`, name: `viewer${n}`, badges: [] }, channel, "wobblePot", []));
      writtenAt.push(performance.timeOrigin + performance.now());
    }
    await pause(3);
  }
  await pause(1_500);
  const seenAt = await page.evaluate(() => (window as unknown as { seenAt: number[] }).seenAt);
  if (seenAt.length !== writtenAt.length) throw new Error(`${writtenAt.length} lines, ${seenAt.length} emotes`);
  return seenAt.map((at, i) => at - (writtenAt[i] ?? 0));
}

export async function measure({ chromium, startStack, say }: Bench): Promise<Row[]> {
  const stack = await startStack({ name: "bench" });
  const browser = await playwright.launch({ executablePath: chromium, args: browserArgs });
  const irc = new IrcServer();
  try {
    // This process takes the rig's place as the chat server, so that it knows when it writes a line.
    await stack.kill("practice");
    await irc.listen(stack.practiceIrcPort);
    const context = await browser.newContext({
      viewport: { width: 1920, height: 1080 },
      permissions: ["clipboard-read", "clipboard-write"],
    });
    const operator = await context.newPage();
    await operator.goto(`${stack.base}/sign-in`);
    await operator.getByRole("button", { name: "Enter as owner" }).click();
    await operator.waitForURL(/prepare/);
    const made = (await (
      await operator.request.post(`${stack.base}/api/overlays/main-stage/link`, { headers: { origin: stack.base }, data: { do: "copy" } })
    ).json()) as { value: { token: string } };
    await operator.close();
    const page = await context.newPage();
    await page.addInitScript(() => {
      const seenAt: number[] = [];
      const Real = window.WebSocket;
      class Watched extends Real {
        constructor(url: string | URL) {
          super(url);
          this.addEventListener("message", (event) => {
            const message = JSON.parse(String(event.data)) as { type: string; items?: unknown[] };
            const count = message.items?.length ?? 0;
            // The player's frame is asked for before ours, or runs already: ours ends when it has drawn.
            if (message.type === "effects")
              requestAnimationFrame(() =>
                setTimeout(() => {
                  for (let i = 0; i < count; i += 1) seenAt.push(performance.timeOrigin + performance.now());
                }),
              );
          });
        }
      }
      Object.assign(window, { WebSocket: Watched, seenAt });
    });
    await page.goto(`${stack.base}/overlay#${made.value.token}`);
    while (irc.connected === 0) await pause(50);
    await pause(1_500);
    await page.evaluate(() => new Promise(requestAnimationFrame));
    irc.say(channel, saidLine({ nick: "first", name: "first", badges: [] }, channel, "wobblePot", []));
    await pause(1_000);
    const rows: Row[] = [];
    for (const [perSecond, p50Budget, p99Budget] of [
      [50, 60, 120],
      [1_000, null, 250],
    ] as const) {
      const delays = await run(page, irc, perSecond, perSecond === 50 ? 20 : 10);
      const [p50, p99] = [quantile(delays, 0.5), quantile(delays, 0.99)];
      say(`  ${perSecond} lines a second: ${delays.length} emotes`);
      rows.push({
        what: `chat line → emote on the overlay, ${perSecond} lines/s`,
        ours: `p50 ${ms(p50)}, p99 ${ms(p99)}`,
        budget: p50Budget === null ? `p99 < ${p99Budget} ms` : `p50 < ${p50Budget}, p99 < ${p99Budget} ms`,
        met: (p50Budget === null || p50 < p50Budget) && p99 < p99Budget,
      });
    }
    return rows;
  } finally {
    await browser.close();
    await irc.close();
    await stack.stop();
  }
}
