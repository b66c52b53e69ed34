import { afterEach, describe, expect, jest, test } from "@jest/globals";
import { close, mkdtempSync, open, readFileSync, rmSync, write } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { logFile } from "./log-file.mjs";

const folder = mkdtempSync(join(tmpdir(), "izzam-log-"));
afterEach(() => jest.useRealTimers());
const settled = () => new Promise((resolve) => setTimeout(resolve, 60));
const full = () => Object.assign(new Error("no room"), { code: "ENOSPC" });

describe("a log", () => {
  test("keeps what is written, in its order, and adds to what was there", async () => {
    const path = join(folder, "plain.log");
    const log = logFile(path);
    for (let i = 0; i < 500; i += 1) log.write(`line ${i}\n`);
    log.end();
    await settled();
    logFile(path).write("later\n");
    await settled();
    const lines = readFileSync(path, "utf8").trimEnd().split("\n");
    expect(lines).toEqual([...Array.from({ length: 500 }, (_, i) => `line ${i}`), "later"]);
  });

  test("a disk that is full costs lines, which it tells once there is room, and ends nothing", async () => {
    const path = join(folder, "full.log");
    let room = true;
    const log = logFile(path, { open, close, write: (...at) => (room ? write(...at) : at.at(-1)(full())) });
    log.write("before\n");
    await settled();
    room = false;
    log.write("one\ntwo\n");
    await settled();
    // Within its pause nothing is even tried.
    log.write("three\n");
    expect(log.dropped).toBe(3);
    room = true;
    const now = Date.now();
    jest.spyOn(Date, "now").mockReturnValue(now + 10_000);
    log.write("after\n");
    await settled();
    jest.restoreAllMocks();
    expect(readFileSync(path, "utf8")).toBe("before\n… 3 lines are missing here: the disk was full.\nafter\n");
    expect(log.dropped).toBe(0);
  });

  test("one that can't even be opened is tried again", async () => {
    const path = join(folder, "late.log");
    let room = false;
    const log = logFile(path, { write, close, open: (...at) => (room ? open(...at) : at.at(-1)(full())) });
    log.write("lost\n");
    await settled();
    room = true;
    const now = Date.now();
    jest.spyOn(Date, "now").mockReturnValue(now + 10_000);
    log.write("kept\n");
    await settled();
    jest.restoreAllMocks();
    expect(readFileSync(path, "utf8")).toBe("… 1 line is missing here: the disk was full.\nkept\n");
  });

  test("a disk that takes a part of a line gets the rest of it", async () => {
    const path = join(folder, "parts.log");
    const log = logFile(path, {
      open,
      close,
      write: (fd, data, from, length, at, done) => write(fd, data, from, Math.min(3, length), at, done),
    });
    log.write("in small pieces\n");
    await settled();
    expect(readFileSync(path, "utf8")).toBe("in small pieces\n");
  });

  test("what waits for a disk that never answers is bounded", () => {
    const log = logFile(join(folder, "hung.log"), { open, close, write: () => undefined });
    for (let i = 0; i < 3_000; i += 1) log.write("x".repeat(1_000) + "\n");
    expect(log.dropped).toBeGreaterThan(1_900);
    rmSync(folder, { recursive: true, force: true });
  });
});
