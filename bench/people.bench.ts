import { chromium as playwright, type Page } from "@playwright/test";
import { emoteIndex } from "../src/core/chat/emotes";
import { cleanText } from "../src/core/games/voices/clean";
import { voicesDefaults } from "../src/core/games/voices/settings";
import { saidLine } from "../src/practice/platform";
import { IrcServer } from "../src/practice/irc-server";
import { emojiName } from "../src/server/speech/emoji-names";
import { type Bench, browserArgs, ms, quantile, type Row, thousands } from "./row";

const channel = "#saltmarsh-kiln";
const pause = (forMs: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, forMs));

/** Texts a second through cleaning, beside a bare split of the same texts. */
function cleaning(): Row {
  const words = [
    "hello",
    "the",
    "rim",
    "is",
    "so",
    "gooooooood",
    "wobblePot",
    "🔥",
    "https://example.com/x",
    "vase",
    "no",
    "no",
    "no",
    "ferrule7",
  ];
  const texts = Array.from({ length: 4_000 }, (_, i) =>
    Array.from({ length: 4 + (i % 14) }, (__, k) => words[(i * 7 + k * 3) % words.length]).join(" "),
  );
  const kit = { emotes: emoteIndex([{ id: "w", word: "wobblePot" }]), marks: [], emojiName };
  const rate = (work: (text: string) => number): number => {
    for (const text of texts.slice(0, 500)) work(text);
    const from = performance.now();
    let sum = 0;
    for (const text of texts) sum += work(text);
    return sum === -1 ? 0 : texts.length / ((performance.now() - from) / 1000);
  };
  const bare = rate((text) => [...text.normalize("NFC")].length + text.split(/\s+/).length);
  const ours = rate((text) => cleanText(text, voicesDefaults, kit).length);
  return {
    what: "texts cleaned to be spoken, one core",
    ours: thousands(ours),
    baseline: thousands(bare),
    ratio: (ours / bare).toFixed(3),
    budget: "no bound: the lane takes one every few seconds",
    met: null,
  };
}

type Facts = Readonly<{ sceneMs: number; scriptMs: number; framesPerSecond: number }>;
/** What a page's own script takes in a frame, p50 and p99 over four seconds. */
async function frameCost(page: Page): Promise<Readonly<{ p50: number; p99: number; rate: number }>> {
  const costs = await page.evaluate(async () => {
    const facts = (window as unknown as { izzamFacts: () => Facts }).izzamFacts;
    const seen: number[] = [];
    const from = performance.now();
    while (performance.now() - from < 4_000) {
      await new Promise<number>((resolve) => requestAnimationFrame(resolve));
      seen.push(facts().scriptMs);
    }
    return seen;
  });
  return { p50: quantile(costs, 0.5), p99: quantile(costs, 0.99), rate: costs.length / 4 };
}
/** The companion alone on the page: away, at rest, dancing. */
async function companionCost(page: Page, act: (command: object) => Promise<unknown>): Promise<Row[]> {
  const rows: Row[] = [];
  await act({ do: "switch", on: false });
  await pause(1_000);
  const away = await frameCost(page);
  await act({ do: "switch", on: true });
  await pause(4_000);
  for (const what of ["at rest", "dancing"] as const) {
    if (what === "dancing") await act({ do: "dance" });
    await pause(1_500);
    const now = await frameCost(page);
    rows.push({
      what: `script of a frame with a companion ${what} (${Math.round(now.rate)} frames/s)`,
      ours: `p50 ${ms(now.p50)}, p99 ${ms(now.p99)}`,
      baseline: `p50 ${ms(away.p50)}, p99 ${ms(away.p99)} without it`,
      budget: "none was set; a frame has 16.7 ms",
      met: now.p99 < 16.7,
    });
  }
  await act({ do: "calm" });
  return rows;
}

