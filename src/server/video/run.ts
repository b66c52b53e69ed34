import { spawn } from "node:child_process";

/**
 * Runs FFmpeg on a file from outside: it reads files and pipes only, never addresses, opens no container but those named,
 * gives way to all else on this computer, and is ended at its deadline or when it wants too much.
 */
export const containers = "matroska,webm,mov,mp4,m4a,3gp,3g2,mj2,gif";
/** Virtual memory, bytes: what codecs of the sizes that are taken want, and no bomb. */
const mostMemory = 3 * 1024 ** 3;
const mostSaid = 60_000;

export type Ran = Readonly<{ code: number; said: string; out: Buffer; late: boolean }>;
export type Running = Readonly<{
  timeoutMs: number;
  /** Most bytes kept of what it writes to its output; more is left out. */
  mostOut?: number;
  /** What it writes, as it comes, instead of being kept. */
  onOut?: (part: Buffer) => void;
  /** How far it is, milliseconds of what it makes. */
  onProgress?: (madeMs: number) => void;
  /** Whether it is to be ended: nobody wants it any more. */
  signal?: AbortSignal;
}>;

export function runProgram(program: "ffmpeg" | "ffprobe", args: readonly string[], how: Running): Promise<Ran> {
  return new Promise((resolve, reject) => {
    const { timeoutMs, mostOut = 64 * 1024 * 1024, onOut, onProgress, signal } = how;
    const head = program === "ffmpeg" ? ["-hide_banner", "-nostdin", "-progress", "pipe:3", "-stats_period", "0.25"] : ["-hide_banner"];
    // prlimit is of util-linux, which every Debian has; processor seconds end what ignores its deadline.
    const limits = ["--as=" + String(mostMemory), "--cpu=" + String(Math.ceil((timeoutMs / 1000) * 2) + 5), "--core=0"];
    const child = spawn("prlimit", [...limits, "nice", "-n", "12", program, ...head, "-protocol_whitelist", "file,pipe", ...args], {
      stdio: ["ignore", "pipe", "pipe", "pipe"],
      env: { PATH: process.env["PATH"] ?? "", NODE_ENV: "production" },
      // Its own group: what is in between goes with it.
      detached: true,
    });
    const out: Buffer[] = [];
    let size = 0;
    let said = "";
    let late = false;
    const end = (): void => {
      try {
        if (child.pid !== undefined) process.kill(-child.pid, "SIGKILL");
      } catch {
        // It is gone already.
      }
    };
    const timer = setTimeout(() => {
      late = true;
      end();
    }, timeoutMs);
    const stop = (): void => end();
    signal?.addEventListener("abort", stop);
    if (signal?.aborted === true) end();
    child.stdout?.on("data", (part: Buffer) => {
      if (onOut !== undefined) return onOut(part);
      size += part.length;
      if (size <= mostOut) out.push(part);
    });
    child.stderr?.on("data", (part: Buffer) => (said = (said + part.toString("utf8")).slice(-mostSaid)));
    const progress = child.stdio[3];
    let line = "";
    progress?.on("data", (part: Buffer) => {
      line = (line + part.toString("utf8")).slice(-4_000);
      const at = [...line.matchAll(/out_time_us=(\d+)/g)].at(-1)?.[1];
      if (at !== undefined) onProgress?.(Number(at) / 1000);
    });
    child.on("error", (error) => {
      clearTimeout(timer);
      reject(error);
    });
    child.on("close", (code) => {
      clearTimeout(timer);
      signal?.removeEventListener("abort", stop);
      resolve({ code: code ?? 1, said, out: Buffer.concat(out), late });
    });
  });
}
