import { pino, type Logger } from "pino";
import type { Env } from "../env";

/** The log of a process: one line of JSON each, by UTC. */
export const logOf = (env: Env): Logger => pino({ level: env.logLevel, base: undefined, timestamp: pino.stdTimeFunctions.isoTime });
