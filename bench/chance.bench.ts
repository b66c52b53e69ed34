import { createHmac } from "node:crypto";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { chromium as playwright } from "@playwright/test";
import { promiseRound } from "../src/core/chance/round";
import { drawWinners, type ListChange, listHash, listOf, nextLink } from "../src/core/chance/scheme";
import { openVault } from "../src/core/chance/vault";
import { chanceOf, ranRound } from "../src/testing/rounds";
import { type Bench, browserArgs, median, ms, type Row } from "./row";
import type { SceneFigures } from "./scene-page";
import { stakes } from "./stakes";

const entrants = 100_000;
const each = 10;
const took = <T>(work: () => T): readonly [T, number] => {
  const from = performance.now();
  const value = work();
  return [value, performance.now() - from];
};
const best = (times: number, work: () => number): number => Math.min(...Array.from({ length: times }, work));

/** A million tickets of a hundred thousand viewers: closed, drawn, followed by a viewer's browser; and a wheel that turns. */
export async function measure({ out, chromium, startStack, say }: Bench): Promise<Row[]> {
  const vault = openVault("bench");
  const settings = { title: "Last week's mug", chance: chanceOf({ winners: 1_000 }) };
  const { sealed, ...promised } = promiseRound(vault, settings, { game: "bench", n: 1, atMs: 1, rehearsing: false });
  const secret = vault.open(promised.round, sealed) ?? new Uint8Array();
  const changes: ListChange[] = Array.from({ length: entrants }, (_, i) => ({
    seq: i + 1,
    atMs: 1_000 + i,
    id: `viewer_${(i * 7_919) % entrants}`,
    weight: each,
  }));
  let { chain } = promised;
  const [, chainMs] = took(() => changes.forEach((c) => (chain = nextLink(chain, c))));
  const [list, listMs] = took(() => listOf(changes));
  const [hash, hashMs] = took(() => listHash(list));
  const key = { secret, round: promised.round, list: hash, shake: "" };
  const draw = (count: number) => () => took(() => drawWinners(key, list, { count }))[1];
  draw(10)();
  const [one, thousand] = [best(5, draw(1)), best(5, draw(1_000))];
  // The baselines: one pass over the weights, and as many bare HMACs.
  const pass = best(5, () => took(() => list.reduce((sum, t) => sum + t.weight, 0))[1]);
  const macs = best(
    5,
    () => took(() => Array.from({ length: 1_000 }, (_, i) => createHmac("sha256", secret).update(`r:${hash}::${i}:0`).digest()))[1],
  );
  const proof = ranRound(changes, { chance: { winners: 1_000 } });
  const stack = await startStack({ name: "bench" });
  const browser = await playwright.launch({ executablePath: chromium, args: browserArgs });
  try {
    const page = await browser.newPage({ viewport: { width: 1920, height: 1080 } });
    const body = JSON.stringify(proof);
    await page.route("**/bench", (route) => route.fulfill({ contentType: "text/html", body: "<!doctype html><body></body>" }));
    await page.route("**/proof.json", (route) => route.fulfill({ contentType: "application/json", body }));
    await page.goto(`${stack.base}/bench`);
    await page.addScriptTag({ content: readFileSync(join(out, "scene-page.js"), "utf8") });
    type Page = {
      izzamBench: { verify: (url: string) => Promise<{ holds: boolean; ms: number }> } & Record<
        string,
        (n: number) => Promise<SceneFigures>
      >;
    };
    const checked = await page.evaluate(() => (window as unknown as Page).izzamBench.verify("/proof.json"));
    if (!checked.holds) throw new Error("a good proof does not hold");
    const run = (name: string, n: number): Promise<SceneFigures> =>
      page.evaluate(([k, count]) => (window as unknown as Page).izzamBench[k as "wheelSpins"]!(count as number), [name, n] as const);
    const rows: Row[] = [
      {
        what: "1,000,000 tickets of 100,000 viewers: their chain, link by link while they enter",
        ours: ms(chainMs),
        budget: "told",
        met: null,
      },
      { what: "the same: lock (list and its hash)", ours: ms(listMs + hashMs), budget: "< 400 ms", met: listMs + hashMs < 400 },
      { what: "the same: the first winner", ours: ms(one), budget: "told", met: null },
      {
        what: "the same: 1,000 winners",
        ours: ms(thousand),
        baseline: `${ms(pass)} a pass, ${ms(macs)} for 1,000 bare HMACs`,
        ratio: (thousand / (2 * pass + 1.5 * macs)).toFixed(2),
        budget: "≤ 2 passes + 1.5 × the HMACs",
        met: thousand <= 2 * pass + 1.5 * macs,
      },
      { what: "the same, 1,000 winners: followed by a viewer’s browser", ours: ms(checked.ms), budget: "< 2 s", met: checked.ms < 2_000 },
    ];
    rows.push(...(await stakes(stack.env, { say })));
    const raw = await run("turnedPicture", 0);
    for (const segments of [8, 60, 200]) {
      const figures = await run("wheelSpins", segments);
      const ours = median(figures.intervalsMs);
      const bare = median(raw.intervalsMs);
      say(`  ${segments} segments: ${(1000 / ours).toFixed(0)} frames/s against ${(1000 / bare).toFixed(0)} for a turned picture alone`);
      rows.push({
        what: `a wheel of ${segments} segments turns: script with drawing per frame`,
        ours: ms(median(figures.scriptMs)),
        baseline: ms(median(raw.scriptMs)),
        ratio: (median(figures.scriptMs) / median(raw.scriptMs)).toFixed(2),
        budget: "told",
        met: null,
      });
      rows.push({
        what: `the same: time between frames, in software`,
        ours: `${ms(ours)} (${(1000 / ours).toFixed(0)}/s)`,
        baseline: `${ms(bare)} (${(1000 / bare).toFixed(0)}/s)`,
        ratio: (ours / bare).toFixed(2),
        budget: segments === 60 ? "≤ 1.3" : "told",
        met: segments === 60 ? ours / bare <= 1.3 : null,
      });
    }
    return rows;
  } finally {
    await browser.close();
    await stack.stop();
  }
}
