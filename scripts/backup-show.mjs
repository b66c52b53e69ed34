// Backups of an installation in the middle of a show, and one of them brought back: npm run faults does this after its kills.
import { readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { checkLedger } from "./ledger.mjs";
import { backUp, restore } from "./lib/backup.mjs";
import { startDatabase } from "./lib/database.mjs";
import { settingsFor } from "./lib/installation.mjs";
import { say } from "./lib/say.mjs";
import { startStack } from "./lib/stack.mjs";
import { root } from "./lib/system.mjs";

const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const viewers = ["mossy_teapot", "quietferry", "oatcake_ada", "raku_rita", "otterly_fine"];
const words = ["!slap", "!bell", "!drip", "!kettle", "!gull"];

/** As a part of ./test: what is brought back balances, and holds what was sold before the backup and nothing from after it. */
export async function backupUnderShow() {
  const wrong = [];
  const must = (is, what) => void (is || wrong.push(what));
  const stack = await startStack({ name: "backup", log: "error" });
  const [to, folder] = ["backups", "brought-back"].map((name) => join(root, ".data-test", name));
  for (const old of [to, folder]) rmSync(old, { recursive: true, force: true });
  const { createConnection } = await import("mysql2/promise");
  const counted = async (database, name) => {
    const connection = await createConnection({ host: "127.0.0.1", port: database.port, user: "izzam", password: database.password, database: name }); // prettier-ignore
    try {
      return Number((await connection.query("select count(*) as n from sales"))[0][0].n);
    } finally {
      await connection.end();
    }
  };
  let going = true;
  const { databaseName: name } = stack;
  const show = (async () => {
    for (let n = 0; going; n += 1) {
      await fetch(`${stack.practice}/say`, { method: "POST", body: JSON.stringify({ as: viewers[n % 5], text: words[n % words.length] }) }).catch(() => undefined); // prettier-ignore
      await fetch(`${stack.practice}/event`, { method: "POST", body: JSON.stringify({ as: viewers[n % 5], kind: "tip", amount: 500, currency: "EUR" }) }).catch(() => undefined); // prettier-ignore
      await wait(40);
    }
  })();
  try {
    // As ./start says where its database is.
    writeFileSync(join(stack.folder, "running.json"), JSON.stringify({ pid: process.pid, database: { port: stack.database.port } }));
    const before = await counted(stack.database, name);
    let made = null;
    for (let n = 0; n < 40 && (await counted(stack.database, name)) <= before; n += 1) await wait(250);
    for (let n = 0; n < 3; n += 1) {
      const [from, at] = [await counted(stack.database, name), Date.now() + n * 1_000];
      made = {
        ...(await backUp({ folder: stack.folder, to, databases: [name], nowMs: at })),
        from,
        until: await counted(stack.database, name),
      };
      await wait(300);
    }
    must(made.until > before, "nothing was sold while the backups were made, so nothing was tested");
    await restore({ file: made.path, folder });
    const database = await startDatabase(folder, { quiet: true, databases: [name] });
    try {
      const sales = await counted(database, name);
      must(sales >= made.from && sales <= made.until, `${sales} sales came back; there were ${made.from} before and ${made.until} after`);
      const env = settingsFor({ folder, database, databaseName: name, port: 1, webPort: 1 });
      must(checkLedger(env, [], true), "the ledger that came back does not balance");
      must(env.IZZAM_APP_KEY === stack.env.IZZAM_APP_KEY, "another key came back than the one that sealed");
    } finally {
      await database.stop();
    }
    must(readFileSync(made.path).length === made.bytes, "the backup has another size than was told");
  } catch (error) {
    wrong.push(`a backup under a show: ${error.message}`);
  } finally {
    going = false;
    await show;
    await stack.stop();
    for (const old of [to, folder]) rmSync(old, { recursive: true, force: true });
  }
  for (const what of wrong) say(`✗ ${what}`);
  if (wrong.length === 0) say("Three backups in the middle of a show, and the last of them brought back: it balances to the point.");
  return { passed: wrong.length === 0 ? 1 : 0, failed: wrong.length === 0 ? 0 : 1, failures: wrong };
}
