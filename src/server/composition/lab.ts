import { availableParallelism } from "node:os";
import { join } from "node:path";
import type { ChannelId } from "../../core/kernel/ids";
import { openDatabase } from "../adapters/mariadb/database";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import { mariadbOperatorStore } from "../adapters/mariadb/operator-store";
import { readChannel } from "../engine/recall";
import { readLedger } from "../engine/runner";
import type { Env } from "../env";
import type { LabJob } from "../lab/job";
import { LabThreads } from "../lab/threads";
import { systemClock } from "../ports/clock";
import { newToken } from "../secrets";
import { logOf } from "./log";

/** What answers the odds lab's questions. */
export function composeLab(env: Env) {
  const log = logOf(env);
  const pool = openDatabase(env.database, 3);
  const { lab } = mariadbOperatorStore(pool);
  const store = mariadbEngineStore(pool);
  const program = join(process.cwd(), ".build/lab-thread.mjs");
  const channel = async ({ channel: id }: Readonly<{ channel: ChannelId }>) => {
    const row = await readChannel(store, id);
    return row === null ? null : { row, ledger: await readLedger(store, row, systemClock.now()) };
  };
  // The show comes first: the engine shares this machine, so the lab leaves it what it can.
  const size = Math.max(1, Math.min(4, availableParallelism()));
  const threads = (job: LabJob): LabThreads => new LabThreads(program, job, size);
  return { deps: { lab, channel, threads, clock: systemClock, log, owner: newToken() }, pool };
}
