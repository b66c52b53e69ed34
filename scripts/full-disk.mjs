// A whole installation on a small disk that fills up in the middle of a show, and is emptied again:
//   npm run faults -- --full-disk
import { execFileSync, spawn } from "node:child_process";
import { closeSync, existsSync, mkdirSync, openSync, readFileSync, rmSync, writeSync } from "node:fs";
import { join } from "node:path";
import { ensureBuilt } from "./build.mjs";
import { checkLedger } from "./ledger.mjs";
import { settingsFor } from "./lib/installation.mjs";
import { say } from "./lib/say.mjs";
import { root } from "./lib/system.mjs";

const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const folder = join(root, ".data-test/small-disk");

const unmount = () => {
  try {
    execFileSync("umount", [folder], { stdio: "ignore" });
  } catch {
    // It was not mounted.
  }
};

/** Whether this machine lets us have a small disk: an ordinary user may not mount one. */
function mounted() {
  unmount();
  mkdirSync(folder, { recursive: true });
  try {
    execFileSync("mount", ["-t", "tmpfs", "-o", "size=420m", "none", folder], { stdio: "ignore" });
    return true;
  } catch {
    return false;
  }
}

/** Writes until nothing more fits. */
function fill(file) {
  const fd = openSync(file, "w");
  for (let size = 1 << 20; size >= 1;) {
    try {
      writeSync(fd, Buffer.alloc(size));
    } catch {
      size >>= 1;
    }
  }
  closeSync(fd);
}

/** As a part of ./test. A machine on which no small disk can be made says so, and counts as neither passed nor failed. */
export async function fullDisk() {
  await ensureBuilt();
  if (!mounted()) {
    say("· No small disk can be made here (that takes root), so a full one is not tested.");
    return { passed: 0, failed: 0, failures: [] };
  }
  const wrong = [];
  const must = (is, what) => void (is || wrong.push(what));
  const child = spawn("./start", ["--data", folder, "--port", "6410"], { cwd: root, stdio: ["ignore", "pipe", "pipe"] });
  let output = "";
  for (const stream of [child.stdout, child.stderr]) stream.on("data", (data) => (output += data));
  const ended = new Promise((resolve) => child.on("exit", resolve));
  const until = async (seconds, what) => {
    for (const end = Date.now() + seconds * 1000; Date.now() < end && child.exitCode === null; await wait(200))
      if (await what()) return true;
    return false;
  };
  let socket = null;
  try {
    if (!(await until(300, () => output.includes("Stop with")))) throw new Error(`it did not start:\n${output}`);
    const { port, practice, database } = JSON.parse(readFileSync(join(folder, "running.json"), "utf8"));
    const base = `http://localhost:${port}`;
    let sent = 0;
    const taken = [];
    /** One tip by the platform; the status it was answered with. */
    const tip = async () => {
      const id = `disk-${(sent += 1)}`;
      const status = await fetch(`http://localhost:${practice.port}/event`, {
        method: "POST",
        body: JSON.stringify({ kind: "tip", as: "gusset", amount: 300, currency: "EUR", text: "x".repeat(280), id }),
      }).then(
        async (r) => (await r.json()).status ?? 0,
        () => 0,
      );
      if (status === 200) taken.push(id);
      return status;
    };
    const cookie = (
      (
        await fetch(`${base}/api/demo-sign-in`, {
          method: "POST",
          headers: { "content-type": "application/json", origin: base },
          body: JSON.stringify({ role: "owner" }),
        })
      ).headers.get("set-cookie") ?? ""
    ).split(";")[0];
    const post = (path, body) =>
      fetch(`${base}/api${path}`, {
        method: "POST",
        headers: { "content-type": "application/json", origin: base, cookie },
        body: JSON.stringify(body),
      });
    const token = (await (await post("/overlays/main-stage/link", { do: "copy" })).json()).value;
    const heard = [];
    const { WebSocket } = await import("ws");
    socket = new WebSocket(`ws://localhost:${port}/ws`);
    socket.on("open", () =>
      socket.send(
        JSON.stringify({ v: 1, type: "hello", as: "overlay", token: token.token ?? token, width: 1280, height: 720, resume: null }),
      ),
    );
    socket.on("message", (data) => heard.push(String(data)));
    socket.on("error", () => undefined);
    const flies = async () => {
      const before = heard.length;
      await fetch(`http://localhost:${practice.port}/say`, { method: "POST", body: JSON.stringify({ as: "gusset", text: "mugUp mugUp" }) });
      await wait(400);
      return heard.slice(before).some((m) => m.includes('"do":"spawn"'));
    };
    must(await until(20, flies), "no emote reached the overlay before the disk was full");
    must((await tip()) === 200, "a tip was not taken while there was room");

    const ballast = join(folder, "ballast");
    fill(ballast);
    const statuses = new Set();
    const refused = await until(180, async () => {
      const answers = await Promise.all(Array.from({ length: 40 }, tip));
      for (const status of answers) statuses.add(status);
      return answers.every((status) => status !== 200);
    });
    must(refused, `the disk was full, and tips were taken all the same (${taken.length})`);
    // Whatever the sender could take for final would lose a tip.
    for (const status of statuses) must([200, 503, 0].includes(status), `a tip was answered with ${status} on a full disk`);
    must(child.exitCode === null, "the starter ended");
    must(await until(20, flies), "no emote reached the overlay while the disk was full");
    must((await post("/hush", { on: true, rehearsal: "" })).ok, "hush did not work while the disk was full");
    must((await post("/hush", { on: false, rehearsal: "" })).ok, "hush was not released while the disk was full");

    rmSync(ballast);
    const from = Date.now();
    must(await until(90, async () => (await tip()) === 200), "no tip was taken after there was room again");
    const backS = Math.round((Date.now() - from) / 1000);
    must(backS <= 60, `a tip was taken only ${backS} s after there was room`);
    must(await until(20, flies), "no emote reached the overlay after there was room again");

    const password = readFileSync(join(folder, "keys", "database"), "utf8").trim();
    const { createConnection } = await import("mysql2/promise");
    const at = JSON.parse(readFileSync(join(folder, "running.json"), "utf8")).database?.port ?? database.port;
    const connection = await createConnection({ host: "127.0.0.1", port: at, user: "izzam", password, database: "izzam_demo" });
    const [rows] = await connection.query("select count(*) as n from log where source = 'event' and kind = 'tip'");
    await connection.end();
    must(Number(rows[0].n) >= taken.length, `${taken.length} tips were taken, ${rows[0].n} are in the log`);
    const env = settingsFor({ folder, database: { port: at, password }, databaseName: "izzam_demo", port: 1, webPort: 1 });
    must(checkLedger(env, [], true), "the ledger does not balance after the disk was full");
    must(!/Identifier|SyntaxError|\n\s+at /.test(output), `the starter told a stack:\n${output}`);
    if (wrong.length === 0)
      say(`A full disk: ${taken.length} tips taken, the others refused to be sent again; ${backS} s after there was room a tip was taken.`);
  } catch (error) {
    wrong.push(String(error));
  } finally {
    socket?.terminate();
    child.kill("SIGINT");
    await ended;
    if (wrong.length > 0) say(output.split("\n").slice(-20).join("\n"));
    if (existsSync(join(folder, "logs")) && wrong.length > 0)
      say(execFileSync("tail", ["-n", "5", join(folder, "logs/engine.log")], { encoding: "utf8" }));
    unmount();
  }
  for (const what of wrong) say(`✗ ${what}`);
  return { passed: wrong.length === 0 ? 1 : 0, failed: wrong.length === 0 ? 0 : 1, failures: wrong };
}
