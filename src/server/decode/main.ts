import { refused } from "../../core/kernel/refusal";
import { type Job, work } from "./jobs";

/**
 * The process that opens files from outside. It has no keys, no database and no network of its own, does
 * one thing at a time, and is ended by whoever started it when that takes too long.
 */
process.on("message", (message: Readonly<{ id: number; job: Job }>) => {
  work(message.job).then(
    (result) => process.send?.({ id: message.id, result }),
    () => process.send?.({ id: message.id, result: refused("file/undecodable") }),
  );
});
process.on("disconnect", () => process.exit(0));
process.send?.({ ready: true });
