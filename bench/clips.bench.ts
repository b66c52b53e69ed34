import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium as playwright, type Page } from "@playwright/test";
import { videoDefaults } from "../src/core/props/video";
import { makeVideo } from "../src/server/video/make";
import { type Bench, browserArgs, ms, quantile, type Row } from "./row";

const pause = (forMs: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, forMs));
const clipS = 10;

/** A busy picture with a sound, as hard to make as what a phone sends. */
function source(folder: string, width: number, height: number): string {
  const path = join(folder, `source-${height}.mp4`);
  const picture = `testsrc2=size=${width}x${height}:rate=30:duration=${clipS + 4},noise=alls=12:allf=t`;
  const sound = `sine=frequency=330:duration=${clipS + 4}`;
  // prettier-ignore
  execFileSync("ffmpeg", ["-hide_banner", "-loglevel", "error", "-y", "-f", "lavfi", "-i", picture, "-f", "lavfi", "-i", sound, "-c:v", "libx264", "-preset", "veryfast", "-pix_fmt", "yuv420p", "-c:a", "aac", path]);
  return path;
}

/** Seconds of work for a second of clip, beside FFmpeg decoding the same stretch and nothing else. */
async function making(folder: string): Promise<Row[]> {
  const rows: Row[] = [];
  for (const [name, width, height] of [
    ["480p", 854, 480],
    ["720p", 1_280, 720],
  ] as const) {
    const path = source(folder, width, height);
    const bareFrom = performance.now();
    execFileSync("ffmpeg", ["-hide_banner", "-loglevel", "error", "-ss", "2", "-t", String(clipS), "-i", path, "-f", "null", "-"]);
    const bare = (performance.now() - bareFrom) / 1000 / clipS;
    const from = performance.now();
    const use = {
      settings: videoDefaults,
      most: { width, height },
      mostMs: 60_000,
      mostSourceMs: 600_000,
      only: { fromMs: 2_000, ms: clipS * 1000 },
    };
    const made = await makeVideo(path, use);
    const ours = (performance.now() - from) / 1000 / clipS;
    if (!made.ok) throw new Error(made.refusal.code);
    rows.push({
      what: `work for a second of clip at ${name}, with stills, level and checks`,
      ours: `${ours.toFixed(2)} s`,
      baseline: `${bare.toFixed(2)} s to decode it`,
      ratio: (ours / bare).toFixed(1),
      budget: "none was set; below 1 it is ready before it would be over",
      met: null,
    });
  }
  return rows;
}

type Stack = Awaited<ReturnType<Bench["startStack"]>>;
const rendererMb = (): number =>
  execFileSync("ps", ["-eo", "rss=,args="])
    .toString()
    .split("\n")
    .filter((l) => l.includes("--type=renderer"))
    .reduce((sum, l) => sum + Number(l.trim().split(/\s+/)[0]) / 1024, 0);

async function operatorOf(stack: Stack, browser: Awaited<ReturnType<typeof playwright.launch>>) {
  const operator = await (await browser.newContext()).newPage();
  await operator.goto(`${stack.base}/sign-in`);
  await operator.getByRole("button", { name: "Enter as owner" }).click();
  await operator.waitForURL(/prepare/);
  let n = 0;
  const post = (path: string, data: unknown) =>
    operator.request.post(`${stack.base}/api${path}`, { headers: { origin: stack.base }, data });
  const act = (game: string, command: object) => post(`/games/${game}/command`, { command, id: `bench-${game}-${(n += 1)}` });
  const upload = (name: string, buffer: Buffer) =>
    operator.request.post(`${stack.base}/api/props`, {
      headers: { origin: stack.base },
      multipart: { file: { name, mimeType: "video/mp4", buffer } },
    });
  const link = (await (await post("/overlays/main-stage/link", { do: "copy" })).json()) as { value: { token: string } };
  // Nothing else is open in that browser: its renderer is the overlay's alone.
  const close = () => operator.goto("about:blank");
  return { act, upload, close, token: link.value.token };
}
type Shown = { n: number; shown: boolean; plays: boolean } | null;
const playing = (page: Page): Promise<Shown> =>
  page.evaluate(
    () => (window as unknown as { izzamFacts: () => { shown: Record<string, Shown> } }).izzamFacts().shown["kiln-clips"] ?? null,
  );

