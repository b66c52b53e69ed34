import { fileURLToPath } from "node:url";
import { migrate } from "./adapters/mariadb/migrate";
import { compose } from "./composition/engine";
import { openGateway } from "./engine/gateway";
import { readEnv } from "./env";

/**
 * The engine process. Ends on SIGTERM, SIGINT, or when what started it is gone. Who started it may also tell it to rest:
 * it lets go of everything then, as if it had ended, and takes all up anew when it is told to open, so that the database
 * can be put back underneath without the second and more that a new process takes.
 */
const env = readEnv();
type House = Readonly<{ close: () => Promise<void> }>;

async function open(): Promise<House> {
  const { engine, store, decoder, pools, log } = compose(env);
  const door = openGateway({ env, engine, store, log, builtDir: fileURLToPath(new URL("./overlay/", import.meta.url)) });
  const house: House = {
    close: async () => {
      await door.close();
      decoder.stop();
      await engine.stop();
      await Promise.all(pools.map((pool) => pool.destroy()));
    },
  };
  try {
    await migrate(pools[2]);
    // A second engine of this installation fails here, before it could take a channel from the first.
    await door.listen();
    await engine.start();
    log.info({ port: env.port }, "engine ready");
    return house;
  } catch (error) {
    log.error({ err: String(error) }, "the engine could not start");
    throw error;
  }
}

let house: House | null = null;
/** One thing after the other: a stop in the middle of an opening waits for it. */
let work: Promise<void> = Promise.resolve();
const then = (what: () => Promise<void>): Promise<void> => (work = work.then(what, what));
const begin = (): Promise<void> =>
  then(async () => {
    house ??= await open();
    process.send?.({ ready: true });
  });
const rest = (): Promise<void> =>
  then(async () => {
    const before = house;
    house = null;
    await before?.close();
    process.send?.({ rests: true });
  });

let stopping = false;
const stop = (): void => {
  if (stopping) return;
  stopping = true;
  // Whatever hangs, a stop is a stop.
  setTimeout(() => process.exit(0), 4_000).unref();
  void then(async () => house?.close()).finally(() => process.exit(0));
};
process.on("SIGTERM", stop);
process.on("SIGINT", stop);
process.on("disconnect", stop);
process.on("message", (message: unknown) => {
  if (message === "rest") void rest();
  if (message === "open") begin().catch(() => process.exit(1));
});
begin().catch(() => process.exit(1));
