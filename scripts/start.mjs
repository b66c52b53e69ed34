import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { randomInt } from "node:crypto";
import { networkInterfaces } from "node:os";
import { join } from "node:path";
import { help, readOptions } from "./lib/options.mjs";
import { endWith, say, step, Trouble } from "./lib/say.mjs";
import { ensurePackages, databasePrograms, soundPrograms, ensureSystem, root } from "./lib/system.mjs";
import { freePort, isFree } from "./lib/ports.mjs";

// What a full disk, or a terminal that was closed, does not take is not worth ending for.
for (const stream of [process.stdout, process.stderr]) stream.on("error", () => undefined);

async function main() {
  const options = readOptions(process.argv.slice(2), root);
  if (options === null) return say(help);
  const { folder, demo, lan, port: wished, isNamed, hasPractice } = options;
  const host = lan ? "0.0.0.0" : "127.0.0.1";
  await ensureSystem([...databasePrograms, ...soundPrograms]);
  await ensurePackages();
  makeFolder(folder);
  const lock = join(folder, "running.json");
  if (existsSync(lock)) {
    const old = readLock(lock);
    if (old.pid && isIzzam(old.pid))
      throw new Trouble(`Izzam runs already, at http://localhost:${old.port} (process ${old.pid}). Stop it there with Ctrl-C first.`);
    rmSync(lock);
  }
  if (isNamed && !(await isFree(wished, host)))
    throw new Trouble(`Port ${wished} is taken by another program. Choose another with --port, or leave it out.`);

  const { startDatabase } = await import("./lib/database.mjs");
  const { ensureBuilt } = await import("./build.mjs");
  const { seed, settingsFor, startProcess } = await import("./lib/installation.mjs");

  const running = [];
  let stopping = false;
  /** The processes at once, then what they use: a signal is answered within seconds. */
  const end = async () => {
    const [database, ...processes] = running;
    await Promise.all(processes.map((part) => part.stop()));
    await database?.stop();
    rmSync(lock, { force: true });
  };
  const stopAll = async (code) => {
    if (stopping) return;
    stopping = true;
    say("\nStopping …");
    await end();
    say("Izzam has stopped.");
    process.exit(code);
  };
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, () => void stopAll(0));

  try {
    await ensureBuilt();
    if (stopping) return;
    writeFileSync(lock, JSON.stringify({ pid: process.pid, port: wished }));
    const databases = ["izzam", "izzam_demo"];
    let pending = startDatabase(folder, { databases, onExit: () => databaseEnded() });
    // On the list before it runs, so that a Ctrl-C in this very moment stops it too.
    running.push({ stop: async () => (await pending.catch(() => null))?.stop() });
    const database = await pending;
    const pause = pauses();
    let bornMs = Date.now();
    // Killed, fallen over, or the disk full: it is kept like the others, on the port that they know.
    const databaseEnded = async () => {
      if (stopping) return;
      const why = lastWords(folder);
      const waitMs = pause(Date.now() - bornMs);
      say(
        `The database ended${why === "" ? "" : `: ${why}`}. Starting it again${waitMs < 1_000 ? "" : ` in ${Math.round(waitMs / 1000)} s`}.`,
      );
      await new Promise((resolve) => setTimeout(resolve, waitMs));
      if (stopping) return;
      bornMs = Date.now();
      pending = startDatabase(folder, { quiet: true, databases, port: database.port, onExit: () => databaseEnded() });
      pending.then(
        () => say("The database runs again."),
        (error) => {
          say(error instanceof Trouble ? error.message : String(error));
          if (!stopping) void databaseEnded();
        },
      );
    };
    const port = await freePort(wished, host);
    if (port !== wished) say(`· Port ${wished} is taken by another program; using ${port}.`);
    const webPort = await freePort(port + 1);
    const practice = hasPractice ? { port: await freePort(Math.max(4480, webPort + 1)), ircPort: 0 } : null;
    if (practice) practice.ircPort = await freePort(practice.port + 1);
    // Whoever can open the page first would own the installation, so creating the owner needs this code.
    const setupCode = String(randomInt(100_000, 1_000_000));
    const env = settingsFor({
      folder,
      database,
      databaseName: demo ? "izzam_demo" : "izzam",
      port,
      webPort,
      lan,
      publicUrl: options.publicUrl,
      trusted: options.trusted,
      demo,
      practice,
      setupCode,
    });
    const told = await step(demo ? "Preparing the demo channel" : "Preparing the database", () => seed(env));
    // The code creates the owner, once: to an installation that has one it is nothing.
    const isOwned = /^owned$/m.test(told);

    const slots = [];
    const keep = async (name) => {
      const pause = pauses();
      const slot = { name, ready: false, stop: async () => slot.now.stop() };
      const begin = () => {
        const from = Date.now();
        slot.now = startProcess(name, env, join(folder, "logs"), {
          onExit: (code, signal, last) => {
            if (stopping || !slot.ready) return;
            const waitMs = pause(Date.now() - from);
            const when = waitMs < 1_000 ? "" : ` in ${Math.round(waitMs / 1000)} s`;
            say(
              `The ${name} process ended (${signal ?? code}). ${last === "" ? "" : `It last logged: ${last}. `}Starting it again${when}.`,
            );
            setTimeout(() => !stopping && begin(), waitMs);
          },
        });
        return slot.now.ready;
      };
      running.push(slot);
      slots.push(slot);
      await begin();
      slot.ready = true;
    };
    const waitedFor = () => slots.filter((s) => !s.ready).map((s) => ({ name: `the ${s.name} process`, last: s.now.lastLogged() }));
    await step(
      "Starting Izzam",
      () => Promise.all(["web", "engine", "media", "lab", ...(practice ? ["practice"] : [])].map(keep)),
      waitedFor,
    );
    writeFileSync(lock, JSON.stringify({ pid: process.pid, port, practice, database: { port: database.port } }));
    announce({ port, practice, demo, lan, setupCode: isOwned ? null : setupCode });
  } catch (error) {
    // From here on nothing is started again. A Ctrl-C in the middle has its own words.
    const asked = stopping;
    stopping = true;
    if (asked) return;
    await end();
    throw error;
  }
}

