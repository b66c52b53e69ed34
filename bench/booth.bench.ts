import { type Browser, type CDPSession, chromium as playwright, type Page } from "@playwright/test";
import { saidLine } from "../src/practice/platform";
import { IrcServer } from "../src/practice/irc-server";
import { type Bench, browserArgs, median, ms, quantile, type Row } from "./row";

const channel = "#saltmarsh-kiln";
const perSecond = 200;
const pause = (forMs: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, forMs));
// Ten minutes when it is asked for alone; one in the whole bench.
const minutes = process.argv.slice(2).join() === "booth" ? 10 : 1;

type Watch = Readonly<{ frames: number[]; delays: number[]; rows: number; keys: number[] }>;
/**
 * In the page: gaps between frames, how long after it was written (its text says when) each line's row
 * stood there, and from each key to the next frame. Keeps the last of each, so that measuring does not grow.
 */
function watch(): void {
  const kept = {
    frames: [] as number[],
    delays: [] as number[],
    rows: 0,
    keys: [] as number[],
    hushKeys: [] as number[],
    hushed: [] as number[],
  };
  const add = (list: number[], value: number): void => {
    if (list.length >= 20_000) list.splice(0, 10_000);
    list.push(value);
  };
  Object.assign(window, { kept });
  let last = performance.now();
  const frame = (): void => {
    const now = performance.now();
    add(kept.frames, now - last);
    last = now;
    requestAnimationFrame(frame);
  };
  requestAnimationFrame(frame);
  addEventListener(
    "keydown",
    (event) => {
      const at = performance.now();
      if (event.key === ".") kept.hushKeys.push(performance.timeOrigin + at);
      else requestAnimationFrame(() => setTimeout(() => kept.keys.push(performance.now() - at)));
    },
    true,
  );
  const Real = window.WebSocket;
  class Watched extends Real {
    constructor(url: string | URL) {
      super(url);
      this.addEventListener("message", (event) => {
        const message = JSON.parse(String(event.data)) as { type: string; on?: boolean; items?: { text?: string }[] };
        const after = (work: () => void): void => void requestAnimationFrame(() => setTimeout(work));
        if (message.type === "talk")
          after(() => {
            for (const item of message.items ?? []) {
              const written = Number(/ at (\d+)/.exec(item.text ?? "")?.[1] ?? NaN);
              if (Number.isNaN(written)) continue;
              kept.rows += 1;
              add(kept.delays, performance.timeOrigin + performance.now() - written);
            }
          });
        if (message.type === "hush" && message.on === true) after(() => void kept.hushed.push(performance.timeOrigin + performance.now()));
      });
    }
  }
  Object.assign(window, { WebSocket: Watched });
}
const keptOf = (page: Page): Promise<Watch & { hushKeys: number[]; hushed: number[] }> =>
  page.evaluate(() => (window as unknown as { kept: never }).kept);

async function heap(cdp: CDPSession): Promise<number> {
  await cdp.send("HeapProfiler.collectGarbage");
  const { metrics } = await cdp.send("Performance.getMetrics");
  return metrics.find((m) => m.name === "JSHeapUsedSize")?.value ?? NaN;
}

async function pages(browser: Browser, base: string): Promise<{ booth: Page; overlay: Page }> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const booth = await context.newPage();
  await booth.goto(`${base}/sign-in`);
  await booth.getByRole("button", { name: "Enter as owner" }).click();
  await booth.waitForURL(/prepare/);
  const made = (await (
    await booth.request.post(`${base}/api/overlays/main-stage/link`, { headers: { origin: base }, data: { do: "copy" } })
  ).json()) as { value: { token: string } };
  const overlay = await (await browser.newContext({ viewport: { width: 1280, height: 720 } })).newPage();
  await overlay.addInitScript(watch);
  await overlay.goto(`${base}/overlay#${made.value.token}`);
  await booth.addInitScript(watch);
  await booth.goto(`${base}/run`);
  await booth.getByTestId("boss-health").waitFor();
  return { booth, overlay };
}

