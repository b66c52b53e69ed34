import { createServer } from "node:net";

/** Browsers go to none of these, whoever listens there (the Fetch standard, "bad port"); those below 1024 are not ours anyway. */
const blocked = new Set([
  1719, 1720, 1723, 2049, 3659, 4045, 4190, 5060, 5061, 6000, 6566, 6665, 6666, 6667, 6668, 6669, 6679, 6697, 10080,
]);
export const isBlocked = (port) => blocked.has(port);

export const isFree = (port, host = "127.0.0.1") =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once("error", () => resolve(false));
    probe.listen(port, host, () => probe.close(() => resolve(true)));
  });

/** The first free port from the wished one on; with 0, any. */
export async function freePort(wished = 0, host = "127.0.0.1") {
  if (wished > 0) {
    for (let port = wished; port < wished + 50; port += 1) if (!isBlocked(port) && (await isFree(port, host))) return port;
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
