import { z } from "zod";

/** The only file that reads the environment. `./start` and `./test` set all of it. */
const schema = z.object({
  IZZAM_HOST: z.string().default("127.0.0.1"),
  IZZAM_PORT: z.coerce.number().int().default(4470),
  IZZAM_WEB_PORT: z.coerce.number().int().default(4471),
  IZZAM_DB_PORT: z.coerce.number().int(),
  IZZAM_DB_HOST: z.string().default("127.0.0.1"),
  IZZAM_DB_USER: z.string().default("izzam"),
  IZZAM_DB_PASSWORD: z.string(),
  IZZAM_DB_NAME: z.string().default("izzam"),
  /** 32 bytes in hex: encrypts what must be read again (overlay links, chat passwords). */
  IZZAM_APP_KEY: z.string().regex(/^[0-9a-f]{64}$/),
  /** Shared by web and engine for their talk on loopback; new at every start. */
  IZZAM_INTERNAL_KEY: z.string().min(32),
  IZZAM_DEMO: z.enum(["0", "1"]).default("0"),
  IZZAM_PRACTICE_URL: z.string().default(""),
  IZZAM_PRACTICE_IRC_PORT: z.string().default(""),
  IZZAM_PRACTICE_SECRET: z.string().default(""),
  IZZAM_PRACTICE_TRIGGERS: z.string().default(""),
  IZZAM_SETUP_CODE: z.string().default(""),
  IZZAM_LAN: z.enum(["0", "1"]).default("0"),
  /** Where the world reaches Izzam, when a proxy stands before it: https://izzam.example */
  IZZAM_PUBLIC_URL: z
    .string()
    .refine((u) => u === "" || /^https?:\/\/[^/]+\/?$/.test(u), "an address without a path, like https://izzam.example")
    .default(""),
  /** Addresses or networks (CIDR), by commas, of proxies whose word on who asks is believed. */
  IZZAM_TRUSTED_PROXIES: z.string().default(""),
  IZZAM_LOG: z.string().default("info"),
});

export type Env = Readonly<{
  host: string;
  port: number;
  webPort: number;
  lan: boolean;
  publicUrl: URL | null;
  trustedProxies: readonly string[];
  database: Readonly<{ host: string; port: number; user: string; password: string; name: string }>;
  appKey: Buffer;
  internalKey: string;
  demo: boolean;
  practiceUrl: string;
  practiceIrcPort: number;
  /** What the practice rig signs its events with, and the tokens of the trigger addresses its pad calls, by cue. */
  practiceSecret: string;
  practiceTriggers: Readonly<Record<string, string>>;
  setupCode: string;
  logLevel: string;
}>;

export function readEnv(from: Readonly<Record<string, string | undefined>> = process.env): Env {
  const e = schema.parse(from);
  return {
    host: e.IZZAM_HOST,
    port: e.IZZAM_PORT,
    webPort: e.IZZAM_WEB_PORT,
    lan: e.IZZAM_LAN === "1",
    publicUrl: e.IZZAM_PUBLIC_URL === "" ? null : new URL(e.IZZAM_PUBLIC_URL),
    trustedProxies: e.IZZAM_TRUSTED_PROXIES.split(",")
      .map((a) => a.trim())
      .filter((a) => a !== ""),
    database: { host: e.IZZAM_DB_HOST, port: e.IZZAM_DB_PORT, user: e.IZZAM_DB_USER, password: e.IZZAM_DB_PASSWORD, name: e.IZZAM_DB_NAME },
    appKey: Buffer.from(e.IZZAM_APP_KEY, "hex"),
    internalKey: e.IZZAM_INTERNAL_KEY,
    demo: e.IZZAM_DEMO === "1",
    practiceUrl: e.IZZAM_PRACTICE_URL,
    practiceIrcPort: Number(e.IZZAM_PRACTICE_IRC_PORT) || 6667,
    practiceSecret: e.IZZAM_PRACTICE_SECRET,
    practiceTriggers: Object.fromEntries(
      e.IZZAM_PRACTICE_TRIGGERS.split(",")
        .map((pair) => pair.split("="))
        .filter((pair): pair is [string, string] => pair.length === 2),
    ),
    setupCode: e.IZZAM_SETUP_CODE,
    logLevel: e.IZZAM_LOG,
  };
}
