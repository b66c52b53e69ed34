import { parentPort } from "node:worker_threads";
import type { FromWorker, ToWorker } from "./job";
import { LabPlayer } from "./player";

/** A worker thread of the lab: told a job, it plays the parts it is given. */
let player: LabPlayer | null = null;
const say = (message: FromWorker): void => parentPort?.postMessage(message);
parentPort?.on("message", (message: ToWorker) => {
  try {
    if (message.do === "begin") player = new LabPlayer(message.job);
    else if (player !== null) say({ is: "played", part: player.play(message.part) });
  } catch (error) {
    say({ is: "failed", why: error instanceof Error ? error.message : String(error) });
  }
});
