import { afterAll, afterEach, describe, expect, jest, test } from "@jest/globals";
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setImmediate } from "node:timers";
import { startProcess } from "./installation.mjs";
import { lastLogged, step } from "./say.mjs";

const folder = mkdtempSync(join(tmpdir(), "izzam-processes-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
afterEach(() => jest.useRealTimers());
const program = (name, text) => {
  const file = join(folder, `${name}.mjs`);
  writeFileSync(file, text);
  return [file];
};
const until = async (what) => {
  while (!what()) await new Promise((resolve) => setImmediate(resolve));
};

describe("a process that is started", () => {
  test("is waited for as long as it lives: three minutes are no reason to give up", async () => {
    const go = join(folder, "go");
    const run = program(
      "slow",
      `import { existsSync } from "node:fs";
       console.log(JSON.stringify({ msg: "reading the pages" }));
       setInterval(() => existsSync(${JSON.stringify(go)}) && process.send({ ready: true }), 20);
       process.on("SIGTERM", () => process.exit(0));`,
    );
    jest.useFakeTimers({ doNotFake: ["setImmediate", "nextTick", "queueMicrotask"] });
    const out = jest.spyOn(process.stdout, "write").mockReturnValue(true);
    const slow = startProcess("slow", process.env, folder, { run });
    let ready = false;
    slow.ready.then(() => (ready = true));
    const waited = step(
      "Starting",
      () => slow.ready,
      () => (ready ? [] : [{ name: "the slow process", last: slow.lastLogged() }]),
    );
    await until(() => slow.lastLogged() !== "");
    jest.advanceTimersByTime(180_000);
    expect(ready).toBe(false);
    expect(slow.ended).toBe(false);
    writeFileSync(go, "");
    await waited;
    const said = out.mock.calls.map(([text]) => text).join("");
    out.mockRestore();
    expect(said).toContain("waiting for the slow process, 8 s\n");
    expect(said).toContain("waiting for the slow process, 180 s. It last logged: reading the pages\n");
    expect(said).toMatch(/Starting: done in 180\.\d s\n$/);
    jest.useRealTimers();
    const exited = jest.fn();
    await slow.stop();
    expect(exited).not.toHaveBeenCalled();
    expect(existsSync(join(folder, "slow.log"))).toBe(true);
  });

  test("that dies says why", async () => {
    const run = program(
      "dying",
      `console.error(JSON.stringify({ level: 50, msg: "no database", err: "ECONNREFUSED\\n at x" })); process.exit(3);`,
    );
    const ends = [];
    const dying = startProcess("dying", process.env, folder, { run, onExit: (...how) => ends.push(how) });
    await expect(dying.ready).rejects.toThrow(/The dying process ended \(3\)\. The end of what it logged:\n.*no database/);
    expect(ends).toEqual([[3, null, "no database: ECONNREFUSED"]]);
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(readFileSync(join(folder, "dying.log"), "utf8")).toContain("no database");
  });

  test("that was told to end has not died: nobody starts it again", async () => {
    const run = program("told", `process.on("SIGTERM", () => process.exit(0)); process.send({ ready: true }); setInterval(() => 0, 1000);`);
    for (const how of ["stop", "kill"]) {
      const onExit = jest.fn();
      const told = startProcess("told", process.env, folder, { run, onExit });
      await told.ready;
      await told[how]();
      expect([told.ended, onExit.mock.calls.length]).toEqual([true, 0]);
    }
    const early = startProcess("told", process.env, folder, { run: program("deaf", "setInterval(() => 0, 1000)") });
    await early.stop();
    await expect(early.ready).rejects.toThrow("The told process was ended.");
  });

  test("whose program is not there is told too", async () => {
    const none = startProcess("none", process.env, folder, { run: [join(folder, "nowhere.mjs")] });
    await expect(none.ready).rejects.toThrow(/The none process ended \(1\)/);
  });
});

test("what was last logged is told in words", () => {
  expect(lastLogged('{"msg":"a"}\n{"level":30,"msg":"engine ready"}\n')).toBe("engine ready");
  expect(lastLogged("plain words\n\n")).toBe("plain words");
  expect(lastLogged("")).toBe("");
  expect(lastLogged("null")).toBe("null");
});
