// Browser tests: builds, starts a whole installation of its own, and drives Debian's Chromium.
import { spawn } from "node:child_process";
import { createServer } from "node:http";
import { existsSync, readFileSync, rmSync } from "node:fs";
import { availableParallelism } from "node:os";
import { join } from "node:path";
import { ensureBuilt } from "./build.mjs";
import { browserFailures } from "./lib/failures.mjs";
import { endWith, isMain, step, Trouble } from "./lib/say.mjs";
import { checkLedger } from "./ledger.mjs";
import { startStack } from "./lib/stack.mjs";
import { ensurePackages, databasePrograms, soundPrograms, ensureSystem, program, root } from "./lib/system.mjs";

const workers = Number(process.env.IZZAM_WORKERS) || Math.max(1, Math.min(2, availableParallelism()));

/** Lets the tests, in their own process, make things go wrong and whole again. */
function controlServer(stacks) {
  const server = createServer((req, res) => {
    const [, name, act, part] = (req.url ?? "").split("/");
    const stack = stacks[name];
    const work = stack && typeof stack[act] === "function" ? stack[act](part) : Promise.reject(new Error("unknown"));
    Promise.resolve(work).then(
      (value) => res.end(JSON.stringify({ ok: true, value: typeof value === "number" ? value : null })),
      (error) => res.writeHead(500).end(JSON.stringify({ ok: false, words: String(error) })),
    );
  });
  return new Promise((resolve) =>
    server.listen(0, "127.0.0.1", () => resolve({ url: `http://127.0.0.1:${server.address().port}`, close: () => server.close() })),
  );
}

export async function browser(args = []) {
  await ensureBuilt();
  const results = join(root, ".data-test/playwright.json");
  rmSync(results, { force: true });
  // Each worker has an installation of its own, so that no test waits for another's or sees what it did.
  const [empty, ...demos] = await step(`Starting ${workers} installations for the browser tests, and an empty one`, async () => [
    await startStack({ name: "browser-empty", demo: false, from: 5_600 }),
    ...(await Promise.all(Array.from({ length: workers }, (_, i) => startStack({ name: `browser-${i + 1}`, from: 4_600 + i * 400 })))),
  ]);
  const control = await controlServer({ empty, ...Object.fromEntries(demos.map((demo, i) => [`demo${i}`, demo])) });
  let balanced = false;
  try {
    await new Promise((resolve, reject) => {
      const child = spawn(process.execPath, [join(root, "node_modules/@playwright/test/cli.js"), "test", ...args], {
        cwd: root,
        stdio: ["ignore", "inherit", "inherit"],
        env: {
          ...process.env,
          IZZAM_CHROMIUM: program("chromium-headless-shell"),
          IZZAM_WORKERS: String(workers),
          IZZAM_DEMOS: JSON.stringify(demos.map(({ base, practice }) => ({ base, practice }))),
          IZZAM_EMPTY: empty.base,
          IZZAM_SETUP: empty.setupCode,
          IZZAM_CONTROL: control.url,
          PLAYWRIGHT_JSON_OUTPUT_NAME: results,
        },
      });
      child.on("error", reject);
      child.on("exit", resolve);
    });
  } finally {
    await Promise.all(demos.map((demo) => demo.heal()));
    // Whatever the tests did: the ledgers balance to the point.
    balanced = demos.map((demo) => checkLedger(demo.env)).every(Boolean);
    control.close();
    await Promise.all([...demos, empty].map((stack) => stack.stop()));
  }
  if (!existsSync(results)) throw new Trouble("The browser tests did not run.");
  const report = JSON.parse(readFileSync(results, "utf8"));
  const { stats, errors } = report;
  if (stats.expected + stats.unexpected + stats.flaky === 0) throw new Trouble("No browser test ran.");
  // A test that passes only when tried again is a defect.
  const failed = stats.unexpected + stats.flaky + (errors?.length ?? 0) + (balanced ? 0 : 1);
  if (!balanced) console.log("A ledger of the browser tests' installations does not balance.");
  const failures = [...browserFailures(report), ...(balanced ? [] : ["the ledgers balance"])];
  return { passed: stats.expected + (balanced ? 1 : 0), failed, failures };
}

if (isMain(import.meta.url)) {
  (async () => {
    await ensureSystem([...databasePrograms, ...soundPrograms, "chromium-headless-shell", "nginx", "openssl"]);
    await ensurePackages();
    const { failed } = await browser(process.argv.slice(2));
    if (failed > 0) process.exitCode = 1;
  })().catch(endWith);
}
