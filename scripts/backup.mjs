// One file with all of an installation, while it runs or rests:
//   npm run backup [-- --to FOLDER] [--data FOLDER] [--every night --keep 7]
import { readdirSync, rmSync } from "node:fs";
import { join, resolve } from "node:path";
import { parseArgs } from "node:util";
import { backUp, inWords, tooMany } from "./lib/backup.mjs";
import { endWith, isMain, say, Trouble } from "./lib/say.mjs";
import { backupPrograms, databasePrograms, ensurePackages, ensureSystem, root } from "./lib/system.mjs";

export const help = `npm run backup        makes a backup of the installation: one file with its database, files and keys
  -- --to FOLDER      where backups are kept (usually .data-backups)
     --data FOLDER    the installation (usually .data); it may run meanwhile
     --every night    stays, and makes one each night at four
     --keep N         removes the oldest, so that N stay (usually all stay)`;
const atHour = 4;

export function readWords(words) {
  let values;
  try {
    ({ values } = parseArgs({
      args: words,
      options: { to: { type: "string" }, data: { type: "string" }, every: { type: "string" }, keep: { type: "string" }, help: { type: "boolean", short: "h" } }, // prettier-ignore
    }));
  } catch (error) {
    throw new Trouble(`${error.message}\n\n${help}`);
  }
  if (values.help) return null;
  if (values.every !== undefined && values.every !== "night") throw new Trouble(`--every ${values.every}: there is only “night”.`);
  const keep = values.keep === undefined ? Infinity : Number(values.keep);
  if (values.keep !== undefined && (!/^\d+$/.test(values.keep) || keep < 1))
    throw new Trouble(`--keep ${values.keep} is no number from 1.`);
  return {
    folder: resolve(root, values.data ?? ".data"),
    to: resolve(root, values.to ?? `${values.data ?? ".data"}-backups`),
    nightly: values.every === "night",
    keep,
  };
}

/** How long until the next night's backup, milliseconds. */
export function untilNight(now) {
  const next = new Date(now);
  next.setHours(atHour, 0, 0, 0);
  if (next <= now) next.setDate(next.getDate() + 1);
  return next - now;
}

async function one({ folder, to, keep }) {
  const { path, bytes, manifest } = await backUp({ folder, to });
  say(`${path}, ${(bytes / 1e6).toFixed(1)} MB. Keep it safe: it holds the keys that open what is sealed. In it:`);
  for (const line of inWords(manifest)) say(line);
  const old = tooMany(readdirSync(to), keep);
  for (const name of old) rmSync(join(to, name));
  if (old.length > 0) say(`Removed, since ${keep} are kept: ${old.join(", ")}.`);
}

if (isMain(import.meta.url)) {
  (async () => {
    const options = readWords(process.argv.slice(2));
    if (options === null) return say(help);
    await ensureSystem([...databasePrograms, ...backupPrograms]);
    await ensurePackages();
    if (!options.nightly) return one(options);
    say(`A backup of ${options.folder} is made each night at ${atHour}, into ${options.to}. Stop with Ctrl-C.`);
    for (;;) {
      await new Promise((done) => setTimeout(done, untilNight(new Date())));
      // One that fails is told, and made again an hour later: the night after must not be missed for it.
      for (;;) {
        const failed = await one(options).then(
          () => null,
          (error) => error,
        );
        if (failed === null) break;
        say(`No backup was made: ${failed instanceof Trouble ? failed.message : String(failed)} It is tried again in an hour.`);
        await new Promise((done) => setTimeout(done, 3_600_000));
      }
    }
  })().catch(endWith);
}
