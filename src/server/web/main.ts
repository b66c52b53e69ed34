import { createServer } from "node:http";
import { fileURLToPath } from "node:url";
import next from "next";
import { readEnv } from "../env";
import { sameText } from "../secrets";
import { answersAway } from "./away";

/**
 * The web process: Next.js behind the engine's door. It answers only what came through that door (the
 * header proves it), so that no other page on this computer can reach it by its port.
 */
const env = readEnv();
const app = next({ dev: false, dir: fileURLToPath(new URL("..", import.meta.url)), hostname: "127.0.0.1", port: env.webPort });
const handle = app.getRequestHandler();

const server = createServer((req, res) => {
  const key = req.headers["x-izzam-door"];
  if (typeof key !== "string" || !sameText(key, env.internalKey)) {
    res.writeHead(421, { "content-type": "text/plain" }).end("Izzam answers at its public address only.");
    return;
  }
  delete req.headers["x-izzam-door"];
  answersAway(req, res, Date.now);
  void handle(req, res);
});

const stop = (): void => process.exit(0);
process.on("SIGTERM", stop);
process.on("SIGINT", stop);
process.on("disconnect", stop);

try {
  await app.prepare();
  await new Promise<void>((resolve, reject) => server.once("error", reject).listen(env.webPort, "127.0.0.1", resolve));
  process.send?.({ ready: true });
} catch (error) {
  console.error(String(error));
  process.exit(1);
}
