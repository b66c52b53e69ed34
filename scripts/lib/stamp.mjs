import { createHash } from "node:crypto";
import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { root } from "./system.mjs";

const parts = ["src", "demo", "public", "package-lock.json", "next.config.ts", "tsconfig.json", "scripts/build.mjs"];

/** A hash of everything a build depends on; tests don't count. */
export function sourceStamp() {
  const hash = createHash("sha256").update(process.version);
  const walk = (path) => {
    const stat = statSync(join(root, path), { throwIfNoEntry: false });
    if (!stat) return;
    if (stat.isDirectory()) {
      for (const name of readdirSync(join(root, path)).sort()) walk(`${path}/${name}`);
    } else if (!/\.(test|spec)\.tsx?$/.test(path)) hash.update(path).update(readFileSync(join(root, path)));
  };
  for (const part of parts) walk(part);
  return hash.digest("hex");
}
