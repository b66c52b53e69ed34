import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { chromium as playwright } from "@playwright/test";
import { bossDefaults } from "../src/core/games/boss-battle/settings";
import { channelId, gameId } from "../src/core/kernel/ids";
import { arrivals, peopleFor } from "../src/core/lab/arrivals";
import { ratesOfRoom } from "../src/core/lab/rates";
import { moduleOf } from "../src/core/modules";
import { openDatabase } from "../src/server/adapters/mariadb/database";
import { mariadbEngineStore } from "../src/server/adapters/mariadb/engine-store";
import { LabChannel } from "../src/server/lab/channel";
import type { LabJob } from "../src/server/lab/job";
import { LabThreads } from "../src/server/lab/threads";
import type { LogRow } from "../src/server/ports/engine-store";
import { testChannel } from "../src/server/testing/channel";
import { type Bench, browserArgs, ms, quantile, type Row, type Stack } from "./row";

const evenings = 10_000;
/** About a thousand signals an evening. */
const rates = { ...ratesOfRoom("usual", 1), hours: 1_000 / Object.values(ratesOfRoom("usual", 1).perHour).reduce((sum, n) => sum + n, 0) };
const row = testChannel({
  games: [{ id: gameId("jug"), kind: "boss-battle", name: "Jug", version: 1, settings: bossDefaults, durable: null }],
});
const ledger = { accounts: [], sold: [], soldInShow: [], last: [], prices: [], sales: [] };
const parts = { people: peopleFor([], rates.chatters), emotes: ["wobblePot"], lines: [], rewards: [], homeCurrency: "EUR" };
const pause = (forMs: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, forMs));

/** Signals a second of one thread: with the real rules, and of the generator alone. */
function oneThread(): Row {
  const question = moduleOf("boss-battle")?.lab?.find((q) => q.id === "falls");
  if (question === undefined) throw new Error("no such question");
  const lab = new LabChannel(row, ledger, Date.now());
  const play = (n: number): number => {
    let signals = 0;
    const from = performance.now();
    for (let seed = 0; seed < n; seed += 1) signals += lab.evening({ module: "jug", question, input: {}, seed, rates }).signals;
    return signals / (performance.now() - from);
  };
  const alone = (n: number): number => {
    let signals = 0;
    const from = performance.now();
    for (let seed = 0; seed < n; seed += 1) for (const a of arrivals(seed, rates, parts)) signals += a.afterMs >= 0 ? 1 : 0;
    return signals / (performance.now() - from);
  };
  play(500);
  alone(500);
  const [ours, bare] = [play(2_000), alone(2_000)];
  return {
    what: "simulated signals a second with the real rules, one thread",
    ours: `${(ours / 1_000).toFixed(2)} M/s`,
    baseline: `${(bare / 1_000).toFixed(2)} M/s of the generator alone`,
    ratio: (ours / bare).toFixed(2),
    budget: "≥ 0.3 of the generator alone",
    met: ours / bare >= 0.3,
  };
}

const job: LabJob = {
  row,
  ledger,
  fromMs: Date.now(),
  ask: { module: "jug", question: "falls", input: {}, evening: { like: "room", room: "usual", hours: 1 }, instead: null, n: evenings },
  rates: [rates],
};
/** Ten thousand evenings on two threads; how many seconds. */
async function twoThreads(program: string): Promise<number> {
  const threads = new LabThreads(program, job, 2);
  const from = performance.now();
  let next = 0;
  const one = async (thread: number): Promise<void> => {
    while (next < evenings) {
      const part = { from: next, to: Math.min(evenings, next + 250) };
      next = part.to;
      await threads.play(thread, part);
    }
  };
  await Promise.all([one(0), one(1)]);
  const took = performance.now() - from;
  await threads.end();
  return took / 1_000;
}

async function echo(stack: Stack, times: number): Promise<number> {
  const all: number[] = [];
  for (let i = 0; i < times; i += 1) {
    const from = performance.now();
    await fetch(`${stack.base}/built/none`);
    all.push(performance.now() - from);
    await pause(10);
  }
  return quantile(all, 0.99);
}