type Stack = Awaited<ReturnType<Bench["startStack"]>>;
/** An overlay page that notes when it hears something after silence. */
async function overlayOf(
  stack: Stack,
  browser: Awaited<ReturnType<typeof playwright.launch>>,
): Promise<Readonly<{ page: Page; act: (command: object) => Promise<unknown> }>> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 720 } });
  const operator = await context.newPage();
  await operator.goto(`${stack.base}/sign-in`);
  await operator.getByRole("button", { name: "Enter as owner" }).click();
  await operator.waitForURL(/prepare/);
  const post = (path: string, data: unknown) =>
    operator.request.post(`${stack.base}/api${path}`, { headers: { origin: stack.base }, data });
  const made = (await (await post("/overlays/main-stage/link", { do: "copy" })).json()) as { value: { token: string } };
  await post("/games/show/command", { command: { do: "show", what: "on-air" }, id: "bench-on-air" });
  let asked = 0;
  const act = (command: object) => post("/games/kiln-cat/command", { command, id: `bench-cat-${(asked += 1)}` });
  const page = await context.newPage();
  await page.goto(`${stack.base}/overlay#${made.value.token}`);
  await page.evaluate(() => {
    const heardAt: number[] = [];
    let quiet = 10;
    const facts = (window as unknown as { izzamFacts: () => { level: number } }).izzamFacts;
    setInterval(() => {
      if (facts().level < 0.002) quiet += 1;
      else {
        if (quiet > 20) heardAt.push(performance.timeOrigin + performance.now());
        quiet = 0;
      }
    }, 5);
    Object.assign(window, { heardAt });
  });
  return { page, act };
}

export async function measure({ chromium, startStack, say }: Bench): Promise<Row[]> {
  const rows: Row[] = [cleaning()];
  const stack = await startStack({ name: "bench" });
  const browser = await playwright.launch({
    executablePath: chromium,
    args: [...browserArgs, "--autoplay-policy=no-user-gesture-required"],
  });
  const irc = new IrcServer();
  try {
    await stack.kill("practice");
    await irc.listen(stack.practiceIrcPort);
    const { page, act } = await overlayOf(stack, browser);
    while (irc.connected === 0) await pause(50);
    await pause(2_500);
    rows.push(...(await companionCost(page, act)));
    const line = (nick: string, text: string): number => {
      irc.say(channel, saidLine({ nick, name: nick, badges: [] }, channel, text, []));
      return performance.timeOrigin + performance.now();
    };
    // Greetings are heard too, and would be taken for speech: everybody has arrived before.
    const people = Array.from({ length: 24 }, (_, i) => `bench${i}`);
    for (const nick of people) line(nick, "hello");
    await pause(90_000);
    const speak = async (texts: readonly string[], who: readonly string[]): Promise<number[]> => {
      const delays: number[] = [];
      for (const [i, text] of texts.entries()) {
        await page.evaluate(() => (window as unknown as { heardAt: number[] }).heardAt.splice(0));
        const at = line(who[i] ?? "bench0", `!say ${text}`);
        for (let n = 0; n < 200; n += 1) {
          await pause(25);
          const [heard] = await page.evaluate(() => (window as unknown as { heardAt: number[] }).heardAt);
          if (heard === undefined) continue;
          delays.push(heard - at);
          break;
        }
        await pause(3_200);
      }
      return delays;
    };
    const texts = Array.from({ length: 12 }, (_, i) => `number ${i} is done`);
    for (const [what, who] of [
      ["made anew", people.slice(0, 12)],
      ["made before", people.slice(0, 12)],
    ] as const) {
      const delays = await speak(texts, who);
      say(`  ${what}: ${delays.length} of ${texts.length} heard`);
      rows.push({
        what: `message → first sample heard, ${what}`,
        ours: `p50 ${ms(quantile(delays, 0.5))}, p99 ${ms(quantile(delays, 0.99))}`,
        budget: "none was set",
        met: null,
      });
      // The same viewers again, so that the texts are the same: their own cooldown is thirty seconds.
      await pause(32_000);
    }
    // Two hundred first messages at once: what the engine's memory does, and whether chat waits.
    const echo = async (): Promise<number> => {
      const from = performance.now();
      await fetch(`${stack.base}/built/none`);
      return performance.now() - from;
    };
    const idle: number[] = [];
    for (let i = 0; i < 200; i += 1) idle.push(await echo());
    for (let i = 0; i < 200; i += 1) line(`fresh${i}`, "hello, first time here");
    const busy: number[] = [];
    for (let i = 0; i < 200; i += 1) busy.push(await echo());
    rows.push({
      what: "the engine answers while 200 arrive at once",
      ours: `p99 ${ms(quantile(busy, 0.99))}`,
      baseline: `p99 ${ms(quantile(idle, 0.99))} idle`,
      ratio: (quantile(busy, 0.99) / quantile(idle, 0.99)).toFixed(1),
      budget: "nothing blocked",
      met: quantile(busy, 0.99) < 150,
    });
    return rows;
  } finally {
    await browser.close();
    await irc.close();
    await stack.stop();
  }
}
