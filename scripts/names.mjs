// No file outside a game's own folders names a game: what the house needs to know stands in the game's definition.
import { readdirSync, readFileSync } from "node:fs";
import { join, relative } from "node:path";
import { endWith, isMain, say, Trouble } from "./lib/say.mjs";
import { root } from "./lib/system.mjs";

/** Each registry has one line for a game; demo data and tests may say what they like. */
const mayName = [
  /^src\/core\/games\/(registry|fronts|by-kind)\.ts$/,
  /^src\/games\/registry-(scenes|shown|viewers)\.ts$/,
  /^src\/server\/seed\//,
  /^src\/server\/testing\//,
  /^src\/testing\//,
  /\.test\.tsx?$/,
];
const filesIn = (folder) =>
  readdirSync(folder, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory() ? filesIn(join(folder, e.name)) : /\.tsx?$/.test(e.name) ? [join(folder, e.name)] : [],
  );

/** The lines that name a game where none may be named. */
export function gamesNamed(base = root) {
  const games = readdirSync(join(base, "src/core/games"), { withFileTypes: true })
    .filter((e) => e.isDirectory())
    .map((e) => e.name);
  const found = [];
  const namespaces = new Map();
  for (const game of games) {
    const own = filesIn(join(base, "src/core/games", game)).filter((f) => !f.endsWith(".test.ts"));
    const spaces = own.flatMap((f) =>
      [...readFileSync(f, "utf8").matchAll(/(?:did: |held\(|refusal\(|what: )"([a-z]+)\//g)].map((m) => m[1]),
    );
    // What the engine itself answers belongs to no game.
    namespaces.set(game, new Set(spaces.filter((s) => s !== "game")));
  }
  for (const file of filesIn(join(base, "src"))) {
    const path = relative(base, file);
    if (mayName.some((may) => may.test(path))) continue;
    for (const [i, line] of readFileSync(file, "utf8").split("\n").entries())
      for (const game of games) {
        if (path.startsWith(`src/core/games/${game}/`) || path.startsWith(`src/games/${game}/`)) continue;
        const named =
          line.includes(game) ||
          new RegExp(`\\b${game.replace("-", " ")}\\b`, "i").test(line) ||
          [...(namespaces.get(game) ?? [])].some((space) => new RegExp(`["'\`(]${space}/`).test(line));
        if (named) found.push(`${path}:${i + 1} names ${game}: ${line.trim().slice(0, 100)}`);
      }
  }
  return found;
}

if (isMain(import.meta.url)) {
  try {
    const found = gamesNamed();
    if (found.length > 0) throw new Trouble(found.join("\n"));
    say("No file outside its own folders names a game.");
  } catch (error) {
    endWith(error);
  }
}