/** The booth through a long storm: frames, rows, memory; and hush from the key to the empty overlay. */
export async function measure({ chromium, startStack, say }: Bench): Promise<Row[]> {
  const stack = await startStack({ name: "bench" });
  const browser = await playwright.launch({ executablePath: chromium, args: browserArgs });
  const irc = new IrcServer();
  try {
    await stack.kill("practice");
    await irc.listen(stack.practiceIrcPort);
    const { booth, overlay } = await pages(browser, stack.base);
    const cdp = await booth.context().newCDPSession(booth);
    await cdp.send("Performance.enable");
    while (irc.connected === 0) await pause(50);
    await pause(6_000);
    const idle = median((await keptOf(booth)).frames.slice(-200));
    const memory: number[] = [];
    const from = performance.now();
    let n = 0;
    const talk = async (untilMs: number): Promise<void> => {
      while (performance.now() - from < untilMs) {
        for (const due = ((performance.now() - from) / 1000) * perSecond; n < due; n += 1) {
          // A quarter of the lines carry an emote: more would measure the wall, which has rows of its own.
          const text = `line ${n} at ${Math.round(performance.timeOrigin + performance.now())}${n % 4 === 0 ? " wobblePot" : ""}`;
          irc.say(channel, saidLine({ nick: `viewer${n % 900}`, name: `viewer${n % 900}`, badges: [] }, channel, text, []));
        }
        await pause(4);
      }
    };
    await booth.evaluate(() => (window as unknown as { kept: { frames: number[] } }).kept.frames.splice(0));
    for (let minute = 1; minute <= minutes; minute += 1) {
      await talk(minute * 60_000 - 14_000);
      for (let i = 0; i < 20; i += 1) {
        await booth.keyboard.press("g");
        await talk(minute * 60_000 - 14_000 + i * 700);
      }
      memory.push(await heap(cdp));
      say(`  minute ${minute}: ${(memory.at(-1)! / 1e6).toFixed(1)} MB`);
    }
    const storm = await keptOf(booth);
    const { delays } = storm;
    const shown = storm.rows / n;
    // Hush, from the key, in the same storm.
    const until = performance.now() - from + 45_000;
    const storming = talk(until);
    for (let i = 0; i < 60; i += 1) {
      await booth.keyboard.press(".");
      await pause(300);
    }
    await storming;
    const [keys, seen] = [(await keptOf(booth)).hushKeys.filter((_, i) => i % 2 === 0), (await keptOf(overlay)).hushed];
    const hushes = seen.map((at, i) => at - (keys[i] ?? NaN)).filter((d) => !Number.isNaN(d));
    const grown = (memory.at(-1) ?? NaN) / (memory[Math.min(1, memory.length - 1)] ?? NaN);
    const frame = (q: number): string => ms(quantile(storm.frames, q));
    return [
      {
        what: `booth, ${perSecond} messages/s for ${minutes} min: time between frames`,
        ours: `p50 ${frame(0.5)}, p95 ${frame(0.95)}, p99 ${frame(0.99)}`,
        baseline: `idle p50 ${ms(idle)}`,
        ratio: (median(storm.frames) / idle).toFixed(2),
        budget: "–",
        met: null,
      },
      {
        what: `booth, ${perSecond} messages/s: key to next frame`,
        ours: `p50 ${ms(median(storm.keys))}, p95 ${ms(quantile(storm.keys, 0.95))}, worst ${ms(Math.max(...storm.keys))} of ${storm.keys.length}`,
        budget: "< 100 ms",
        met: Math.max(...storm.keys) < 100,
      },
      {
        what: `booth, ${perSecond} messages/s: line written to its row on the page`,
        ours: `p50 ${ms(quantile(delays, 0.5))}, p99 ${ms(quantile(delays, 0.99))}, ${(shown * 100).toFixed(1)} % shown`,
        budget: "–",
        met: null,
      },
      {
        what: `booth, memory of the page after ${minutes} min`,
        ours: `${((memory.at(-1) ?? NaN) / 1e6).toFixed(1)} MB`,
        baseline: `${((memory[Math.min(1, memory.length - 1)] ?? NaN) / 1e6).toFixed(1)} MB after ${Math.min(2, minutes)} min`,
        ratio: grown.toFixed(2),
        budget: "flat within 10 %",
        met: minutes < 3 ? null : grown < 1.1,
      },
      {
        what: `hush: key in the booth to an empty overlay, in ${perSecond} messages/s`,
        ours: `p50 ${ms(quantile(hushes, 0.5))}, p99 ${ms(quantile(hushes, 0.99))} of ${hushes.length}`,
        budget: "p99 < 200 ms",
        met: quantile(hushes, 0.99) < 200,
      },
    ];
  } finally {
    await browser.close();
    await irc.close();
    await stack.stop();
  }
}
