// All tests. Does all of its own set-up; the last line is `N passed, N failed`.
import { endWith, say, Trouble } from "./lib/say.mjs";
import { backupPrograms, ensurePackages, databasePrograms, soundPrograms, ensureSystem } from "./lib/system.mjs";

const began = Date.now();
const parts = ["check", "unit", "browser", "faults"];

async function main() {
  const wanted = process.argv.slice(2);
  const unknown = wanted.filter((p) => !parts.includes(p));
  if (unknown.length > 0) throw new Trouble(`There is no part ${unknown.join(", ")}: ./test [${parts.join("|")}]`);
  const run = (part) => wanted.length === 0 || wanted.includes(part);
  await ensureSystem([
    ...databasePrograms,
    ...backupPrograms,
    ...soundPrograms,
    ...(run("browser") ? ["chromium-headless-shell", "nginx", "openssl"] : []),
  ]);
  await ensurePackages();
  let passed = 0;
  let failed = 0;
  const took = [];
  const failures = [];
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
    failures.push(...(result.failures ?? []).map((failure) => `${part}: ${failure}`));
  }
  say("\nHow long it took:");
  for (const { part, seconds } of [...took, { part: "all of it", seconds: (Date.now() - began) / 1000 }])
    say(`  ${`${Math.floor(seconds / 60)} min ${String(Math.round(seconds % 60)).padStart(2, "0")} s`.padStart(13)}  ${part}`);
  // Told again here: what was printed when it happened is thousands of lines above.
  if (failures.length > 0) say(`\nWhat failed:\n${failures.map((failure) => `  ${failure}`).join("\n")}`);
  say(`\n${passed} passed, ${failed} failed`);
  process.exit(failed > 0 ? 1 : 0);
}

main().catch((error) => {
  say("\n0 passed, 1 failed");
  endWith(error);
});
