import { availableParallelism } from "node:os";
import { join } from "node:path";
import type { ChannelId } from "../core/kernel/ids";
import type { Vault } from "../core/chance/vault";
import { pino } from "pino";
import { inProcessBus } from "./adapters/bus/in-process";
import { ircChat } from "./adapters/irc/connection";
import { speaker } from "./adapters/speech/programs";
import { webFingerProfiles } from "./adapters/webfinger/profiles";
import { chatSettingsSchema } from "./adapters/irc/settings";
import { rpcStudio } from "./adapters/studio/json-rpc";
import { studioConnectionSchema, studioOfRig } from "./adapters/studio/settings";
import { httpEngineLink } from "./adapters/engine-link/http";
import { isAway, openDatabase } from "./adapters/mariadb/database";
import { mariadbEngineStore } from "./adapters/mariadb/engine-store";
import { childDecoder } from "./decode/decoder";
import { mariadbOperatorStore } from "./adapters/mariadb/operator-store";
import type { ChatMaker } from "./engine/chat-lines";
import type { StudioMaker } from "./engine/studio-lines";
import { Engine } from "./engine/engine";
import { readChannel } from "./engine/recall";
import { readLedger } from "./engine/runner";
import type { LabJob } from "./lab/job";
import { LabThreads } from "./lab/threads";
import { sealedVault } from "./engine/vault";
import type { Env } from "./env";
import type { EventsRow } from "./ports/engine-store";
import { systemClock } from "./ports/clock";
import { newToken, unseal } from "./secrets";

/** Built beside the processes that start it; all of them run in the folder of the installation. */
const decoderProgram = join(process.cwd(), ".build/decoder.mjs");

/** The only file that chooses adapters. */
export function compose(env: Env) {
  const log = pino({ level: env.logLevel, base: undefined, timestamp: pino.stdTimeFunctions.isoTime });
  const db = openDatabase(env.database);
  // One connection that holds this process's lock for as long as the process lives.
  const living = openDatabase(env.database, 1);
  const patient = openDatabase(env.database, 2, true);
  const store = mariadbEngineStore(db, { alive: async (lock) => void (await living.raw("select get_lock(?, 0)", [lock])), patient });
  const makeChat: ChatMaker = (row, events) => {
    const settings = chatSettingsSchema.safeParse(row.settings);
    if (!settings.success) return null;
    const password = row.secret === null ? "" : unseal(env.appKey, "chat-password", row.secret);
    const { emotePictures, profiles: host, practice } = settings.data;
    const profiles = host === "" ? null : webFingerProfiles({ origin: `${practice ? "http" : "https"}://${host}`, practice });
    return { chat: ircChat(settings.data, password, events), emotePictures, profiles };
  };
  const makeStudio: StudioMaker = (row, onStanding) => {
    const settings = studioConnectionSchema.safeParse(row.settings);
    if (!settings.success) return null;
    const secret = row.secret === null ? "" : unseal(env.appKey, "studio-secret", row.secret);
    const { address, practice } = settings.data;
    // The rig chooses free ports at every start.
    const at = practice && env.practiceUrl !== "" ? studioOfRig(env.practiceUrl) : address;
    return rpcStudio({ address: at, secret }, onStanding);
  };
  // Random for each process: two that were set up alike are still two. One that was killed has lost its lock,
  // so the next takes the channels over at once.
  const owner = newToken();
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
  const vaultOf = (channel: string): Vault => sealedVault(env.appKey, channel);
  const decoder = childDecoder(decoderProgram);
  const engine = new Engine({
    decoder,
    speaker: speaker(),
    store,
    clock: systemClock,
    bus: inProcessBus(),
    makeChat,
    makeStudio,
    log,
    owner,
    eventSecrets,
    vaultOf,
  });
  return { engine, store, decoder, pools: [db, living, patient] as const, log };
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
    decoder: childDecoder(decoderProgram),
  };
}
/** What makes moving pictures. */
export function composeMedia(env: Env) {
  const log = pino({ level: env.logLevel, base: undefined, timestamp: pino.stdTimeFunctions.isoTime });
  const pool = openDatabase(env.database, 3);
  const { media, props } = mariadbOperatorStore(pool);
  const inside = env.practiceUrl === "" ? [] : [new URL(env.practiceUrl).origin];
  const engine = httpEngineLink(env.port, env.internalKey);
  return { deps: { media, props, engine, clock: systemClock, log, owner: newToken(), inside }, pool };
}

/** What answers the odds lab's questions. */
export function composeLab(env: Env) {
  const log = pino({ level: env.logLevel, base: undefined, timestamp: pino.stdTimeFunctions.isoTime });
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

export type WebServices = ReturnType<typeof composeWeb>;

/** What a connection's settings may be; the web process checks them before they are kept. */
export { chatSettingsSchema, type ChatSettings } from "./adapters/irc/settings";
export { studioConnectionSchema, studioOfRig, type StudioConnection } from "./adapters/studio/settings";
