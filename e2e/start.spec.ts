import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { createServer } from "node:net";
import { existsSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "@playwright/test";

/** The start command itself, on a data folder of its own. */
const root = process.cwd();
const folder = join(root, ".data-test/start");
type Started = { child: ChildProcess; output: () => string; url: string; ended: Promise<number | null> };

async function start(...args: string[]): Promise<Started> {
  const child = spawn("./start", ["--data", folder, ...args], { cwd: root, stdio: ["ignore", "pipe", "pipe"] });
  let output = "";
  for (const stream of [child.stdout, child.stderr]) stream?.on("data", (data) => (output += String(data)));
  const ended = new Promise<number | null>((resolve) => child.on("exit", resolve));
  const started: Started = { child, output: () => output, url: "", ended };
  for (let waited = 0; waited < 90_000; waited += 100) {
    const url = /Izzam {4,}(http:\/\/localhost:\d+)/.exec(output)?.[1];
    if (url !== undefined && output.includes("Stop with")) return { ...started, url };
    if (child.exitCode !== null) return started;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`it did not start:\n${output}`);
}
const stop = async ({ child, ended }: Started): Promise<void> => {
  child.kill("SIGINT");
  await ended;
};
/** Every process that works on this data folder. */
const left = (): string[] =>
  execFileSync("ps", ["-eo", "pid,args"], { encoding: "utf8" })
    .split("\n")
    .filter((l) => l.includes(folder) && !l.includes("ps -eo"));

test.describe.configure({ mode: "serial" });
test.beforeAll(() => rmSync(folder, { recursive: true, force: true }));

test("starts with demo data, prints the addresses and the sign-in, and Ctrl-C leaves nothing running", async ({ request }) => {
  test.setTimeout(150_000);
  const first = await start("--port", "6311");
  expect(first.output()).toContain("Practice rig     http://localhost:");
  expect(first.output()).toContain("kilnkeeper (owner) or spongebearer (moderator), password: saltmarsh");
  expect((await request.get(`${first.url}/sign-in`)).status()).toBe(200);

  // Another start on the same folder says where the first one runs, and harms nothing.
  const twice = await start("--port", "6312");
  expect(twice.output()).toContain(`Izzam runs already, at ${first.url}`);
  expect(await twice.ended).toBe(1);
  expect((await request.get(`${first.url}/sign-in`)).status()).toBe(200);

  await stop(first);
  expect(first.output()).toContain("Izzam has stopped.");
  expect(left()).toEqual([]);
  await expect(request.get(`${first.url}/sign-in`)).rejects.toThrow(/ECONNREFUSED/);
});

test("a database that is killed is started again, by itself, and it is said why it was", async ({ request }) => {
  test.setTimeout(150_000);
  const one = await start("--port", "6316", "--no-practice");
  const alive = async (): Promise<boolean> =>
    (
      await request.post(`${one.url}/api/sign-in`, { headers: { origin: one.url }, data: { login: "nobody", password: "none at all" } })
    ).status() === 422;
  expect(await alive()).toBe(true);
  const servers = (): number[] =>
    left()
      .filter((l) => l.includes("mariadbd"))
      .map((l) => Number(l.trim().split(" ")[0]));
  for (const round of [1, 2]) {
    const [pid = 0] = servers();
    process.kill(pid, "SIGKILL");
    await expect.poll(() => one.output().split("The database runs again.").length - 1, { timeout: 30_000 }).toBe(round);
    await expect.poll(alive, { timeout: 20_000 }).toBe(true);
  }
  expect(one.output()).toContain("The database ended");
  // An engine that has lived is back within two seconds.
  await new Promise((resolve) => setTimeout(resolve, 5_500));
  const engines = execFileSync("ps", ["-eo", "pid,args"], { encoding: "utf8" })
    .split("\n")
    .filter((l) => l.includes(".build/engine.mjs"));
  const port = new URL(one.url).port;
  const mine = engines
    .map((l) => Number(l.trim().split(" ")[0]))
    .find((pid) => readFileSync(`/proc/${pid}/environ`, "utf8").includes(`IZZAM_PORT=${port}\0`));
  process.kill(mine ?? 0, "SIGKILL");
  const from = Date.now();
  await expect
    .poll(async () => (await request.get(`${one.url}/schemas`).catch(() => null))?.status() ?? 0, { timeout: 15_000, intervals: [50] })
    .toBe(200);
  expect(Date.now() - from).toBeLessThan(6_000);
  await stop(one);
  expect(left()).toEqual([]);
});

test("a second start takes seconds; a busy port is told, and another is chosen", async () => {
  const busy = createServer();
  // Whoever holds it, the port is busy: this test, or an Izzam that somebody runs beside it.
  await new Promise<void>((resolve) => busy.once("error", () => resolve()).listen(4470, "127.0.0.1", resolve));
  const again = await start();
  expect(again.output()).not.toContain("Setting up a private database");
  expect(again.output()).toMatch(/Port 4470 is taken by another program; using \d+\./);
  await stop(again);
  const asked = await start("--port", "4470");
  expect(asked.output()).toContain("Port 4470 is taken by another program. Choose another with --port, or leave it out.");
  expect(await asked.ended).toBe(1);
  busy.close();
});

test("a stale lock and a database that was killed are survived", async () => {
  const running = await start("--port", "6313");
  const pid = Number(readFileSync(join(folder, "mariadb.pid"), "utf8"));
  running.child.kill("SIGKILL");
  await running.ended;
  process.kill(pid, "SIGKILL");
  expect(existsSync(join(folder, "running.json"))).toBe(true);
  const again = await start("--port", "6314");
  expect(again.url).toBe("http://localhost:6314");
  await stop(again);
  // A lock of a process that is something else by now, and one that is no JSON at all.
  for (const text of [JSON.stringify({ pid: 1, port: 1 }), "{half"]) {
    writeFileSync(join(folder, "running.json"), text);
    const once = await start("--port", "6315");
    expect(once.url).toBe("http://localhost:6315");
    await stop(once);
  }
  expect(left()).toEqual([]);
});

test("wrong words on the command line are told", async () => {
  const wrong = await start("--prot", "1");
  expect(wrong.output()).toContain("--port N");
  const port = await start("--port", "99999");
  expect(port.output()).toContain("99999 is not a port");
  const trust = await start("--trust", "foo");
  expect(trust.output()).toContain("“foo” is neither an IP address nor a network");
  expect(trust.output()).not.toContain("    at ");
  const blocked = await start("--port", "5060");
  expect(blocked.output()).toContain("Browsers go to no page on port 5060");
});
