import { spawn } from "node:child_process";
import { createHash, randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freePort } from "./ports.mjs";
import { lastLogged, step, Trouble } from "./say.mjs";
import { program, run } from "./system.mjs";

const isRoot = process.getuid?.() === 0;
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

const alive = (pid) => {
  try {
    process.kill(pid, 0);
    // A zombie answers the signal too, but holds no files any more.
    return !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, "utf8"));
  } catch {
    return false;
  }
};

/** The end of the database's own log. */
export function logOf(folder) {
  try {
    return readFileSync(join(folder, "mariadb.log"), "utf8").slice(-2_000);
  } catch {
    return "";
  }
}

/** Servers that still work on this data folder, whatever became of the folder's own pid file. */
const serversOn = (dir) =>
  readdirSync("/proc")
    .filter((name) => /^\d+$/.test(name))
    .filter((pid) => {
      try {
        const args = readFileSync(`/proc/${pid}/cmdline`, "utf8").split("\0");
        return /mariadbd$/.test(args[0] ?? "") && args.includes(`--datadir=${dir}`);
      } catch {
        return false;
      }
    })
    .map(Number);

/** Stops what an earlier start left behind: a second server on one folder hangs. */
export async function stopLeftDatabase(folder) {
  for (const pid of serversOn(join(folder, "mariadb"))) {
    process.kill(pid, "SIGTERM");
    for (let i = 0; i < 100 && alive(pid); i += 1) await wait(100);
    if (alive(pid)) process.kill(pid, "SIGKILL");
    while (alive(pid)) await wait(50);
  }
}

/**
 * A private MariaDB on loopback: own data folder, own port, own password. A server that an earlier start
 * left behind on the same folder is stopped first (two on one folder hang); one that was killed recovers
 * by itself. Returns { port, password, pid, stop, kill }.
 */
export async function startDatabase(
  folder,
  { quiet = false, databases = ["izzam"], patterns = [], port: wishedPort = 0, durable = true, onExit } = {},
) {
  const dir = join(folder, "mariadb");
  const keys = join(folder, "keys");
  mkdirSync(keys, { recursive: true, mode: 0o700 });
  const secretFile = join(keys, "database");
  if (!existsSync(secretFile)) writeFileSync(secretFile, randomBytes(24).toString("hex"), { mode: 0o600 });
  const password = readFileSync(secretFile, "utf8").trim();
  const pidFile = join(folder, "mariadb.pid");
  await stopLeftDatabase(folder);
  const user = isRoot ? ["--user=root"] : [];
  const fresh = !existsSync(join(dir, "mysql"));
  // Temporary tables are named by process number and thread alone: two servers that begin at once and share a folder for
  // them take each other's away.
  const temporary = join(folder, "tmp");
  mkdirSync(temporary, { recursive: true, mode: 0o700 });
  const env = { ...process.env, TMPDIR: temporary };
  const begin = async () => {
    if (fresh) {
      rmSync(dir, { recursive: true, force: true });
      mkdirSync(dir, { recursive: true, mode: 0o700 });
      await run(
        program("mariadb-install-db"),
        ["--no-defaults", "--auth-root-authentication-method=normal", "--skip-test-db", `--datadir=${dir}`, ...user],
        { env },
      );
    }
    const port = wishedPort || (await freePort());
    // A socket path may have 107 characters at most, so it lives in the temporary folder.
    const socket = join(tmpdir(), `izzam-${createHash("sha256").update(dir).digest("hex").slice(0, 12)}.sock`);
    // The account and the databases are made as the server starts, before it listens: there is no moment
    // in which root without a password could be reached over TCP.
    const init = join(keys, "init.sql");
    // One statement a line: the server reads the file so.
    const grants = databases
      .flatMap((name) => [
        `CREATE DATABASE IF NOT EXISTS ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;`,
        `GRANT ALL ON ${name}.* TO 'izzam'@'127.0.0.1';`,
      ])
      .concat(patterns.map((p) => `GRANT ALL ON \`${p}\`.* TO 'izzam'@'127.0.0.1';`));
    writeFileSync(
      init,
      [
        `CREATE USER IF NOT EXISTS 'izzam'@'127.0.0.1' IDENTIFIED BY '${password}';`,
        `ALTER USER 'izzam'@'127.0.0.1' IDENTIFIED BY '${password}';`,
        "DELETE FROM mysql.global_priv WHERE User IN ('root', '') AND Host <> 'localhost';",
        `ALTER USER 'root'@'localhost' IDENTIFIED BY '${password}';`,
        ...grants,
        "FLUSH PRIVILEGES;",
      ].join("\n"),
      { mode: 0o600 },
    );
    const child = spawn(
      program("mariadbd"),
      [
        "--no-defaults",
        `--datadir=${dir}`,
        `--tmpdir=${temporary}`,
        "--bind-address=127.0.0.1",
        `--port=${port}`,
        `--socket=${socket}`,
        `--pid-file=${pidFile}`,
        `--init-file=${init}`,
        "--skip-name-resolve",
        "--character-set-server=utf8mb4",
        "--innodb-buffer-pool-size=256M",
        "--max-allowed-packet=32M",
        "--transaction-isolation=READ-COMMITTED",
        ...(durable ? [] : ["--innodb-flush-log-at-trx-commit=0", "--skip-innodb-doublewrite"]),
        `--log-error=${join(folder, "mariadb.log")}`,
        ...user,
      ],
      // Its own group: Ctrl-C reaches us first, and we stop it after everything that uses it.
      { stdio: "ignore", detached: true, env },
    );
    let ended = false;
    let meant = false;
    let ready = false;
    child.on("exit", () => {
      ended = true;
      // One that never came up is told by the error below.
      if (!meant && ready) onExit?.();
    });
    const { createConnection } = await import("mysql2/promise");
    // A crash that is being recovered from takes as long as it takes.
    for (;;) {
      if (ended) {
        throw new Trouble(`The database could not start. The end of its log:\n${logOf(folder)}`);
      }
      try {
        const connection = await createConnection({ host: "127.0.0.1", port, user: "izzam", password, connectTimeout: 1000 });
        await connection.query(`USE ${databases[0]}`);
        await connection.end();
        ready = true;
        break;
      } catch {
        await wait(100);
      }
    }
    const stop = async () => {
      meant = true;
      if (!ended) child.kill("SIGTERM");
      for (let i = 0; i < 200 && !ended; i += 1) await wait(50);
      if (!ended) child.kill("SIGKILL");
    };
    const kill = async () => {
      meant = true;
      child.kill("SIGKILL");
      while (!ended) await wait(20);
    };
    return { port, password, pid: child.pid, stop, kill };
  };
  const pending = () => [{ name: "the database", last: lastLogged(logOf(folder)) }];
  return quiet ? begin() : step(fresh ? "Setting up a private database" : "Starting the database", begin, pending);
}
