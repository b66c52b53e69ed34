// Brings a backup back into an empty folder:
//   npm run restore -- FILE --data FOLDER
import { resolve } from "node:path";
import { parseArgs } from "node:util";
import { inWords, restore } from "./lib/backup.mjs";
import { endWith, isMain, say, step, Trouble } from "./lib/say.mjs";
import { backupPrograms, databasePrograms, ensurePackages, ensureSystem, root } from "./lib/system.mjs";

export const help = `npm run restore -- FILE --data FOLDER
  FILE             a backup that npm run backup made
  --data FOLDER    an empty folder, or one that is not there yet, for the installation`;

if (isMain(import.meta.url)) {
  (async () => {
    let given;
    try {
      given = parseArgs({ allowPositionals: true, options: { data: { type: "string" }, help: { type: "boolean", short: "h" } } });
    } catch (error) {
      throw new Trouble(`${error.message}\n\n${help}`);
    }
    const [file, ...more] = given.positionals;
    if (given.values.help) return say(help);
    if (file === undefined || more.length > 0 || !given.values.data) throw new Trouble(help);
    await ensureSystem([...databasePrograms, ...backupPrograms]);
    await ensurePackages();
    const folder = resolve(root, given.values.data);
    const { manifest, now } = await step("Bringing the backup back", () => restore({ file: resolve(file), folder }));
    say(`${folder} is as of ${manifest.at.replace("T", " ").slice(0, 19)} UTC, from version ${manifest.version}. In it:`);
    for (const line of inWords({ databases: now })) say(line);
    const empty = now.some((d) => d.name === "izzam") ? " --empty" : "";
    say(`Start it with ./start${empty} --data ${folder}`);
  })().catch(endWith);
}
