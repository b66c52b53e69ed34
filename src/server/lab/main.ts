import { setPriority } from "node:os";
import { composeLab } from "../composition";
import { readEnv } from "../env";
import { LabWorker } from "./worker";

/** The process of the odds lab. Ends on SIGTERM, SIGINT, or when what started it is gone. */
// The show comes first: whatever else runs here goes before a question.
setPriority(10);
const { deps, pool } = composeLab(readEnv());
const worker = new LabWorker(deps);

let stopping = false;
const stop = async (): Promise<void> => {
  if (stopping) return;
  stopping = true;
  // Whatever hangs, a stop is a stop.
  setTimeout(() => process.exit(0), 3_000).unref();
  await worker.stop();
  await pool.destroy();
  process.exit(0);
};
process.on("SIGTERM", () => void stop());
process.on("SIGINT", () => void stop());
process.on("disconnect", () => void stop());

worker.start();
process.send?.({ ready: true });
