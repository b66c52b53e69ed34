// Builds all processes: engine, web, practice rig, overlay page. Skips what is built already.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync, cpSync } from "node:fs";
import { join } from "node:path";
import { root, run } from "./lib/system.mjs";
import { sourceStamp } from "./lib/stamp.mjs";
import { isMain, step } from "./lib/say.mjs";

const out = join(root, ".build");

/** Schemas speak one language here: the words of forty others would be a third of an overlay page's script. */
const oneLanguage = {
  name: "one-language",
  setup: (build) =>
    build.onLoad({ filter: /zod[\\/]v4[\\/]locales[\\/]index\.js$/ }, () => ({
      contents: 'export { default as en } from "./en.js";',
      loader: "js",
    })),
};

export async function buildProcesses() {
  const { build } = await import("esbuild");
  const node = {
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    packages: "external",
    logLevel: "error",
    sourcemap: true,
  };
  await build({
    ...node,
    entryPoints: {
      engine: join(root, "src/server/main.ts"),
      seed: join(root, "src/server/seed/main.ts"),
      practice: join(root, "src/practice/main.ts"),
      // For the tests' own installation, which makes links as the server does.
      secrets: join(root, "src/server/secrets.ts"),
      decoder: join(root, "src/server/decode/main.ts"),
      ledger: join(root, "src/server/ledger/main.ts"),
      web: join(root, "src/server/web/main.ts"),
      media: join(root, "src/server/media/main.ts"),
      lab: join(root, "src/server/lab/main.ts"),
      "lab-thread": join(root, "src/server/lab/thread.ts"),
    },
    outdir: out,
    outExtension: { ".js": ".mjs" },
  });
  rmSync(join(out, "overlay"), { recursive: true, force: true });
  const browser = {
    bundle: true,
    platform: "browser",
    format: "esm",
    logLevel: "error",
    minify: true,
    splitting: true,
    loader: { ".woff2": "file", ".woff": "file" },
    define: { "process.env.NODE_ENV": '"production"' },
    plugins: [oneLanguage],
  };
  const made = await build({
    ...browser,
    target: ["chrome100"],
    entryPoints: { overlay: join(root, "src/overlay-page/main.ts"), "overlay-fonts": join(root, "src/overlay-page/fonts.css") },
    outdir: join(out, "overlay"),
    entryNames: "[name]-[hash]",
    chunkNames: "[name]-[hash]",
    assetNames: "[name]-[hash]",
    publicPath: "/built/",
    metafile: true,
  });
  // Loaded by those pages alone whose stage has something that piles up; for previews on the operator side too.
  await build({
    ...browser,
    format: "iife",
    splitting: false,
    target: ["chrome100"],
    entryPoints: [join(root, "src/overlay/physics/worker.ts")],
    outfile: join(out, "overlay", "physics.js"),
  });
  const named = (prefix, ending) =>
    Object.keys(made.metafile.outputs)
      .map((p) => p.split("/").pop())
      .find((p) => p.startsWith(`${prefix}-`) && p.endsWith(ending));
  const page = readFileSync(join(root, "src/overlay-page/page.html"), "utf8");
  const js = Object.entries(made.metafile.outputs)
    .find(([, o]) => o.entryPoint?.endsWith("overlay-page/main.ts"))[0]
    .split("/")
    .pop();
  writeFileSync(
    join(out, "overlay", "overlay.html"),
    page.replace("%SCRIPT%", `/built/${js}`).replace("%FONTS%", `/built/${named("overlay-fonts", ".css")}`),
  );
  writeFileSync(join(out, "overlay-meta.json"), JSON.stringify(made.metafile.outputs));
  rmSync(join(out, "practice-page"), { recursive: true, force: true });
  await build({
    ...browser,
    splitting: false,
    target: ["chrome110"],
    jsx: "automatic",
    entryPoints: [join(root, "src/practice/page/main.tsx")],
    outdir: join(out, "practice-page"),
    entryNames: "practice",
    publicPath: "/",
  });
  cpSync(join(root, "src/practice/page/index.html"), join(out, "practice-page/index.html"));
  cpSync(join(root, "demo"), join(out, "demo"), { recursive: true });
}

export async function ensureBuilt({ force = false } = {}) {
  mkdirSync(out, { recursive: true });
  const stamp = sourceStamp();
  const mark = join(out, "stamp");
  if (!force && existsSync(mark) && readFileSync(mark, "utf8") === stamp && existsSync(join(root, ".next/BUILD_ID"))) return false;
  rmSync(mark, { force: true });
  await step("Building engine, overlay page and practice rig", buildProcesses);
  await step("Building the operator side (about a minute)", () =>
    run("npx", ["--no-install", "next", "build"], { env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", NODE_ENV: "production" } }),
  );
  writeFileSync(mark, stamp);
  return true;
}

if (isMain(import.meta.url)) {
  await ensureBuilt({ force: process.argv.includes("--force") });
}
