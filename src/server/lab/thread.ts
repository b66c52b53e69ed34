import { parentPort } from "node:worker_threads";
import type { FromWorker, ToWorker } from "./job";
import { LabPlayer } from "./player";

/** A worker thread of the lab: told a job, it plays the parts it is given. */
let player: LabPlayer | null = null;
let broken = "no job was given";
const say = (message: FromWorker): void => parentPort?.postMessage(message);
const whyOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
parentPort?.on("message", (message: ToWorker) => {
  if (message.do === "begin") {
    try {
      player = new LabPlayer(message.job);
    } catch (error) {
      // Told to who asks for the first part: nobody listens yet.
      broken = whyOf(error);
    }
    return;
  }
  try {
    say(player === null ? { is: "failed", why: broken } : { is: "played", part: player.play(message.part) });
  } catch (error) {
    say({ is: "failed", why: whyOf(error) });
  }
});
