// One file with all of an installation: its database as of one moment, and the keys that open what is sealed in it.
import { execFile, spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { createReadStream, createWriteStream, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs"; // prettier-ignore
import { basename, dirname, join } from "node:path";
import { Transform } from "node:stream";
import { pipeline } from "node:stream/promises";
import { promisify } from "node:util";
import { createGunzip, createGzip } from "node:zlib";
import { startDatabase } from "./database.mjs";
import { Trouble } from "./say.mjs";
import { program, root } from "./system.mjs";

const exec = promisify(execFile);
export const backupFormat = "izzam-backup-1";
const dumpName = "database.sql.gz";
/** Names of files in a backup that an installation has; anything else is refused. */
const ofBackup = /^(?:\.\/)?(?:manifest\.json|database\.sql\.gz|keys\/[a-z0-9.-]{1,40})$/;
const largestPacket = "--max-allowed-packet=64M";
const version = () => JSON.parse(readFileSync(join(root, "package.json"), "utf8")).version;

/** The steps by which a database of this version came to its form. */
export function knownSteps() {
  const folder = join(root, "src/server/adapters/mariadb");
  return readdirSync(folder)
    .filter((name) => /^migration.*\.ts$/.test(name) && !name.includes(".test."))
    .flatMap((name) => [...readFileSync(join(folder, name), "utf8").matchAll(/"(\d{3}-[a-z0-9-]+)"/g)].map((m) => m[1]));
}

/** The address of an installation's database: of the one that runs, or of one that is started for this. */
export async function databaseOf(folder, databases) {
  if (!existsSync(join(folder, "mariadb"))) throw new Trouble(`There is no installation in ${folder}.`);
  const lock = join(folder, "running.json");
  const told = existsSync(lock) ? JSON.parse(readFileSync(lock, "utf8")) : {};
  const password = readFileSync(join(folder, "keys", "database"), "utf8").trim();
  if (told.database?.port !== undefined && (await answers(told.database.port, password)))
    return { port: told.database.port, password, stop: async () => undefined };
  // A second server on its folder would end the one it has.
  if (isAlive(told.pid))
    throw new Trouble(`The installation in ${folder} is starting, or its database does not answer. Try again in a minute.`);
  return startDatabase(folder, { quiet: true, databases });
}
const isAlive = (pid) => {
  try {
    return Number.isInteger(pid) && process.kill(pid, 0);
  } catch {
    return false;
  }
};
async function answers(port, password) {
  const { createConnection } = await import("mysql2/promise");
  try {
    const connection = await createConnection({ host: "127.0.0.1", port, user: "izzam", password, connectTimeout: 2_000 });
    await connection.end();
    return true;
  } catch {
    return false;
  }
}

/** What is in the databases, for the person who makes or brings back a backup; and by which steps they came to their form. */
async function contentsOf({ port, password }, wanted) {
  const { createConnection } = await import("mysql2/promise");
  const connection = await createConnection({ host: "127.0.0.1", port, user: "izzam", password });
  const one = async (sql) => (await connection.query(sql))[0];
  try {
    const databases = [];
    for (const name of wanted) {
      const there = await one(`select table_name as t from information_schema.tables where table_schema = '${name}'`);
      if (!there.some((r) => r.t === "channels")) continue;
      const number = async (table) => Number((await one(`select count(*) as n from ${name}.${table}`))[0].n);
      databases.push({
        name,
        steps: (await one(`select name from ${name}.knex_migrations order by id`)).map((r) => r.name),
        channels: (await one(`select name from ${name}.channels order by created_ms`)).map((r) => r.name),
        people: await number("viewers"),
        props: await number("props"),
        sales: await number("sales"),
      });
    }
    return databases;
  } finally {
    await connection.end();
  }
}

/** Passes bytes on, and knows their hash, how many there were, and the last of them. */
function measured() {
  const hash = createHash("sha256");
  const of = { bytes: 0, last: Buffer.alloc(0), sha256: () => hash.digest("hex") };
  const stream = new Transform({
    transform(part, _, done) {
      hash.update(part);
      of.bytes += part.length;
      of.last = Buffer.concat([of.last, part]).subarray(-200);
      done(null, part);
    },
  });
  return Object.assign(stream, { of });
}
/** A program that ended well; else what it said. */
const ended = (child, what) => {
  let said = "";
  child.stderr.on("data", (data) => (said = (said + data).slice(-2_000)));
  return new Promise((resolve, reject) => {
    child.on("error", reject);
    child.on("exit", (code) => (code === 0 ? resolve() : reject(new Trouble(`${what} failed: ${said.trim() || `it ended with ${code}`}`))));
  });
};
/** A password is given in a file that only we can read, not among the words that every user of this computer sees. */
function loginFile(at, { port, password }) {
  writeFileSync(at, `[client]\nhost=127.0.0.1\nport=${port}\nuser=izzam\npassword=${password}\n`, { mode: 0o600 });
  return `--defaults-extra-file=${at}`;
}
const sha256Of = async (path) => {
  const sum = measured();
  sum.resume();
  await pipeline(createReadStream(path), sum);
  return { sha256: sum.of.sha256(), bytes: sum.of.bytes };
};

/**
 * Makes a backup of an installation, whether it runs or not: as of one moment, while sales go on. Nothing is left behind of one that
 * failed. Returns where it is and what is in it.
 */
export async function backUp({ folder, to, databases = ["izzam", "izzam_demo"], nowMs = Date.now() }) {
  const database = await databaseOf(folder, databases);
  mkdirSync(to, { recursive: true, mode: 0o700 });
  const name = `izzam-${new Date(nowMs).toISOString().slice(0, 19).replace(/:/g, "")}.tar`;
  const staging = join(to, `.${name}.parts`);
  const path = join(to, name);
  // What one that was killed left behind.
  for (const left of readdirSync(to).filter((one) => /^\.?izzam-.*\.tar\.(?:parts|partial)$/.test(one)))
    if (Date.now() - statSync(join(to, left)).mtimeMs > 3_600_000) rmSync(join(to, left), { recursive: true, force: true });
  // Two in one second would write the same file.
  if (existsSync(staging) || existsSync(path)) {
    await database.stop();
    throw new Trouble(`Another backup is being made into ${to}. Try again in a moment.`);
  }
  mkdirSync(staging, { mode: 0o700 });
  try {
    mkdirSync(join(staging, "keys"), { mode: 0o700 });
    const contents = await contentsOf(database, databases);
    if (contents.length === 0) throw new Trouble(`The installation in ${folder} has no channel yet: there is nothing to back up.`);
    const login = join(staging, ".login");
    const dump = spawn(
      program("mariadb-dump"),
      [loginFile(login, database), "--single-transaction", "--quick", "--hex-blob", "--no-tablespaces", "--skip-lock-tables", largestPacket, "--databases", ...contents.map((d) => d.name)], // prettier-ignore
      { stdio: ["ignore", "pipe", "pipe"] },
    );
    const plain = measured();
    const well = ended(dump, "Reading the database");
    await Promise.all([pipeline(dump.stdout, plain, createGzip({ level: 6 }), createWriteStream(join(staging, dumpName), { mode: 0o600 })), well]); // prettier-ignore
    if (!/-- Dump completed/.test(plain.of.last.toString("utf8"))) throw new Trouble("Reading the database broke off before its end.");
    rmSync(login);
    // What the server reads at its start is made anew each time.
    const keys = readdirSync(join(folder, "keys")).filter((key) => key !== "init.sql" && statSync(join(folder, "keys", key)).isFile());
    for (const key of keys) writeFileSync(join(staging, "keys", key), readFileSync(join(folder, "keys", key)), { mode: 0o600 });
    const parts = {};
    for (const part of [dumpName, ...keys.map((key) => `keys/${key}`)]) parts[part] = await sha256Of(join(staging, part));
    const manifest = { format: backupFormat, version: version(), at: new Date(nowMs).toISOString(), databases: contents, parts };
    writeFileSync(join(staging, "manifest.json"), `${JSON.stringify(manifest, null, 2)}\n`, { mode: 0o600 });
    await exec("tar", ["-C", staging, "--owner=0", "--group=0", "-cf", `${path}.partial`, "manifest.json", dumpName, "keys"], {
      mode: 0o600,
    });
    await exec("chmod", ["600", `${path}.partial`]);
    renameSync(`${path}.partial`, path);
    return { path, bytes: statSync(path).size, manifest };
  } catch (error) {
    rmSync(`${path}.partial`, { force: true });
    throw error.code === "ENOSPC" || /No space left/.test(String(error.message))
      ? new Trouble(`The disk of ${to} is full. No backup was made, and those that are there are whole.`)
      : error;
  } finally {
    rmSync(staging, { recursive: true, force: true });
    await database.stop();
  }
}

/** The manifest of a backup; throws where it is none, is damaged, or was made by a newer version. */
export async function manifestOf(file) {
  if (!existsSync(file)) throw new Trouble(`There is no file ${file}.`);
  const no = (why) => new Trouble(`${basename(file)} is no backup of Izzam, or it is damaged: ${why}.`);
  const listed = await exec("tar", ["-tf", file], { maxBuffer: 1 << 20 }).catch(() => {
    throw no("it can’t be read as a tar file");
  });
  const names = listed.stdout.split("\n").filter((name) => name !== "" && !name.endsWith("/"));
  const odd = names.find((name) => !ofBackup.test(name));
  if (odd !== undefined) throw no(`it holds “${odd}”`);
  if (new Set(names).size !== names.length || !names.includes(dumpName)) throw no("its database is missing or there twice");
  let manifest;
  try {
    manifest = JSON.parse((await exec("tar", ["-xOf", file, "manifest.json"], { maxBuffer: 1 << 22 })).stdout);
  } catch {
    throw no("its manifest can’t be read");
  }
  if (manifest?.format !== backupFormat)
    throw new Trouble(`${basename(file)} has the format ${String(manifest?.format)}. This version of Izzam reads ${backupFormat}. Update Izzam, then try again.`); // prettier-ignore
  const known = new Set(knownSteps());
  const newer = (manifest.databases ?? []).flatMap((d) => d.steps ?? []).find((step) => !known.has(step));
  if (newer !== undefined)
    throw new Trouble(`${basename(file)} was made by a newer version (${manifest.version}): this one doesn’t know “${newer}”. Update Izzam, then try again.`); // prettier-ignore
  return manifest;
}

/** Brings a backup back into an empty folder. Nothing is left of one that failed. */
export async function restore({ file, folder }) {
  const manifest = await manifestOf(file);
  const isThere = existsSync(folder);
  if (isThere && readdirSync(folder).length > 0)
    throw new Trouble(`${folder} is not empty, and a backup is brought back into an empty folder only. Choose another with --data.`);
  const names = manifest.databases.map((d) => d.name);
  if (names.length === 0 || names.some((name) => !/^[a-z_]{1,40}$/.test(name))) throw new Trouble(`${basename(file)} names no database.`);
  mkdirSync(dirname(folder), { recursive: true });
  const staging = join(dirname(folder), `.${basename(folder)}.restoring`);
  rmSync(staging, { recursive: true, force: true });
  mkdirSync(staging, { mode: 0o700 });
  let database = null;
  try {
    await exec("tar", ["-C", staging, "--no-same-owner", "-xf", file]);
    for (const [part, { sha256 }] of Object.entries(manifest.parts)) {
      const found = ofBackup.test(part) && existsSync(join(staging, part)) ? await sha256Of(join(staging, part)) : null;
      if (found?.sha256 !== sha256) throw new Trouble(`${basename(file)} is damaged: ${part} is not what it was.`);
    }
    mkdirSync(join(folder, "keys"), { recursive: true, mode: 0o700 });
    for (const key of readdirSync(join(staging, "keys")))
      writeFileSync(join(folder, "keys", key), readFileSync(join(staging, "keys", key)), { mode: 0o600 });
    database = await startDatabase(folder, { quiet: true, databases: names });
    const load = spawn(program("mariadb"), [loginFile(join(staging, ".login"), database), "--binary-mode", largestPacket], {
      stdio: ["pipe", "ignore", "pipe"],
    });
    await Promise.all([pipeline(createReadStream(join(staging, dumpName)), createGunzip(), load.stdin), ended(load, "Bringing the database back")]); // prettier-ignore
    const now = await contentsOf(database, names);
    return { manifest, now };
  } catch (error) {
    await database?.stop();
    database = null;
    rmSync(folder, { recursive: true, force: true });
    if (isThere) mkdirSync(folder, { mode: 0o700 });
    throw error.code === "ENOSPC" ? new Trouble(`The disk of ${folder} is full. Nothing was brought back.`) : error;
  } finally {
    rmSync(staging, { recursive: true, force: true });
    await database?.stop();
  }
}

/** What is in a backup, a line for each channel. */
export const inWords = ({ databases }) =>
  databases.map(
    ({ name, channels, people, props, sales }) =>
      `  ${channels.join(", ") || "no channel yet"}${name.endsWith("_demo") ? " (the demo)" : ""}: ${[
        [people, "viewer", "viewers"],
        [sales, "sale", "sales"],
        [props, "prop", "props"],
      ]
        .map(([n, one, many]) => `${n.toLocaleString("en")} ${n === 1 ? one : many}`)
        .join(", ")}`,
  );

/** The backups that go when `keep` stay: the oldest ones, by their names. */
export const tooMany = (names, keep) =>
  names
    .filter((name) => /^izzam-\d{4}-\d{2}-\d{2}T\d{6}\.tar$/.test(name))
    .sort()
    .reverse()
    .slice(keep);
