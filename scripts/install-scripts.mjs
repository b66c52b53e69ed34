// A package that runs something while it is installed may need a compiler, a network of its own, or worse. Those of the
// lock file that do are on a short list, each with why it does no harm that npm skips it (see .npmrc).
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { isMain } from "./lib/say.mjs";
import { root } from "./lib/system.mjs";

/** By name, with why it works without. */
const known = new Map([
  ["@parcel/watcher", "a watcher that nothing here starts; its binary ships in a package of its own"],
  ["@swc/core", "only looks whether its binary fits; that ships in a package of its own"],
  ["core-js", "an advertisement"],
  ["esbuild", "only makes its command start faster; its binary ships in a package of its own"],
]);

/** Packages of a lock file that run something and are not known to be harmless; and known ones that are not there any more. */
export function strangeScripts(lock, allowed = known) {
  const running = Object.entries(lock.packages)
    .filter(([path, of]) => path !== "" && of.hasInstallScript === true)
    .map(([path]) => path.slice(path.lastIndexOf("node_modules/") + "node_modules/".length));
  return {
    unknown: [...new Set(running)].filter((name) => !allowed.has(name)),
    gone: [...allowed.keys()].filter((name) => !running.includes(name)),
  };
}

if (isMain(import.meta.url)) {
  const { unknown, gone } = strangeScripts(JSON.parse(readFileSync(join(root, "package-lock.json"), "utf8")));
  for (const name of unknown)
    console.error(
      `${name} runs a script when it is installed. Take a package that does not, or say in scripts/install-scripts.mjs why it works without.`,
    );
  for (const name of gone) console.error(`${name} is on the list of scripts/install-scripts.mjs and runs nothing any more. Take it off.`);
  if (unknown.length + gone.length > 0) process.exitCode = 1;
}