/** How long to wait before the next start: next to nothing, and longer only for what dies young again and again. */
function pauses(youngMs = 5_000) {
  let young = 0;
  return (livedMs) => {
    young = livedMs < youngMs ? young + 1 : 0;
    return young === 0 ? 100 : Math.min(20_000, 250 * 2 ** young);
  };
}

/** Why the database ended, as far as its log says. */
function lastWords(folder) {
  try {
    const lines = readFileSync(join(folder, "mariadb.log"), "utf8").trim().split("\n").slice(-40);
    const told = lines.filter((line) => /\[ERROR\]|No space left|signal \d+|Out of memory/i.test(line)).at(-1) ?? "";
    return told.replace(/^[\d-]+\s+[\d:]+\s+\d+\s+/, "").slice(0, 200);
  } catch {
    return "";
  }
}

function announce({ port, practice, demo, lan, setupCode }) {
  say("");
  say(`  Izzam            http://localhost:${port}`);
  if (lan) for (const address of lanAddresses()) say(`                   http://${address}:${port}   from your network; not encrypted`);
  if (practice) say(`  Practice rig     http://localhost:${practice.port}   chat as any made-up viewer`);
  say("");
  if (demo) say("  Sign in as       kilnkeeper (owner) or spongebearer (moderator), password: saltmarsh");
  else if (setupCode === null) say("  Sign in          with the names and passwords of this installation");
  else say(`  Set-up code      ${setupCode}   asked for once, when the owner is created`);
  say("  Stop with        Ctrl-C");
  say("");
}

const lanAddresses = () =>
  Object.values(networkInterfaces())
    .flat()
    .filter((a) => a && a.family === "IPv4" && !a.internal)
    .map((a) => a.address);

function makeFolder(folder) {
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
  } catch (error) {
    throw new Trouble(`--data ${folder} can’t be a folder (${error.code}). Name another place, or make room there.`);
  }
}

/** A lock that a crash left half-written says nothing, so it does not stand in the way. */
function readLock(file) {
  try {
    return JSON.parse(readFileSync(file, "utf8"));
  } catch {
    return {};
  }
}

function isIzzam(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, "utf8").includes("scripts/start.mjs");
  } catch {
    return false;
  }
}

main().catch(endWith);
