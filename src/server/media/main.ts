import { composeMedia } from "../composition";
import { readEnv } from "../env";
import { MediaWorker } from "./worker";

/** The process that makes moving pictures. Ends on SIGTERM, SIGINT, or when what started it is gone. */
const { deps, pool } = composeMedia(readEnv());
const worker = new MediaWorker(deps);

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
