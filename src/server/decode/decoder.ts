import { type ChildProcess, spawn } from "node:child_process";
import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { refused, type Result } from "../../core/kernel/refusal";
import type { Sheet } from "../pictures/sheet";
import type { MadeProp } from "../props/made";
import type { Done, Job, Unpacked, UnzipOf } from "./jobs";

/** Opens files from outside: pictures, sounds, ZIP files. What can't be opened in time is a refusal. */
export type Decoder = Readonly<{
  picture: (bytes: Buffer) => Promise<Result<Sheet>>;
  prop: (bytes: Buffer, kept?: Readonly<{ kind: "picture" | "sound"; settings: unknown }>) => Promise<Result<MadeProp>>;
  unzip: (path: string, mostEach: number, folder: string, of?: UnzipOf) => Promise<Result<Unpacked>>;
  /** Somebody's picture, small and square. */
  face: (bytes: Buffer) => Promise<Result<Buffer>>;
  stop: () => void;
}>;
export const decoderOf = (run: <J extends Job>(job: J) => Promise<Done[J["do"]]>, stop: () => void): Decoder => ({
  picture: (bytes) => run({ do: "picture", bytes }),
  prop: (bytes, kept) => run({ do: "prop", bytes, kept: kept ?? null }),
  unzip: (path, mostEach, folder, of = "props") => run({ do: "unzip", path, mostEach, folder, of }),
  // What came from another process is bytes, and no Buffer.
  face: async (bytes) => {
    const made = await run({ do: "face", bytes });
    return made.ok ? { ok: true, value: Buffer.from(made.value) } : made;
  },
  stop,
});

/** Built beside the processes that start it; all of them run in the folder of the installation. */
export const decoderProgram = join(process.cwd(), ".build/decoder.mjs");

export type Limits = Readonly<{
  deadlineMs: Readonly<Record<Job["do"], number>>;
  /** How long a fresh process may take until it can be given something. */
  startMs: number;
  mostBytes: number;
  mostWaiting: number;
  atOnce: number;
}>;
export const limits: Limits = {
  // A sound of two minutes is heard three times by a slow machine; a picture is drawn within a second or two.
  deadlineMs: { picture: 10_000, prop: 60_000, unzip: 15_000, face: 10_000 },
  startMs: 30_000,
  mostBytes: 900 * 1024 * 1024,
  mostWaiting: 200,
  atOnce: 2,
};
const idleMs = 30_000;
const lookMs = 150;
const pageBytes = 4_096;

type Waiting = Readonly<{ job: Job; settle: (result: Result<never>) => void }>;

/**
 * In child processes that are ended, with all they started, when a file takes too long or wants more memory
 * than it may. At most two at once and a bounded queue: a flood of bad files slows other files, and nothing else.
 */
export function childDecoder(program: string, { deadlineMs, startMs, mostBytes, mostWaiting, atOnce }: Limits = limits): Decoder {
  const waiting: Waiting[] = [];
  const idle: { child: ChildProcess; timer: NodeJS.Timeout }[] = [];
  const all = new Set<ChildProcess>();
  let busy = 0;
  let ids = 0;

  const end = (child: ChildProcess): void => {
    all.delete(child);
    try {
      // Its own group: what it started goes with it.
      if (child.pid !== undefined) process.kill(-child.pid, "SIGKILL");
    } catch {
      // It is gone already.
    }
  };
  const begin = (): ChildProcess => {
    const child = spawn(process.execPath, ["--max-old-space-size=384", program], {
      stdio: ["ignore", "ignore", "ignore", "ipc"],
      serialization: "advanced",
      detached: true,
      // No key, no password, no address: there is nothing to be had from it.
      env: { PATH: process.env["PATH"] ?? "", NODE_ENV: "production", TMPDIR: process.env["TMPDIR"] ?? "" },
    });
    child.unref();
    child.channel?.unref();
    child.on("error", () => all.delete(child));
    all.add(child);
    return child;
  };

  const next = (): void => {
    while (busy < atOnce) {
      const one = waiting.shift();
      if (one === undefined) return;
      busy += 1;
      void run(one).finally(() => {
        busy -= 1;
        next();
      });
    }
  };
  const run = ({ job, settle }: Waiting): Promise<void> =>
    new Promise((over) => {
      const kept = idle.pop();
      if (kept !== undefined) clearTimeout(kept.timer);
      const child = kept?.child ?? begin();
      const id = (ids += 1);
      let done = false;
      const finish = (result: Result<never>, reusable: boolean): void => {
        if (done) return;
        done = true;
        clearTimeout(late);
        clearInterval(look);
        child.off("message", hear);
        child.off("exit", gone);
        if (reusable && child.connected) {
          const entry = { child, timer: setTimeout(() => (idle.splice(idle.indexOf(entry), 1), end(child)), idleMs) };
          entry.timer.unref();
          idle.push(entry);
        } else end(child);
        settle(result);
        over();
      };
      const hear = (message: unknown): void => {
        // Our own program of the same build answers.
        const said = message as { id?: number; ready?: boolean; result?: Result<never> };
        if (said.ready === true) allow();
        else if (said.id === id && said.result !== undefined) finish(said.result, true);
      };
      const gone = (): void => finish(refused("file/undecodable"), false);
      // A process that is still starting on a busy machine has not looked at the file: that says nothing about the file.
      let late = setTimeout(() => finish(refused("file/too-many"), false), startMs);
      const allow = (): void => {
        clearTimeout(late);
        late = setTimeout(() => finish(refused("file/too-heavy"), false), deadlineMs[job.do]);
      };
      if (kept !== undefined) allow();
      const look = setInterval(() => {
        void memoryOf(child.pid).then((bytes) => bytes > mostBytes && finish(refused("file/too-heavy"), false));
      }, lookMs);
      child.on("message", hear);
      child.on("exit", gone);
      child.send({ id, job }, (error) => error !== null && gone());
    });

  return decoderOf(
    (job) =>
      new Promise((resolve) => {
        // The result is that of this job: the child does just what it was asked.
        const settle = (result: Result<never>): void => resolve(result as Done[(typeof job)["do"]]);
        if (waiting.length >= mostWaiting) return settle(refused("file/too-many"));
        waiting.push({ job, settle });
        next();
      }),
    () => {
      for (const child of all) end(child);
    },
  );
}

async function memoryOf(pid: number | undefined): Promise<number> {
  try {
    return Number((await readFile(`/proc/${pid}/statm`, "utf8")).split(" ")[1]) * pageBytes;
  } catch {
    return 0;
  }
}
