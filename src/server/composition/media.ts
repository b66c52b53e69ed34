import { httpEngineLink } from "../adapters/engine-link/http";
import { openDatabase } from "../adapters/mariadb/database";
import { mariadbOperatorStore } from "../adapters/mariadb/operator-store";
import type { Env } from "../env";
import { systemClock } from "../ports/clock";
import { newToken } from "../secrets";
import { logOf } from "./log";

/** What makes moving pictures. */
export function composeMedia(env: Env) {
  const log = logOf(env);
  const pool = openDatabase(env.database, 3);
  const { media, props } = mariadbOperatorStore(pool);
  const inside = env.practiceUrl === "" ? [] : [new URL(env.practiceUrl).origin];
  const engine = httpEngineLink(env.port, env.internalKey);
  return { deps: { media, props, engine, clock: systemClock, log, owner: newToken(), inside }, pool };
}
