import { spawn } from "node:child_process";
import { createHmac, randomBytes } from "node:crypto";
import { createWriteStream, existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { Trouble } from "./say.mjs";
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
 * Starts one of our processes and waits until it says it is ready. The channel between us closes when we
 * end, however that happens, and the process then ends by itself: nothing is left behind.
 */
export function startProcess(name, env, folder, { onExit } = {}) {
  mkdirSync(folder, { recursive: true });
  const log = createWriteStream(join(folder, `${name}.log`), { flags: "a" });
  const child = spawn(process.execPath, ["--enable-source-maps", join(root, `.build/${name}.mjs`)], {
    cwd: root,
    env: name === "practice" ? strangersOnly(env) : env,
    stdio: ["ignore", "pipe", "pipe", "ipc"],
    detached: true,
  });
  let tail = "";
  for (const stream of [child.stdout, child.stderr]) {
    stream.pipe(log, { end: false });
    stream.on("data", (data) => (tail = (tail + data).slice(-3000)));
  }
  let ended = false;
  const exit = new Promise((resolve) =>
    child.on("exit", (code, signal) => {
      ended = true;
      log.end();
      resolve(code);
      onExit?.(code, signal);
    }),
  );
  const ready = new Promise((resolve, reject) => {
    child.on("message", (message) => message?.ready && resolve(message));
    exit.then((code) => reject(new Trouble(`The ${name} process ended at once (${code}). The end of what it said:\n${tail}`)));
    setTimeout(() => reject(new Trouble(`The ${name} process did not get ready within 60 s.\n${tail}`)), 60_000).unref();
  });
  ready.catch(() => undefined);
  const stop = async () => {
    if (!ended) child.kill("SIGTERM");
    const late = setTimeout(() => child.kill("SIGKILL"), 6_000);
    await exit;
    clearTimeout(late);
  };
  const kill = async () => {
    child.kill("SIGKILL");
    await exit;
  };
  return {
    child,
    ready,
    stop,
    kill,
    exit,
    get ended() {
      return ended;
    },
  };
}
