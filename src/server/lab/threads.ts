import { Worker } from "node:worker_threads";
import type { FromWorker, LabJob, LabPart, LabPlayed, ToWorker } from "./job";

/** An evening that takes longer than this never ends: its thread is ended instead. */
const longestPartMs = 120_000;
/** A thread that needs more than this has lost count of something. */
const mostMb = 700;

/** Plays parts of one job on several threads at once; ends them with it. */
export class LabThreads {
  private readonly workers: Worker[];
  constructor(
    program: string,
    job: LabJob,
    readonly size: number,
  ) {
    this.workers = Array.from({ length: size }, () => new Worker(program, { resourceLimits: { maxOldGenerationSizeMb: mostMb } }));
    for (const worker of this.workers) {
      // One that dies before it was asked for anything is missed by who asks it, and ends nobody else.
      worker.on("error", () => undefined);
      worker.postMessage({ do: "begin", job } satisfies ToWorker);
    }
  }

  /** One part on one thread. Fails where an evening fails, runs out of memory, or never ends. */
  play(thread: number, part: LabPart): Promise<LabPlayed> {
    const worker = this.workers[thread];
    if (worker === undefined || worker.threadId < 0) return Promise.reject(new Error("a thread of the lab is gone"));
    return new Promise((resolve, reject) => {
      const settle = (then: () => void): void => {
        clearTimeout(timer);
        worker.off("message", onMessage).off("error", onError).off("exit", onExit);
        then();
      };
      const onMessage = (said: FromWorker): void => settle(() => (said.is === "played" ? resolve(said.part) : reject(new Error(said.why))));
      const onError = (error: Error): void => settle(() => reject(error));
      const onExit = (): void => settle(() => reject(new Error("a thread of the lab ended")));
      const timer = setTimeout(() => settle(() => reject(new Error("an evening does not end"))), longestPartMs);
      worker.on("message", onMessage).on("error", onError).on("exit", onExit);
      worker.postMessage({ do: "play", part } satisfies ToWorker);
    });
  }
  async end(): Promise<void> {
    await Promise.all(this.workers.map((w) => w.terminate()));
  }
}