export async function measure({ chromium, startStack, say }: Bench): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), "izzam-bench-"));
  const rows = await making(folder);
  const stack = await startStack({ name: "bench" });
  const browser = await playwright.launch({
    executablePath: chromium,
    args: [...browserArgs, "--autoplay-policy=no-user-gesture-required"],
  });
  try {
    const { act, upload, close, token } = await operatorOf(stack, browser);
    const echo = async (times: number): Promise<number> => {
      const all: number[] = [];
      for (let i = 0; i < times; i += 1) {
        const from = performance.now();
        await fetch(`${stack.base}/built/none`);
        all.push(performance.now() - from);
        await pause(10);
      }
      return quantile(all, 0.99);
    };
    await pause(2_000);
    const idle = await echo(500);
    const large = readFileSync(join(folder, "source-720.mp4"));
    for (let i = 0; i < 3; i += 1) await upload(`bench ${i}.mp4`, Buffer.concat([large, Buffer.from(`free${i}`)]));
    await pause(500);
    const busy = await echo(500);
    rows.push({
      what: "the engine answers while films are made at 720p, p99",
      ours: ms(busy),
      baseline: `${ms(idle)} idle`,
      ratio: (busy / idle).toFixed(1),
      budget: "a tick of 50 ms",
      met: busy < 50,
    });
    // Signal → scene switched, beside the rig's studio told by itself.
    const scene = async (): Promise<string | null> =>
      ((await (await fetch(`${stack.practice}/state`)).json()) as { studio: { current: string | null } }).studio.current;
    const until = async (name: string): Promise<void> => {
      while ((await scene()) !== name) await pause(2);
    };
    await pause(30_000);
    const bare: number[] = [];
    const switched: number[] = [];
    for (let i = 0; i < 60; i += 1) {
      const name = i % 2 === 0 ? "Hands" : "Throwing";
      const from = performance.now();
      await act("kiln-scenes", { do: "switch-to", scene: name });
      await until(name);
      switched.push(performance.now() - from);
      const other = i % 2 === 0 ? "Shelf" : "Tea break";
      const at = performance.now();
      await fetch(`${stack.practice}/studio`, { method: "POST", body: JSON.stringify({ show: other }) });
      await until(other);
      bare.push(performance.now() - at);
    }
    rows.push({
      what: "an operator’s word → the studio’s scene has switched, p99",
      ours: ms(quantile(switched, 0.99)),
      baseline: `${ms(quantile(bare, 0.99))} told by itself`,
      ratio: (quantile(switched, 0.99) / quantile(bare, 0.99)).toFixed(1),
      budget: "none was set",
      met: null,
    });
    await close();
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 720 } })).newPage();
    await page.goto(`${stack.base}/overlay#${token}`);
    await pause(4_000);
    const first: number[] = [];
    let before = 0;
    const clip = async (): Promise<void> => {
      const last = (await playing(page))?.n ?? 0;
      const from = performance.now();
      await act("kiln-clips", { do: "own", picture: "kettle-boils" });
      for (let n = 0; n < 600; n += 1) {
        const now = await playing(page);
        if (now !== null && now.n !== last && now.plays) break;
        await pause(5);
      }
      first.push(performance.now() - from);
      await pause(700);
      await act("kiln-clips", { do: "skip" });
      await pause(3_400);
    };
    for (let i = 0; i < 50; i += 1) {
      await clip();
      if (i === 4) before = rendererMb();
    }
    const after = rendererMb();
    say(`  ${first.length} clips played`);
    rows.push(
      {
        what: "a clip is begun → it plays on the overlay",
        ours: `p50 ${ms(quantile(first, 0.5))}, p99 ${ms(quantile(first, 0.99))}`,
        budget: "none was set; its curtain opens within 600 ms",
        met: null,
      },
      {
        what: "memory of the page’s renderer after fifty clips",
        ours: `${Math.round(after)} MB`,
        baseline: `${Math.round(before)} MB after five`,
        ratio: (after / before).toFixed(2),
        budget: "none was set; it must not grow with every clip",
        met: after < before * 1.35,
      },
    );
    return rows;
  } finally {
    await browser.close();
    await stack.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
