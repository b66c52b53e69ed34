import { setUp } from "../web/accounts";
import { hashToken } from "../secrets";
import { pino } from "pino";
import { ok, refused } from "../../core/kernel/refusal";
import { isAway } from "../adapters/mariadb/database";
import { mariadbOperatorStore } from "../adapters/mariadb/operator-store";
import type { WebServices } from "../composition/web";
import { inProcessDecoder } from "./decoder";
import { readEnv } from "../env";
import { testDatabase } from "./database";

/** When it is in these tests, UTC milliseconds. */
export const nowMs = 1_800_000_000_000;
/** What ./start would have printed. */
export const setupCode = "246810";

/** The web side on a database of its own, with an engine that does as it is told and says nothing. */
export async function testWeb(
  name: string,
): Promise<Readonly<{ web: WebServices; end: () => Promise<void> }> & Pick<Awaited<ReturnType<typeof testDatabase>>, "db">> {
  const { db, end } = await testDatabase(name);
  let ticks = 0;
  const env = readEnv({
    IZZAM_DB_PORT: "1",
    IZZAM_DB_PASSWORD: "x",
    IZZAM_APP_KEY: "ab".repeat(32),
    IZZAM_INTERNAL_KEY: "k".repeat(40),
    IZZAM_SETUP_CODE: setupCode,
  });
  const web: WebServices = {
    env,
    isAway,
    log: pino({ level: "silent" }),
    // Every look at the clock is a little later than the one before, as it is in life.
    clock: { now: () => nowMs + (ticks += 1) },
    store: mariadbOperatorStore(db),
    decoder: inProcessDecoder,
    engine: {
      hear: async () => refused("engine/away"),
      reload: async () => undefined,
      media: async () => undefined,
      refresh: async () => undefined,
      changed: async () => undefined,
      forget: async () => ok(null),
      leave: async () => ok(null),
      renew: async () => ok(null),
      command: async () => ok([]),
      cue: async () => ok([]),
      held: async () => ok(null),
      say: async () => ok(null),
      recheck: async () => undefined,
      queue: async () => ok(null),
      voice: async () => ok(null),
      tone: async () => refused("engine/away"),
      shop: async () => refused("channel/unknown"),
      code: async () => refused("channel/unknown"),
      purchase: async () => refused("channel/unknown"),
      act: () => Promise.resolve(refused("engine/away")),
      rehearse: async () => refused("engine/away"),
      rehearsal: {
        known: async () => refused("rehearsal/unknown"),
        report: async () => refused("rehearsal/unknown"),
        marks: async () => refused("rehearsal/unknown"),
        fight: async () => refused("rehearsal/unknown"),
        steer: async () => refused("rehearsal/unknown"),
        give: async () => refused("rehearsal/unknown"),
      },
      refusedEvents: async () => ok([]),
    },
  };
  return { web, db, end };
}

/** The same with its owner and channel made, and the owner signed in. */
export async function openedWeb(name: string) {
  const made = await testWeb(name);
  const opened = await setUp(
    made.web,
    { code: setupCode, login: "Kiln Keeper", password: "a long password", channel: "Saltmarsh Kiln" },
    "1.1.1.1",
  );
  if (!opened.ok) throw new Error(opened.refusal.code);
  const owner = await made.web.store.accounts.session(hashToken(opened.value.token), nowMs);
  if (owner === null) throw new Error("the owner is not signed in");
  return { ...made, owner };
}
