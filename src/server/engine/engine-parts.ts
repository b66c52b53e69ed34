import type { Logger } from "pino";
import type { Vault } from "../../core/chance/vault";
import type { ChannelId } from "../../core/kernel/ids";
import type { Decoder } from "../decode/decoder";
import type { Bus } from "../ports/bus";
import type { Clock } from "../ports/clock";
import type { EngineStore, EventsRow } from "../ports/engine-store";
import type { Speaker } from "../ports/speech";
import type { ChatMaker } from "./chat-lines";
import type { StudioMaker } from "./studio-lines";

/** What an engine works with. */
export type EngineParts = Readonly<{
  store: EngineStore;
  clock: Clock;
  bus: Bus;
  makeChat: ChatMaker;
  log: Logger;
  owner: string;
  /** Speaks texts; nobody does when left out. */
  speaker?: Speaker;
  /** Connects to studios; nobody does when left out. */
  makeStudio?: StudioMaker;
  /** Opens pictures from outside; in tests this very process does. */
  decoder: Decoder;
  /** The secrets with which a channel's events may be signed now. */
  eventSecrets?: (row: EventsRow, nowMs: number) => readonly string[];
  /** Seals the secrets of a channel's rounds. */
  vaultOf?: (channel: ChannelId) => Vault;
}>;
