import { spawn } from "node:child_process";
import { createHmac, randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { logFile } from "./log-file.mjs";
import { lastLogged, Trouble } from "./say.mjs";
import { root, run } from "./system.mjs";

function appKey(folder) {
  const file = join(folder, "keys", "app");
  mkdirSync(join(folder, "keys"), { recursive: true, mode: 0o700 });
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString("hex"), { mode: 0o600 });
  return readFileSync(file, "utf8").trim();
}

const derived = (folder, what) => createHmac("sha256", appKey(folder)).update(what).digest();

/** The environment that every process of one installation gets. */
export function settingsFor({
  folder,
  database,
  databaseName,
  port,
  webPort,
  lan = false,
  publicUrl = "",
  trusted = "",
  demo = true,
  practice = null,
  setupCode = "",
  internalKey = randomBytes(24).toString("hex"),
}) {
  return {
    ...process.env,
    NODE_ENV: "production",
    NEXT_TELEMETRY_DISABLED: "1",
    IZZAM_HOST: lan ? "0.0.0.0" : "127.0.0.1",
    IZZAM_PORT: String(port),
    IZZAM_WEB_PORT: String(webPort),
    IZZAM_DB_PORT: String(database.port),
    IZZAM_DB_PASSWORD: database.password,
    IZZAM_DB_NAME: databaseName,
    IZZAM_APP_KEY: appKey(folder),
    IZZAM_INTERNAL_KEY: internalKey,
    IZZAM_DEMO: demo ? "1" : "0",
    IZZAM_LAN: lan ? "1" : "0",
    IZZAM_PUBLIC_URL: publicUrl,
    IZZAM_TRUSTED_PROXIES: trusted,
    IZZAM_SETUP_CODE: setupCode,
    IZZAM_PRACTICE_URL: practice ? `http://127.0.0.1:${practice.port}` : "",
    IZZAM_PRACTICE_PORT: practice ? String(practice.port) : "",
    IZZAM_PRACTICE_IRC_PORT: practice ? String(practice.ircPort) : "",
    // What the rig signs its events with, and the addresses its button pad calls: the demo channel is set up to take them.
    IZZAM_PRACTICE_SECRET: practice ? `whsec_${derived(folder, "practice-events").toString("base64")}` : "",
    IZZAM_PRACTICE_TRIGGERS: practice
      ? ["kiln-door", "golden-flock", "break", "knock"]
          .map((cue) => `${cue}=${derived(folder, `trigger ${cue}`).subarray(0, 16).toString("base64url")}`)
          .join(",")
      : "",
  };
}

/** The rig stands for strangers: it gets its own ports and secrets, and no key or password of the installation. */
const strangersOnly = (env) =>
  Object.fromEntries(
    Object.entries(env).filter(([name]) => !name.startsWith("IZZAM_") || /^IZZAM_(PRACTICE_|PORT$|HOST$|LOG$|DEMO$)/.test(name)),
  );

export const seed = (env) => run(process.execPath, [join(root, ".build/seed.mjs")], { env });

/**
 * How Node.js runs each. Source maps of the web process alone would take 70 MB of a streaming computer, and a smaller
 * young generation takes 30 MB less at the same speed (`npm run bench -- start`).
 */
const flags = { web: ["--max-semi-space-size=4"] };
const programOf = (name) => [...(flags[name] ?? ["--enable-source-maps"]), join(root, `.build/${name}.mjs`)];

/**
 * Starts one of our processes. `ready` waits until it says so, for as long as it lives: on a busy machine that
 * may be minutes. The channel between us closes when we end, however that happens, and the process then ends by
 * itself: nothing is left behind. `run` is what Node.js is given, for tests.
 */
export function startProcess(name, env, folder, { onExit, run: args = programOf(name) } = {}) {
  try {
    mkdirSync(folder, { recursive: true });
  } catch {
    // On a disk without room the process runs all the same; its log waits for room.
  }
  const log = logFile(join(folder, `${name}.log`));
  const child = spawn(process.execPath, args, {
    cwd: root,
    env: name === "practice" ? strangersOnly(env) : env,
    stdio: ["ignore", "pipe", "pipe", "ipc"],
    detached: true,
  });
  let tail = "";
  for (const stream of [child.stdout, child.stderr])
    stream.on("data", (data) => {
      log.write(data);
      tail = (tail + data).slice(-3000);
    });
  let ended = false;
  let told = false;
  const exit = new Promise((resolve) => {
    const end = (code, signal) => {
      if (ended) return;
      ended = true;
      log.end();
      resolve(code ?? signal);
      // What was told to end has not died.
      if (!told) onExit?.(code, signal, lastLogged(tail));
    };
    child.on("error", (error) => {
      tail += `${error.message}\n`;
      end(null, error.code ?? "could not be started");
    });
    child.on("exit", end);
  });
  const ready = new Promise((resolve, reject) => {
    child.on("message", (message) => message?.ready && resolve(message));
    exit.then((code) =>
      reject(
        new Trouble(told ? `The ${name} process was ended.` : `The ${name} process ended (${code}). The end of what it logged:\n${tail}`),
      ),
    );
  });
  ready.catch(() => undefined);
  const stop = async () => {
    told = true;
    if (!ended) child.kill("SIGTERM");
    const late = setTimeout(() => child.kill("SIGKILL"), 6_000);
    await exit;
    clearTimeout(late);
  };
  /** Tells it something, and waits until it says that it has done so. */
  const tell = (what, answer) =>
    new Promise((resolve, reject) => {
      const hear = (message) => {
        if (message?.[answer] !== true) return;
        child.off("message", hear);
        resolve();
      };
      child.on("message", hear);
      exit.then((code) => reject(new Trouble(`The ${name} process ended (${code}) when it was told to ${what}:\n${tail}`)));
      child.send(what);
    });
  const kill = async () => {
    told = true;
    child.kill("SIGKILL");
    await exit;
  };
  return {
    child,
    ready,
    stop,
    kill,
    tell,
    exit,
    lastLogged: () => lastLogged(tail),
    get ended() {
      return ended;
    },
  };
}
