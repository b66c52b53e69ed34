import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { readWords, untilNight } from "../backup.mjs";
import { inWords, knownSteps, manifestOf, restore, tooMany } from "./backup.mjs";

let folder;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "izzam-backup-"));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const good = {
  format: "izzam-backup-1",
  version: "0.1.0",
  at: "2026-01-01T00:00:00.000Z",
  databases: [{ name: "izzam", steps: [knownSteps()[0]] }],
  parts: {},
};
let made = 0;
/** A tar file with these members. */
function tar(members) {
  const at = join(folder, `m${(made += 1)}`);
  for (const [name, text] of Object.entries(members)) {
    mkdirSync(join(at, name, ".."), { recursive: true });
    writeFileSync(join(at, name), text);
  }
  execFileSync("tar", ["-C", at, "-cf", `${at}.tar`, ...Object.keys(members)]);
  return `${at}.tar`;
}
const backup = (manifest, more = {}) =>
  tar({ "manifest.json": JSON.stringify(manifest), "database.sql.gz": "x", "keys/app": "k", ...more });

describe("what is brought back", () => {
  test("a manifest that fits is read", async () => {
    expect(await manifestOf(backup(good))).toEqual(good);
  });
  test.each([
    ["no file at all", () => join(folder, "nothing.tar"), /There is no file/],
    ["no tar file", () => (writeFileSync(join(folder, "text.tar"), "hello"), join(folder, "text.tar")), /can’t be read as a tar file/],
    ["a file that has no place in it", () => backup(good, { "start.sh": "rm" }), /it holds “start.sh”/],
    ["no database", () => tar({ "manifest.json": JSON.stringify(good) }), /its database is missing/],
    ["a manifest that is none", () => tar({ "manifest.json": "{", "database.sql.gz": "x" }), /its manifest can’t be read/],
    ["another format", () => backup({ ...good, format: "izzam-backup-9" }), /has the format izzam-backup-9/],
    [
      "a newer version's database",
      () => backup({ ...good, version: "9.0.0", databases: [{ name: "izzam", steps: ["999-tomorrow"] }] }),
      /newer version \(9\.0\.0\): this one doesn’t know “999-tomorrow”/,
    ],
  ])("%s is refused in words", async (_, file, why) => {
    await expect(manifestOf(file())).rejects.toThrow(why);
  });
  test("only into an empty folder; a damaged one leaves nothing behind", async () => {
    const full = join(folder, "full");
    mkdirSync(full);
    writeFileSync(join(full, "mine.txt"), "mine");
    await expect(restore({ file: backup(good), folder: full })).rejects.toThrow(/is not empty/);
    const empty = join(folder, "empty");
    const damaged = backup({ ...good, parts: { "database.sql.gz": { sha256: "0".repeat(64), bytes: 1 } } });
    await expect(restore({ file: damaged, folder: empty })).rejects.toThrow(/is damaged: database.sql.gz is not what it was/);
    await expect(restore({ file: backup({ ...good, databases: [{ name: "a; drop", steps: [] }] }), folder: empty })).rejects.toThrow(
      /names no database/,
    );
    expect(() => execFileSync("ls", [empty], { stdio: "ignore" })).toThrow();
  });
});

test("what is in it is told with its numbers, one and many", () => {
  const told = inWords({
    databases: [
      { name: "izzam_demo", channels: ["Saltmarsh Kiln"], people: 1, sales: 2_000, props: 0 },
      { name: "izzam", channels: [], people: 0, sales: 0, props: 1 },
    ],
  });
  expect(told).toEqual(["  Saltmarsh Kiln (the demo): 1 viewer, 2,000 sales, 0 props", "  no channel yet: 0 viewers, 0 sales, 1 prop"]);
});

test("the oldest go, and nothing that is no backup", () => {
  const names = [
    "izzam-2026-01-03T040000.tar",
    "notes.txt",
    "izzam-2026-01-01T040000.tar",
    "izzam-2026-01-02T040000.tar",
    ".izzam-2026-01-01T040000.tar.parts",
  ];
  expect(tooMany(names, 2)).toEqual(["izzam-2026-01-01T040000.tar"]);
  expect(tooMany(names, Infinity)).toEqual([]);
});

test("the next night is ahead, whatever time it is", () => {
  for (let hour = 0; hour < 24; hour += 1) {
    const waits = untilNight(new Date(2026, 5, 10, hour, 30));
    expect([waits > 0, waits <= 86_400_000]).toEqual([true, true]);
  }
  expect(untilNight(new Date(2026, 5, 10, 3, 30))).toBe(1_800_000);
});

test("words that mean nothing are refused before anything is done", () => {
  expect(readWords(["--every", "night", "--keep", "7"])).toMatchObject({ nightly: true, keep: 7 });
  expect(readWords(["--help"])).toBeNull();
  for (const words of [
    ["--every", "day"],
    ["--keep", "0"],
    ["--keep", "many"],
    ["--into", "x"],
  ])
    expect(() => readWords(words)).toThrow();
});
