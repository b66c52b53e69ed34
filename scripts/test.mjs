// All tests. Does all of its own set-up; the last line is `N passed, N failed`.
import { endWith, say, Trouble } from "./lib/say.mjs";
import { ensurePackages, databasePrograms, soundPrograms, ensureSystem } from "./lib/system.mjs";

const began = Date.now();
const parts = ["check", "unit", "browser", "faults"];

async function main() {
  const wanted = process.argv.slice(2);
  const unknown = wanted.filter((p) => !parts.includes(p));
  if (unknown.length > 0) throw new Trouble(`There is no part ${unknown.join(", ")}: ./test [${parts.join("|")}]`);
  const run = (part) => wanted.length === 0 || wanted.includes(part);
  await ensureSystem([...databasePrograms, ...soundPrograms, ...(run("browser") ? ["chromium-headless-shell", "nginx", "openssl"] : [])]);
  await ensurePackages();
  let passed = 0;
  let failed = 0;
  const took = [];
  for (const part of parts.filter(run)) {
    say(`\n— ${part} —`);
    // Loaded here, since these need the packages that were installed just now.
    const module = await import(`./${part}.mjs`);
    const from = Date.now();
    const result = await module[part]();
    const seconds = (Date.now() - from) / 1000;
    took.push({ part, seconds });
    say(`${part}: ${result.passed} passed, ${result.failed} failed (${seconds.toFixed(0)} s)`);
    passed += result.passed;
    failed += result.failed;
  }
  say("\nHow long it took:");
  for (const { part, seconds } of [...took, { part: "all of it", seconds: (Date.now() - began) / 1000 }])
    say(`  ${`${Math.floor(seconds / 60)} min ${String(Math.round(seconds % 60)).padStart(2, "0")} s`.padStart(13)}  ${part}`);
  say(`\n${passed} passed, ${failed} failed`);
  process.exit(failed > 0 ? 1 : 0);
}

main().catch((error) => {
  say("\n0 passed, 1 failed");
  endWith(error);
});
