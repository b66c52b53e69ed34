// npm run bench [-- NAME …]: measures, each beside a raw baseline of the same run. Never fails a test run.
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { ensureBuilt } from "./build.mjs";
import { endWith, say, Trouble } from "./lib/say.mjs";
import { ensurePackages, databasePrograms, soundPrograms, ensureSystem, program, root } from "./lib/system.mjs";

async function main() {
  const all = readdirSync(join(root, "bench"))
    .filter((f) => f.endsWith(".bench.ts"))
    .map((f) => f.replace(".bench.ts", ""))
    .sort();
  const wanted = process.argv.slice(2);
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
  for (const name of wanted.length > 0 ? wanted : all) {
    say(`\n${name} …`);
    const { measure } = await import(pathToFileURL(join(out, `${name}.bench.mjs`)).href);
    rows.push(...(await measure({ root, out, chromium: program("chromium"), startStack, say })));
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
  process.exit(0);
}
main().catch(endWith);
