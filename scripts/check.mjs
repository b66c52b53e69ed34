// Types twice (the core without browser or Node.js types), lint, and the directions of imports.
import { execFile } from "node:child_process";
import { existsSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { endWith, isMain, say, Trouble } from "./lib/say.mjs";
import { root } from "./lib/system.mjs";

const bin = (name) => join(root, "node_modules/.bin", name);
const checks = [
  ["types", bin("tsc"), ["--noEmit"]],
  ["types of the core alone", bin("tsc"), ["-p", "tsconfig.core.json", "--noEmit"]],
  ["lint", bin("eslint"), ["."]],
  ["format", bin("prettier"), ["--check", "--log-level", "warn", "."]],
  ["directions of imports", bin("depcruise"), ["src", "--config", ".dependency-cruiser.cjs"]],
  ["games are named in their own folders only", process.execPath, [join(root, "scripts/names.mjs")]],
];

export async function check() {
  // Next.js writes this at its first build; types need it before.
  const nextTypes = join(root, "next-env.d.ts");
  if (!existsSync(nextTypes))
    writeFileSync(nextTypes, '/// <reference types="next" />\n/// <reference types="next/image-types/global" />\n');
  let failed = 0;
  for (const [what, command, args] of checks) {
    const from = Date.now();
    const { code, output } = await new Promise((resolve) =>
      execFile(command, args, { cwd: root, maxBuffer: 1 << 26 }, (error, out, err) => resolve({ code: error ? 1 : 0, output: out + err })),
    );
    say(`${code === 0 ? "✓" : "✗"} ${what} (${((Date.now() - from) / 1000).toFixed(1)} s)`);
    if (code !== 0) {
      failed += 1;
      say(
        output
          .split("\n")
          .filter((l) => !l.startsWith("npm warn"))
          .slice(0, 80)
          .join("\n"),
      );
    }
  }
  return { passed: checks.length - failed, failed };
}

if (isMain(import.meta.url)) {
  check()
    .then(({ failed }) => {
      if (failed > 0) throw new Trouble(`${failed} of ${checks.length} checks failed.`);
    })
    .catch(endWith);
}
