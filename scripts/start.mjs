import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { randomInt } from "node:crypto";
import { networkInterfaces } from "node:os";
import { join, resolve } from "node:path";
import { parseArgs } from "node:util";
import { endWith, say, step, Trouble } from "./lib/say.mjs";
import { ensurePackages, databasePrograms, soundPrograms, ensureSystem, root } from "./lib/system.mjs";
import { freePort, isBlocked, isFree } from "./lib/ports.mjs";

const help = `./start            starts Izzam with the demo channel and the practice rig
  --empty          without demo data: leads through creating the owner and the channel
  --lan            reachable from the local network too, not from this computer only
  --port N         the port to use (usually 4470; another is chosen when it is taken)
  --no-practice    without the practice rig
  --public-url URL where the world reaches it, behind a proxy that adds HTTPS: https://izzam.example
  --trust LIST     addresses or networks of such proxies, by commas: 127.0.0.1,10.0.0.0/24
  --data FOLDER    where database, keys and logs live (usually .data)`;

// What a full disk, or a terminal that was closed, does not take is not worth ending for.
for (const stream of [process.stdout, process.stderr]) stream.on("error", () => undefined);

async function main() {
  let options;
  try {
    options = parseArgs({
      options: {
        empty: { type: "boolean" },
        lan: { type: "boolean" },
        port: { type: "string" },
        "no-practice": { type: "boolean" },
        data: { type: "string" },
        "public-url": { type: "string" },
        trust: { type: "string" },
        help: { type: "boolean", short: "h" },
      },
    }).values;
  } catch (error) {
    throw new Trouble(`${error.message}\n\n${help}`);
  }
  if (options.help) return say(help);
  const folder = resolve(root, options.data ?? ".data");
  const demo = !options.empty;
  const host = options.lan ? "0.0.0.0" : "127.0.0.1";
  const wished = options.port === undefined ? 4470 : Number(options.port);
  if (!Number.isInteger(wished) || wished < 1 || wished > 65_535)
    throw new Trouble(`${options.port} is not a port: a port is a whole number from 1 to 65535.`);

  if (options.port !== undefined && isBlocked(wished))
    throw new Trouble(`Browsers go to no page on port ${wished}. Choose another with --port, or leave it out.`);

  const publicUrl = options["public-url"];
  if (publicUrl !== undefined && !/^https?:\/\/[^/\s]+\/?$/.test(publicUrl))
    throw new Trouble(`${publicUrl} is no public address: write it with its scheme and without a path, like https://izzam.example.`);

  await ensureSystem([...databasePrograms, ...soundPrograms]);
  await ensurePackages();
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const lock = join(folder, "running.json");
  if (existsSync(lock)) {
    const old = readLock(lock);
    if (old.pid && isIzzam(old.pid))
      throw new Trouble(`Izzam runs already, at http://localhost:${old.port} (process ${old.pid}). Stop it there with Ctrl-C first.`);
    rmSync(lock);
  }
  if (options.port !== undefined && !(await isFree(wished, host)))
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
    const practice = options["no-practice"] ? null : { port: await freePort(Math.max(4480, webPort + 1)), ircPort: 0 };
    if (practice) practice.ircPort = await freePort(practice.port + 1);
    // Whoever can open the page first would own the installation, so creating the owner needs this code.
    const setupCode = String(randomInt(100_000, 1_000_000));
    const env = settingsFor({
      folder,
      database,
      databaseName: demo ? "izzam_demo" : "izzam",
      port,
      webPort,
      lan: options.lan,
      publicUrl: options["public-url"] ?? "",
      trusted: options.trust ?? "",
      demo,
      practice,
      setupCode,
    });
    await step(demo ? "Preparing the demo channel" : "Preparing the database", () => seed(env));

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
    announce({ port, practice, demo, lan: options.lan, setupCode });
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
  else say(`  Set-up code      ${setupCode}   asked for once, when the owner is created`);
  say("  Stop with        Ctrl-C");
  say("");
}

const lanAddresses = () =>
  Object.values(networkInterfaces())
    .flat()
    .filter((a) => a && a.family === "IPv4" && !a.internal)
    .map((a) => a.address);

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
