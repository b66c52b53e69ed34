// Unit tests and contract tests, with a real MariaDB of their own.
import { spawn } from "node:child_process";
import { availableParallelism } from "node:os";
import { mkdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { startDatabase } from "./lib/database.mjs";
import { unitFailures } from "./lib/failures.mjs";
import { endWith, isMain, Trouble } from "./lib/say.mjs";
import { ensurePackages, databasePrograms, soundPrograms, ensureSystem, root } from "./lib/system.mjs";

/** The migrated database that tests are copied from was made by an earlier state of the sources. */
async function forgetTemplate({ port, password }) {
  const { createConnection } = await import("mysql2/promise");
  const connection = await createConnection({ host: "127.0.0.1", port, user: "izzam", password });
  await connection.query("DROP DATABASE IF EXISTS izzam_unit_template");
  await connection.end();
}

export async function unit(args = []) {
  const folder = join(root, ".data-test/unit");
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  // Nothing of it outlives a run, so it need not survive a power cut.
  const database = await startDatabase(folder, { databases: ["izzam_unit"], patterns: ["izzam\\_unit\\_%"], durable: false });
  await forgetTemplate(database);
  const results = join(folder, "jest.json");
  rmSync(results, { force: true });
  try {
    await new Promise((resolve, reject) => {
      const child = spawn(
        process.execPath,
        [
          "--experimental-vm-modules",
          "--disable-warning=ExperimentalWarning",
          join(root, "node_modules/jest/bin/jest.js"),
          // Jest leaves one core idle by itself; here there is nobody else.
          `--maxWorkers=${availableParallelism()}`,
          "--json",
          // A machine in a cloud stands still for half a minute at times; what never ends still ends here.
          "--testTimeout=120000",
          // A test that failed half-way may leave a timer behind; the run still ends.
          "--forceExit",
          `--outputFile=${results}`,
          ...args,
        ],
        {
          cwd: root,
          stdio: ["ignore", "ignore", "inherit"],
          env: {
            ...process.env,
            NODE_ENV: "test",
            IZZAM_TEST_DB_PORT: String(database.port),
            IZZAM_TEST_DB_PASSWORD: database.password,
            IZZAM_TEST_DB_NAME: "izzam_unit",
          },
        },
      );
      child.on("error", reject);
      child.on("exit", resolve);
    });
  } finally {
    await database.stop();
  }
  const report = JSON.parse(readFileSync(results, "utf8"));
  if (report.numTotalTests === 0) throw new Trouble("No unit test ran.");
  return {
    passed: report.numPassedTests,
    failed: report.numFailedTests + report.numRuntimeErrorTestSuites,
    failures: unitFailures(report),
  };
}

if (isMain(import.meta.url)) {
  (async () => {
    await ensureSystem([...databasePrograms, ...soundPrograms]);
    await ensurePackages();
    const { failed } = await unit(process.argv.slice(2));
    if (failed > 0) process.exitCode = 1;
  })().catch(endWith);
}
