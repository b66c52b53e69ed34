// A whole installation for tests and the bench: own folder, own database, own ports, faults at will.
import { execFileSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { startDatabase, stopLeftDatabase } from "./database.mjs";
import { seed, settingsFor, startProcess } from "./installation.mjs";
import { freePort } from "./ports.mjs";
import { sourceStamp } from "./stamp.mjs";
import { root } from "./system.mjs";

/** A demo is filled relative to now; one that is older than this is another evening's. */
const seededFor = 60 * 60_000;
let seeding = null;
/** The demo's data folder, filled once (it takes 24 s of a processor) and copied for each installation. Nothing runs on it. */
export const seededFolder = () => (seeding ??= makeSeeded());
async function makeSeeded() {
  const folder = join(root, ".data-test/seeded");
  const mark = join(folder, "stamp.json");
  const stamp = sourceStamp();
  const known = existsSync(mark) ? JSON.parse(readFileSync(mark, "utf8")) : null;
  if (known?.stamp === stamp && Date.now() - known.atMs < seededFor) return folder;
  await stopLeftDatabase(folder);
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const database = await startDatabase(folder, { quiet: true, databases: [databaseName], durable: false });
  const practice = { port: 1, ircPort: 1 };
  try {
    await seed(settingsFor({ folder, database, databaseName, port: 1, webPort: 1, practice, setupCode }));
  } finally {
    await database.stop();
  }
  writeFileSync(mark, JSON.stringify({ stamp, atMs: Date.now() }));
  return folder;
}
const databaseName = "izzam_test";
const setupCode = "246810";

/** `from`: its ports are looked for there; those that start at the same time begin far apart, or two may find the same port free. */
export async function startStack({ name, demo = true, fresh = true, log = "warn", from = 4_600 }) {
  const folder = join(root, ".data-test", name);
  await stopLeftDatabase(folder);
  if (fresh) rmSync(folder, { recursive: true, force: true });
  mkdirSync(join(folder, ".."), { recursive: true, mode: 0o700 });
  // Copied as it lies there: the folder's holes stay holes.
  if (fresh && demo) execFileSync("cp", ["-r", "--sparse=always", await seededFolder(), folder]);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  // As it was at first, kept beside: going back is copying rows, not making pictures and sounds anew.
  const kept = `${databaseName}_kept`;
  let database = await startDatabase(folder, { quiet: true, databases: [databaseName, kept] });
  const port = await freePort(from + Math.floor(Math.random() * 300));
  const webPort = await freePort(port + 1);
  const practice = { port: await freePort(webPort + 1), ircPort: 0 };
  practice.ircPort = await freePort(practice.port + 1);
  const env = { ...settingsFor({ folder, database, databaseName, port, webPort, demo, practice, setupCode }), IZZAM_LOG: log };
  const begin = (what) => startProcess(what, env, join(folder, "logs"));
  const parts = {};
  /** What a test killed and has not brought back. */
  const dead = new Set();
  const start = async (what) => {
    parts[what] = begin(what);
    await parts[what].ready;
  };
  await seed(env);
  const withDatabase = async (work) => {
    const { createConnection } = await import("mysql2/promise");
    const connection = await createConnection({ host: "127.0.0.1", port: database.port, user: "izzam", password: database.password });
    try {
      await work(connection);
    } finally {
      await connection.end();
    }
  };
  const tablesOf = async (connection) =>
    (await connection.query("select table_name as t from information_schema.tables where table_schema = ?", [databaseName]))[0].map(
      (r) => r.t,
    );
  await withDatabase(async (connection) => {
    for (const t of await tablesOf(connection)) await connection.query(`CREATE TABLE ${kept}.${t} AS SELECT * FROM ${databaseName}.${t}`);
  });
  await Promise.all(["engine", "web", "practice", "media", "lab"].map(start));

  const stack = {
    env,
    folder,
    databaseName,
    setupCode,
    base: `http://localhost:${port}`,
    practice: `http://localhost:${practice.port}`,
    practiceIrcPort: practice.ircPort,
    get database() {
      return database;
    },
    pid: (what) => parts[what].child.pid,
    async restart(what) {
      await parts[what].stop();
      await start(what);
    },
    /** As a power cut: nothing is said, nothing is finished. */
    async kill(what) {
      dead.add(what);
      if (what === "database") return database.kill();
      await parts[what].kill();
    },
    async revive(what) {
      dead.delete(what);
      if (what === "database")
        database = await startDatabase(folder, { quiet: true, databases: [databaseName, kept], port: database.port });
      else await start(what);
    },
    /** Brings back what is still killed: a test that failed half-way must not take those after it along. */
    async heal() {
      for (const what of ["database", "web", "practice", "engine", "media", "lab"]) if (dead.has(what)) await stack.revive(what);
    },
    /** Everything as it was at first; open pages lose their links. */
    async reset() {
      await stack.heal();
      await parts.engine.tell("rest", "rests");
      await withDatabase(async (connection) => {
        await connection.query("SET foreign_key_checks = 0");
        for (const t of await tablesOf(connection)) {
          await connection.query(`DELETE FROM ${databaseName}.${t}`);
          await connection.query(`INSERT INTO ${databaseName}.${t} SELECT * FROM ${kept}.${t}`);
        }
        // Pages that are still open somewhere lose their links, as they would with a new installation.
        const { hashToken, newToken, seal } = await import(join(root, ".build/secrets.mjs"));
        const key = Buffer.from(env.IZZAM_APP_KEY, "hex");
        const [overlays] = await connection.query(`SELECT id FROM ${databaseName}.overlays WHERE token_hash IS NOT NULL`);
        for (const { id } of overlays) {
          const token = newToken();
          await connection.query(`UPDATE ${databaseName}.overlays SET token_hash = ?, token_sealed = ? WHERE id = ?`, [
            hashToken(token),
            seal(key, "overlay-link", token),
            id,
          ]);
        }
      });
      await parts.engine.tell("open", "ready");
    },
    async stop() {
      await Promise.all(Object.values(parts).map((p) => p.stop()));
      await database.stop();
    },
  };
  return stack;
}
