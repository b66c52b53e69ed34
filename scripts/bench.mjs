// npm run bench [-- NAME …]: measures, each beside a raw baseline of the same run. `quick` measures, within three minutes,
// the ten figures that people feel. A section that fails is told, and the next one is measured all the same.
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { ensureBuilt } from "./build.mjs";
import { endWith, say, Trouble } from "./lib/say.mjs";
import { ensurePackages, databasePrograms, soundPrograms, ensureSystem, program, root } from "./lib/system.mjs";

/** What people feel: how soon pages and overlays stand there, how soon chat is seen, how much the machine is left. */
const quick = ["page", "pages", "latency"];

async function main() {
  const all = readdirSync(join(root, "bench"))
    .filter((f) => f.endsWith(".bench.ts"))
    .map((f) => f.replace(".bench.ts", ""))
    .sort();
  const asked = process.argv.slice(2);
  const isQuick = asked.includes("quick");
  const wanted = asked.flatMap((n) => (n === "quick" ? quick : [n]));
  const unknown = wanted.filter((n) => !all.includes(n));
  if (unknown.length > 0) throw new Trouble(`There is no measurement ${unknown.join(", ")}: ${all.join(", ")}`);
  await ensureSystem([...databasePrograms, ...soundPrograms, "chromium"]);
  await ensurePackages();
  await ensureBuilt();
  const { build } = await import("esbuild");
  const out = join(root, ".build/bench");
  mkdirSync(out, { recursive: true });
  await build({
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    packages: "external",
    logLevel: "error",
    entryPoints: all.map((n) => join(root, `bench/${n}.bench.ts`)),
    outdir: out,
    outExtension: { ".js": ".mjs" },
  });
  await build({
    bundle: true,
    platform: "browser",
    format: "iife",
    logLevel: "error",
    minify: true,
    target: "chrome100",
    entryPoints: [join(root, "bench/scene-page.ts")],
    outdir: out,
  });
  const { startStack } = await import("./lib/stack.mjs");
  const rows = [];
  const failed = [];
  for (const name of wanted.length > 0 ? wanted : all) {
    say(`\n${name} …`);
    try {
      const { measure } = await import(pathToFileURL(join(out, `${name}.bench.mjs`)).href);
      rows.push(...(await measure({ root, out, chromium: program("chromium"), startStack, say, isQuick })));
    } catch (error) {
      failed.push(name);
      say(`✗ ${name} failed: ${error instanceof Error ? error.stack : String(error)}`);
    }
  }
  const cells = [
    ["what", "ours", "baseline", "ratio", "budget", "met"],
    ...rows.map((r) => [r.what, r.ours, r.baseline ?? "–", r.ratio ?? "–", r.budget, r.met === null ? "–" : r.met ? "yes" : "NO"]),
  ];
  const widths = cells[0].map((_, i) => Math.max(...cells.map((row) => String(row[i]).length)));
  say("");
  for (const row of cells) say(row.map((cell, i) => String(cell).padEnd(widths[i])).join("  "));
  const file = join(root, "bench/latest.json");
  let before = [];
  try {
    before = JSON.parse(readFileSync(file, "utf8")).rows;
  } catch {
    // The first run has nothing to keep.
  }
  writeFileSync(
    file,
    JSON.stringify(
      { at: new Date().toISOString(), rows: [...before.filter((b) => !rows.some((r) => r.what === b.what)), ...rows] },
      null,
      2,
    ),
  );
  if (failed.length > 0) say(`\nNot measured, since they failed: ${failed.join(", ")}.`);
  process.exit(failed.length > 0 ? 1 : 0);
}
main().catch(endWith);
