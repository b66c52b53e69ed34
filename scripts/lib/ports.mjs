import { createServer } from "node:net";

export const isFree = (port, host = "127.0.0.1") =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once("error", () => resolve(false));
    probe.listen(port, host, () => probe.close(() => resolve(true)));
  });

/** The first free port from the wished one on; with 0, any. */
export async function freePort(wished = 0, host = "127.0.0.1") {
  if (wished > 0) {
    for (let port = wished; port < wished + 50; port += 1) if (await isFree(port, host)) return port;
  }
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once("error", reject);
    probe.listen(0, host, () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });
}
