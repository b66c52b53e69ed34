import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { randomInt } from "node:crypto";
import { networkInterfaces } from "node:os";
import { join, resolve } from "node:path";
import { parseArgs } from "node:util";
import { endWith, say, step, Trouble } from "./lib/say.mjs";
import { ensurePackages, databasePrograms, ensureSystem, root } from "./lib/system.mjs";
import { freePort, isFree } from "./lib/ports.mjs";

const help = `./start            starts Izzam with the demo channel and the practice rig
  --empty          without demo data: leads through creating the owner and the channel
  --lan            reachable from the local network too, not from this computer only
  --port N         the port to use (usually 4470; another is chosen when it is taken)
  --no-practice    without the practice rig
  --data FOLDER    where database, keys and logs live (usually .data)`;

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

  await ensureSystem([...databasePrograms, "ffmpeg"]);
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
  const stopAll = async (code) => {
    if (stopping) return;
    stopping = true;
    say("\nStopping …");
    for (const part of running.reverse()) await part.stop();
    rmSync(lock, { force: true });
    say("Izzam has stopped.");
    process.exit(code);
  };
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, () => void stopAll(0));

  try {
    await ensureBuilt();
    if (stopping) return;
    writeFileSync(lock, JSON.stringify({ pid: process.pid, port: wished }));
    const pending = startDatabase(folder, { databases: ["izzam", "izzam_demo"] });
    // On the list before it runs, so that a Ctrl-C in this very moment stops it too.
    running.push({ stop: async () => (await pending.catch(() => null))?.stop() });
    const database = await pending;
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
      demo,
      practice,
      setupCode,
    });
    await step(demo ? "Preparing the demo channel" : "Preparing the database", () => seed(env));

    const keep = async (name) => {
      let failures = 0;
      const slot = { stop: async () => slot.now.stop() };
      const begin = () => {
        const from = Date.now();
        slot.now = startProcess(name, env, join(folder, "logs"), {
          onExit: (code, signal) => {
            if (stopping || !slot.ready) return;
            failures = Date.now() - from > 60_000 ? 1 : failures + 1;
            say(`The ${name} process ended (${signal ?? code}); starting it again.`);
            setTimeout(() => !stopping && begin(), Math.min(10_000, 250 * 2 ** failures));
          },
        });
        return slot.now.ready;
      };
      running.push(slot);
      await begin();
      slot.ready = true;
    };
    await step("Starting Izzam", () => Promise.all([keep("web"), keep("engine"), ...(practice ? [keep("practice")] : [])]));
    writeFileSync(lock, JSON.stringify({ pid: process.pid, port, practice, database: { port: database.port } }));
    announce({ port, practice, demo, lan: options.lan, setupCode });
  } catch (error) {
    for (const part of running.reverse()) await part.stop();
    rmSync(lock, { force: true });
    throw error;
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
