import type { Vault } from "../../core/chance/vault";
import { logOf } from "./log";
import { inProcessBus } from "../adapters/bus/in-process";
import { ircChat } from "../adapters/irc/connection";
import { speaker } from "../adapters/speech/programs";
import { webFingerProfiles } from "../adapters/webfinger/profiles";
import { chatSettingsSchema } from "../adapters/irc/settings";
import { rpcStudio } from "../adapters/studio/json-rpc";
import { studioConnectionSchema, studioOfRig } from "../adapters/studio/settings";
import { openDatabase } from "../adapters/mariadb/database";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import { childDecoder, decoderProgram } from "../decode/decoder";
import type { ChatMaker } from "../engine/chat-lines";
import type { StudioMaker } from "../engine/studio-lines";
import { Engine } from "../engine/engine";
import { sealedVault } from "../engine/vault";
import type { Env } from "../env";
import type { EventsRow } from "../ports/engine-store";
import { systemClock } from "../ports/clock";
import { newToken, unseal } from "../secrets";

/** What the engine works with. The files of this folder are the only ones that choose adapters, each for one process: none loads another’s. */
export function compose(env: Env) {
  const log = logOf(env);
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
