import { fileURLToPath } from "node:url";
import { migrate } from "./adapters/mariadb/migrate";
import { compose } from "./composition/engine";
import { openGateway } from "./engine/gateway";
import { readEnv } from "./env";

/** The engine process. Ends on SIGTERM, SIGINT, or when what started it is gone. */
const env = readEnv();
const { engine, store, decoder, pools, log } = compose(env);
const door = openGateway({ env, engine, store, log, builtDir: fileURLToPath(new URL("./overlay/", import.meta.url)) });

let stopping = false;
const stop = async (): Promise<void> => {
  if (stopping) return;
  stopping = true;
  // Whatever hangs, a stop is a stop.
  setTimeout(() => process.exit(0), 4_000).unref();
  await door.close();
  decoder.stop();
  await engine.stop();
  await Promise.all(pools.map((pool) => pool.destroy()));
  process.exit(0);
};
process.on("SIGTERM", () => void stop());
process.on("SIGINT", () => void stop());
process.on("disconnect", () => void stop());

try {
  await migrate(pools[2]);
  // A second engine of this installation fails here, before it could take a channel from the first.
  await door.listen();
  await engine.start();
  log.info({ port: env.port }, "engine ready");
  process.send?.({ ready: true });
} catch (error) {
  log.error({ err: String(error) }, "the engine could not start");
  process.exit(1);
}
