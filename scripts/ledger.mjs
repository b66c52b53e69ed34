// Checks the ledger of an installation, running or not: npm run ledger [-- --rebuild] [--data FOLDER]
import { spawnSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { parseArgs } from "node:util";
import { endWith, isMain, Trouble } from "./lib/say.mjs";
import { databasePrograms, ensurePackages, ensureSystem, root } from "./lib/system.mjs";

/** Runs the check against the database of one environment; true when everything balances. */
export const checkLedger = (env, args = [], quiet = false) =>
  spawnSync(process.execPath, [join(root, ".build/ledger.mjs"), ...args], {
    env,
    stdio: ["ignore", quiet ? "ignore" : "inherit", "inherit"],
  }).status === 0;

if (isMain(import.meta.url)) {
  (async () => {
    const { values } = parseArgs({ options: { rebuild: { type: "boolean" }, data: { type: "string" } } });
    await ensureSystem(databasePrograms);
    await ensurePackages();
    const { ensureBuilt } = await import("./build.mjs");
    const { settingsFor } = await import("./lib/installation.mjs");
    const { startDatabase } = await import("./lib/database.mjs");
    await ensureBuilt();
    const folder = resolve(values.data ?? join(root, ".data"));
    if (!existsSync(join(folder, "mariadb"))) throw new Trouble(`There is no installation in ${folder}.`);
    const lock = join(folder, "running.json");
    const port = existsSync(lock) ? JSON.parse(readFileSync(lock, "utf8")).database?.port : undefined;
    const databases = ["izzam", "izzam_demo"];
    const database =
      port === undefined
        ? await startDatabase(folder, { quiet: true, databases })
        : { port, password: readFileSync(join(folder, "keys", "database"), "utf8").trim() };
    try {
      for (const databaseName of databases) {
        const env = settingsFor({ folder, database, databaseName, port: 1, webPort: 1 });
        if (!checkLedger(env, values.rebuild ? ["--rebuild"] : [])) process.exitCode = 1;
      }
    } finally {
      await database.stop?.();
    }
  })().catch(endWith);
}
