import { pino } from "pino";
import { inProcessBus } from "./adapters/bus/in-process";
import { ircChat } from "./adapters/irc/connection";
import { chatSettingsSchema } from "./adapters/irc/settings";
import { httpEngineLink } from "./adapters/engine-link/http";
import { isAway, openDatabase } from "./adapters/mariadb/database";
import { mariadbEngineStore } from "./adapters/mariadb/engine-store";
import { mariadbOperatorStore } from "./adapters/mariadb/operator-store";
import { type ChatMaker, Engine } from "./engine/engine";
import type { Env } from "./env";
import type { EventsRow } from "./ports/engine-store";
import { systemClock } from "./ports/clock";
import { hashToken, unseal } from "./secrets";

/** The only file that chooses adapters. */
export function compose(env: Env) {
  const log = pino({ level: env.logLevel, base: undefined, timestamp: pino.stdTimeFunctions.isoTime });
  const db = openDatabase(env.database);
  const store = mariadbEngineStore(db);
  const makeChat: ChatMaker = (row, events) => {
    const settings = chatSettingsSchema.safeParse(row.settings);
    if (!settings.success) return null;
    const password = row.secret === null ? "" : unseal(env.appKey, "chat-password", row.secret);
    return { chat: ircChat(settings.data, password, events), emotePictures: settings.data.emotePictures };
  };
  // The same for every start of one installation: after a kill it takes its own lease back at once.
  const owner = hashToken(`engine:${env.appKey.toString("hex")}:${env.port}`).slice(0, 32);
  const opened = new Map<string, string>();
  const open = (sealed: string): string => {
    let secret = opened.get(sealed);
    if (secret === undefined) {
      if (opened.size > 100) opened.clear();
      opened.set(sealed, (secret = unseal(env.appKey, "event-secret", sealed)));
    }
    return secret;
  };
  const eventSecrets = (row: EventsRow, nowMs: number): readonly string[] => [
    open(row.secret),
    ...(row.oldSecret !== null && nowMs < row.oldUntilMs ? [open(row.oldSecret)] : []),
  ];
  const engine = new Engine({ store, clock: systemClock, bus: inProcessBus(), makeChat, log, owner, eventSecrets });
  return { engine, store, db, log };
}

/** What the web process works with. */
export function composeWeb(env: Env) {
  const log = pino({ level: env.logLevel, base: undefined, timestamp: pino.stdTimeFunctions.isoTime });
  return {
    env,
    log,
    clock: systemClock,
    isAway,
    store: mariadbOperatorStore(openDatabase(env.database)),
    engine: httpEngineLink(env.port, env.internalKey),
  };
}
export type WebServices = ReturnType<typeof composeWeb>;

/** What a connection's settings may be; the web process checks them before they are kept. */
export { chatSettingsSchema, type ChatSettings } from "./adapters/irc/settings";
