import { httpEngineLink } from "../adapters/engine-link/http";
import { isAway, openDatabase } from "../adapters/mariadb/database";
import { mariadbOperatorStore } from "../adapters/mariadb/operator-store";
import { childDecoder, decoderProgram } from "../decode/decoder";
import type { Env } from "../env";
import { inWords } from "../web/away";
import { systemClock } from "../ports/clock";
import { logOf } from "./log";

/** What the web process works with. */
export function composeWeb(env: Env) {
  const log = logOf(env);
  return {
    env,
    log,
    clock: systemClock,
    isAway,
    store: inWords(mariadbOperatorStore(openDatabase(env.database)), isAway, Date.now),
    engine: httpEngineLink(env.port, env.internalKey),
    decoder: childDecoder(decoderProgram),
  };
}
export type WebServices = ReturnType<typeof composeWeb>;

/** What a connection's settings may be; the web process checks them before they are kept. */
export { chatSettingsSchema, type ChatSettings } from "../adapters/irc/settings";
export { studioConnectionSchema, studioOfRig, type StudioConnection } from "../adapters/studio/settings";
