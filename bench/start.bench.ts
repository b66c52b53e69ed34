import { execFileSync, spawn } from "node:child_process";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Bench, type Row } from "./row";

/** From the command to the printed addresses. Cold: a fresh copy without packages, build or database. */
async function once(folder: string): Promise<number> {
  const from = performance.now();
  const child = spawn("./start", ["--port", "4790"], { cwd: folder, stdio: ["ignore", "pipe", "inherit"] });
  const seconds = await new Promise<number>((resolve, reject) => {
    let output = "";
    child.stdout.on("data", (data) => {
      output += String(data);
      if (output.includes("Stop with")) resolve((performance.now() - from) / 1000);
    });
    child.on("exit", () => reject(new Error(output)));
  });
  child.removeAllListeners("exit");
  child.kill("SIGINT");
  await new Promise((resolve) => child.on("exit", resolve));
  return seconds;
}

export async function measure({ root }: Bench): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), "izzam-cold-"));
  try {
    for (const file of execFileSync("git", ["ls-files", "-co", "--exclude-standard"], { cwd: root, encoding: "utf8" })
      .split("\n")
      .filter(Boolean)) {
      cpSync(join(root, file), join(folder, file), { recursive: true });
    }
    const cold = await once(folder);
    const warm = await once(folder);
    return [
      { what: "start, cold (Debian packages there, nothing else)", ours: `${cold.toFixed(0)} s`, budget: "< 150 s", met: cold < 150 },
      { what: "start, second time", ours: `${warm.toFixed(1)} s`, budget: "< 5 s", met: warm < 5 },
    ];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
