// The options of ./start. All are checked before anything is set up; a wrong one is refused in words.
import { isIP } from "node:net";
import { resolve } from "node:path";
import { parseArgs } from "node:util";
import { isBlocked } from "./ports.mjs";
import { Trouble } from "./say.mjs";

const usual = 4470;
export const help = `./start            starts Izzam with the demo channel and the practice rig
  --empty          without demo data: leads through creating the owner and the channel
  --lan            reachable from the local network too, not from this computer only
  --port N         the port to use, and no other; without it ${usual}, or the next one that is free
  --no-practice    without the practice rig
  --public-url URL where the world reaches it, behind a proxy that adds HTTPS: https://izzam.example
  --trust LIST     addresses or networks of such proxies, with commas between: 127.0.0.1,10.0.0.0/24
  --data FOLDER    where database, keys and logs live (usually .data)`;

/** `10.0.0.7`, `10.0.0.0/24`, `fd00::/8`. */
function isNetwork(text) {
  const [address = "", bits, ...more] = text.split("/");
  const kind = isIP(address);
  if (kind === 0 || more.length > 0) return false;
  return bits === undefined || (/^\d{1,3}$/.test(bits) && Number(bits) <= (kind === 4 ? 32 : 128));
}

/**
 * Parses the command line. A relative `--data` is resolved against `root`. Throws a `Trouble` that says what is wrong; null when
 * only help was asked for.
 */
export function readOptions(words, root) {
  let given;
  try {
    given = parseArgs({
      args: words,
      options: {
        empty: { type: "boolean" },
        lan: { type: "boolean" },
        port: { type: "string" },
        "no-practice": { type: "boolean" },
        data: { type: "string" },
        "public-url": { type: "string" },
        trust: { type: "string" },
        help: { type: "boolean", short: "h" },
      },
    }).values;
  } catch (error) {
    throw new Trouble(`${error.message}\n\n${help}`);
  }
  if (given.help) return null;
  const port = given.port === undefined ? usual : Number(given.port);
  if (given.port !== undefined && (!/^\d+$/.test(given.port) || port < 1 || port > 65_535))
    throw new Trouble(`${given.port} is not a port: a port is a whole number from 1 to 65535.`);
  if (given.port !== undefined && isBlocked(port))
    throw new Trouble(`Browsers go to no page on port ${port}. Choose another with --port, or leave it out.`);
  const publicUrl = given["public-url"] ?? "";
  if (given["public-url"] !== undefined && !/^https?:\/\/[^/\s]+\/?$/.test(publicUrl))
    throw new Trouble(`${publicUrl} is no public address: write it with its scheme and without a path, like https://izzam.example.`);
  const trusted = (given.trust ?? "").split(",").map((one) => one.trim());
  for (const one of given.trust === undefined ? [] : trusted)
    if (!isNetwork(one))
      throw new Trouble(
        `--trust ${given.trust}: “${one}” is neither an IP address nor a network. Write 10.0.0.7 or 10.0.0.0/24, with commas between several.`,
      );
  if (given.data === "") throw new Trouble("--data needs the name of a folder.");
  return {
    folder: resolve(root, given.data ?? ".data"),
    demo: given.empty !== true,
    lan: given.lan === true,
    port,
    isNamed: given.port !== undefined,
    hasPractice: given["no-practice"] !== true,
    publicUrl,
    trusted: given.trust === undefined ? "" : trusted.join(","),
  };
}