/** A show of two hundred thousand messages, written as the engine writes them. */
async function largeShow(stack: Stack): Promise<number> {
  const env = stack.env as Record<string, string>;
  const db = openDatabase({
    host: "127.0.0.1",
    port: Number(env["IZZAM_DB_PORT"]),
    user: env["IZZAM_DB_USER"] ?? "izzam",
    password: env["IZZAM_DB_PASSWORD"] ?? "",
    name: env["IZZAM_DB_NAME"] ?? "izzam",
  });
  const store = mariadbEngineStore(db);
  const id = channelId("saltmarsh-kiln");
  const fromMs = Date.now() - 5 * 3_600_000;
  const first = (await store.lastSeq(id)) + 1_000_000;
  const rows: LogRow[] = [];
  let seq = first;
  for (const { afterMs, signal } of arrivals(7, { ...ratesOfRoom("storm", 0.3), hours: 1 }, { ...parts, people: peopleFor([], 2_000) })) {
    if (rows.length >= 200_000) break;
    seq += 1;
    const viewer = "viewer" in signal ? signal.viewer : null;
    const { seq: _seq, atMs: _at, id: _id, kind, ...body } = signal;
    rows.push({ seq, atMs: fromMs + Math.round(afterMs), kind, source: kind === "message" ? "chat" : "platform", id: null, viewer, body });
  }
  for (let i = 0; i < rows.length; i += 5_000) await store.append(id, rows.slice(i, i + 5_000));
  const { num } = (await db("channels").where({ id }).first("num")) as { num: number };
  const toMs = rows.at(-1)?.atMs ?? fromMs;
  const body = JSON.stringify({ id: "bench", rehearsal: false, by: "bench" });
  const [record] = await db("records").insert({
    channel: num,
    game_id: "show",
    seq,
    kind: "show",
    viewer: null,
    from_ms: fromMs,
    to_ms: toMs,
    body,
  });
  await db.destroy();
  return Number(record);
}

const residentMB = (pid: number): number => Number(execFileSync("ps", ["-o", "rss=", "-p", String(pid)])) / 1_024;
/** The whole of the show as a ZIP: how fast, and how much more memory the web process takes for it. */
async function wholeOut(stack: Stack, cookies: readonly { name: string; value: string }[], record: number): Promise<Row> {
  const web = stack.pid("web");
  const before = residentMB(web);
  let most = before;
  const look = setInterval(() => (most = Math.max(most, residentMB(web))), 100);
  const from = performance.now();
  const said = await fetch(`${stack.base}/api/review/shows/${record}/whole`, {
    headers: { cookie: cookies.map((c) => `${c.name}=${c.value}`).join("; ") },
  });
  let bytes = 0;
  for await (const piece of said.body ?? []) bytes += (piece as Uint8Array).length;
  clearInterval(look);
  const took = (performance.now() - from) / 1_000;
  return {
    what: "the whole of it as a ZIP: rows a second, and what the web process grows by",
    ours: `${Math.round(200_000 / took).toLocaleString("en-GB")} /s, ${Math.round(most - before)} MB`,
    baseline: `${(bytes / 1_048_576).toFixed(1)} MB of file`,
    budget: "memory flat",
    met: most - before < 200,
  };
}

export async function measure({ root, chromium, startStack, say }: Bench): Promise<Row[]> {
  const rows: Row[] = [oneThread()];
  const program = join(root, ".build/lab-thread.mjs");
  const stack = await startStack({ name: "bench" });
  const browser = await playwright.launch({ executablePath: chromium, args: browserArgs });
  try {
    await pause(2_000);
    const idle = await echo(stack, 400);
    const [took, busy] = await Promise.all([twoThreads(program), echo(stack, 300)]);
    rows.push(
      {
        what: `${evenings.toLocaleString("en-GB")} evenings of 1,000 signals on two threads`,
        ours: `${took.toFixed(1)} s`,
        budget: "< 6 s",
        met: took < 6,
      },
      {
        what: "the engine answers meanwhile, p99",
        ours: ms(busy),
        baseline: `${ms(idle)} idle`,
        ratio: (busy / idle).toFixed(1),
        budget: "a tick of 50 ms",
        met: busy < 50,
      },
    );
    const record = await largeShow(stack);
    say("  200,000 messages written");
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    await page.goto(`${stack.base}/sign-in`);
    await page.getByRole("button", { name: "Enter as owner" }).click();
    await page.waitForURL(/prepare/);
    const opened: number[] = [];
    let moments = 0;
    for (let i = 0; i < 5; i += 1) {
      await page.goto(`${stack.base}/review`);
      const from = performance.now();
      await page.goto(`${stack.base}/review/shows/${record}`, { waitUntil: "commit" });
      await page.getByTestId("show-tape").locator("path").first().waitFor({ state: "attached" });
      opened.push(performance.now() - from);
      await page.getByText("Looking for what stands out…").waitFor({ state: "detached", timeout: 60_000 });
      if (i === 0) moments = performance.now() - from;
      await pause(300);
    }
    const heap = await page.evaluate(
      () => (performance as unknown as { memory: { usedJSHeapSize: number } }).memory.usedJSHeapSize / 1_048_576,
    );
    rows.push(await wholeOut(stack, await page.context().cookies(), record));
    rows.push(
      {
        what: "a show of 200,000 signals opens, to its first tape",
        ours: ms(quantile(opened, 0.5)),
        baseline: `${ms(quantile(opened, 0.99))} the slowest of five`,
        budget: "< 1 s",
        met: quantile(opened, 0.5) < 1_000,
      },
      { what: "its moments are found the first time, every message read", ours: ms(moments), budget: "none was set", met: null },
      { what: "memory of its page, JavaScript", ours: `${Math.round(heap)} MB`, budget: "none was set", met: null },
    );
    return rows;
  } finally {
    await browser.close();
    await stack.stop();
  }
}
