// Types twice (the core without browser or Node.js types), lint, format, the directions of imports, whose names stand
// where, and what may run while packages are installed. As many at a time as there are processors, the longest first.
import { execFile } from "node:child_process";
import { existsSync, mkdirSync, writeFileSync } from "node:fs";
import { availableParallelism } from "node:os";
import { join } from "node:path";
import { endWith, isMain, say, Trouble } from "./lib/say.mjs";
import { root } from "./lib/system.mjs";

const bin = (name) => join(root, "node_modules/.bin", name);
/** What a check found the last time, so that only what changed is looked at again. */
const kept = join(root, ".build/checked");
const checks = [
  ["types", bin("tsc"), ["--noEmit", "--incremental", "--tsBuildInfoFile", join(kept, "types.json")]],
  ["lint", bin("eslint"), [".", "--cache", "--cache-location", join(kept, "lint.json"), "--cache-strategy", "content"]],
  [
    "types of the core alone",
    bin("tsc"),
    ["-p", "tsconfig.core.json", "--noEmit", "--incremental", "--tsBuildInfoFile", join(kept, "core.json")],
  ],
  ["directions of imports", bin("depcruise"), ["src", "--config", ".dependency-cruiser.cjs"]],
  [
    "format",
    bin("prettier"),
    ["--check", "--log-level", "warn", "--cache", "--cache-location", join(kept, "format.json"), "--cache-strategy", "content", "."],
  ],
  ["games are named in their own folders only", process.execPath, [join(root, "scripts/names.mjs")]],
  ["packages that run something when they are installed", process.execPath, [join(root, "scripts/install-scripts.mjs")]],
];

const run = ([what, command, args]) => {
  const from = Date.now();
  return new Promise((resolve) =>
    execFile(command, args, { cwd: root, maxBuffer: 1 << 26 }, (error, out, err) =>
      resolve({ what, failed: error !== null, output: out + err, ms: Date.now() - from }),
    ),
  );
};

export async function check() {
  mkdirSync(kept, { recursive: true });
  // Next.js writes this at its first build; types need it before.
  const nextTypes = join(root, "next-env.d.ts");
  if (!existsSync(nextTypes))
    writeFileSync(nextTypes, '/// <reference types="next" />\n/// <reference types="next/image-types/global" />\n');
  const failed = [];
  const waiting = [...checks];
  const lane = async () => {
    for (let next = waiting.shift(); next !== undefined; next = waiting.shift()) {
      const done = await run(next);
      say(`${done.failed ? "✗" : "✓"} ${done.what} (${(done.ms / 1000).toFixed(1)} s)`);
      if (!done.failed) continue;
      failed.push(done.what);
      say(
        done.output
          .split("\n")
          .filter((l) => !l.startsWith("npm warn"))
          .slice(0, 80)
          .join("\n"),
      );
    }
  };
  await Promise.all(Array.from({ length: Math.max(1, Math.min(3, availableParallelism())) }, lane));
  return { passed: checks.length - failed.length, failed: failed.length, failures: failed };
}

if (isMain(import.meta.url)) {
  check()
    .then(({ failed }) => {
      if (failed > 0) throw new Trouble(`${failed} of ${checks.length} checks failed.`);
    })
    .catch(endWith);
}
