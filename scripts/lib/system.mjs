import { execFileSync, spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { step, Trouble } from "./say.mjs";

export const root = new URL("../..", import.meta.url).pathname.replace(/\/$/, "");
const isRoot = process.getuid?.() === 0;
const programs = {
  mariadbd: ["/usr/sbin/mariadbd", "/usr/libexec/mariadbd"],
  "mariadb-install-db": ["/usr/bin/mariadb-install-db"],
  // mariadb-install-db calls it, and Debian ships it in the client's package, which is not asked for on its own.
  my_print_defaults: ["/usr/bin/my_print_defaults"],
  mariadb: ["/usr/bin/mariadb"],
  "mariadb-dump": ["/usr/bin/mariadb-dump"],
  chromium: ["/usr/bin/chromium"],
  // The same without windows: a page costs a third less, so the tests drive this one.
  "chromium-headless-shell": ["/usr/bin/chromium-headless-shell"],
  ffmpeg: ["/usr/bin/ffmpeg"],
  // They speak what viewers write.
  "espeak-ng": ["/usr/bin/espeak-ng"],
  flite: ["/usr/bin/flite"],
  // For one test: Izzam behind a proxy that adds HTTPS.
  nginx: ["/usr/sbin/nginx"],
  openssl: ["/usr/bin/openssl"],
};
const packages = {
  mariadbd: "mariadb-server-core",
  "mariadb-install-db": "mariadb-server-core",
  my_print_defaults: "mariadb-client-core",
  mariadb: "mariadb-client-core",
  "mariadb-dump": "mariadb-client",
  chromium: "chromium",
  "chromium-headless-shell": "chromium-headless-shell",
  ffmpeg: "ffmpeg",
  "espeak-ng": "espeak-ng",
  flite: "flite",
  nginx: "nginx-light",
  openssl: "openssl",
};
/** What makes and measures sounds, and speaks. */
export const soundPrograms = ["ffmpeg", "espeak-ng", "flite"];
/** What the database needs to be set up and run. */
export const databasePrograms = ["mariadbd", "mariadb-install-db", "my_print_defaults"];

/** What backups are made and brought back with, beside the database. */
export const backupPrograms = ["mariadb", "mariadb-dump"];

export function program(name) {
  const found = (programs[name] ?? []).find((path) => existsSync(path));
  if (found) return found;
  try {
    return execFileSync("sh", ["-c", `command -v ${name}`], { encoding: "utf8" }).trim();
  } catch {
    return null;
  }
}

/** Runs a program and shows its last lines only if it fails. */
export function run(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: root, stdio: ["ignore", "pipe", "pipe"], ...options });
    let tail = "";
    const take = (data) => (tail = (tail + data).slice(-6000));
    child.stdout?.on("data", take);
    child.stderr?.on("data", take);
    child.on("error", reject);
    child.on("exit", (code) =>
      code === 0 ? resolve(tail) : reject(new Trouble(`${command} ${args.slice(0, 3).join(" ")} failed (${code}):\n${tail}`)),
    );
  });
}

/** Debian packages that are missing are installed as root; an ordinary user is told which to install. */
export async function ensureSystem(names) {
  const major = Number(process.versions.node.split(".")[0]);
  if (major < 20) throw new Trouble(`Izzam needs Node.js 20 or newer; this is ${process.version}.`);
  const missing = [...new Set(names.filter((name) => !program(name)).map((name) => packages[name]))];
  if (missing.length === 0) return;
  if (!isRoot)
    throw new Trouble(
      `These Debian packages are missing: ${missing.join(", ")}.\nInstall them once as root, then run this again:\n  sudo apt-get install --no-install-recommends ${missing.join(" ")}`,
    );
  // Nothing that is installed here starts by itself: what is needed is started for the purpose, and stopped.
  const env = { ...process.env, DEBIAN_FRONTEND: "noninteractive", RUNLEVEL: "1" };
  await step(`Installing ${missing.join(", ")} from Debian (about a minute)`, async () => {
    await run("apt-get", ["update", "-qq"], { env });
    await run("apt-get", ["install", "-y", "-qq", "--no-install-recommends", ...missing], { env });
  });
}

/** npm packages, only when the lock file differs from what was installed last. */
export async function ensurePackages() {
  const lock = createHash("sha256")
    .update(readFileSync(join(root, "package-lock.json")))
    .update(process.version)
    .digest("hex");
  const mark = join(root, "node_modules", ".izzam-lock");
  if (existsSync(mark) && readFileSync(mark, "utf8") === lock) return;
  await step("Installing npm packages (one to two minutes the first time)", () =>
    run("npm", ["install", "--no-fund", "--no-audit", "--loglevel=error"], {
      // Nothing is compiled here, on any machine: one that has a compiler would hide that another needs one.
      env: { ...process.env, CC: "/bin/false", CXX: "/bin/false" },
    }),
  );
  // npm may have rewritten the lock (optional parts for other platforms): what counts is what is there now.
  const after = createHash("sha256")
    .update(readFileSync(join(root, "package-lock.json")))
    .update(process.version)
    .digest("hex");
  writeFileSync(mark, after);
}
