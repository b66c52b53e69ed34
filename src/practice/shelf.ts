import { createReadStream, readdirSync, statSync } from "node:fs";
import type { IncomingMessage, ServerResponse } from "node:http";
import { join } from "node:path";

/** What each film of the shelf is, for who picks one; those that only the rig itself makes stand last. */
const tells: Readonly<Record<string, string>> = {
  "sail.webm": "a boat sails by, 24 s",
  "kettle.mp4": "a kettle comes to the boil, 15 s",
  "throwing.webm": "a pot grows under two hands, 20 s",
  "tide.webm": "the tide, 10 s, silent",
  "lightning.mp4": "flashes six times a second",
  "night.mp4": "black all through",
  "voyage.mp4": "half an hour long",
  "torn.mp4": "breaks off",
  "page.mp4": "is a page",
};
const made: Readonly<Record<string, string>> = {
  endless: "streams for ever",
  inwards: "points to another place inside",
  huge: "says it has ten gigabytes",
  slow: "never answers",
};
const types: Readonly<Record<string, string>> = { webm: "video/webm", mp4: "video/mp4" };

/** A small shelf of made-up films at addresses of their own: good ones, and some that nobody would want. */
export function shelfOf(folder: string) {
  const files = readdirSync(folder).filter((name) => Object.hasOwn(tells, name));
  const list = [...Object.keys(tells).filter((name) => files.includes(name)), ...Object.keys(made)].map((name) => ({
    name,
    tells: Object.hasOwn(tells, name) ? (tells[name] ?? "") : (made[name] ?? ""),
  }));
  const serve = (req: IncomingMessage, res: ServerResponse, name: string): void => {
    if (files.includes(name)) {
      const path = join(folder, name);
      const type = types[name.slice(name.lastIndexOf(".") + 1)] ?? "application/octet-stream";
      res.writeHead(200, { "content-type": type, "content-length": statSync(path).size, "x-content-type-options": "nosniff" });
      if (req.method === "HEAD") return void res.end();
      createReadStream(path).pipe(res);
      return;
    }
    switch (name) {
      case "endless": {
        res.writeHead(200, { "content-type": "video/webm" });
        const more = (): void => {
          if (res.destroyed) return;
          if (res.write(Buffer.alloc(256 * 1024))) setImmediate(more);
          else res.once("drain", more);
        };
        return more();
      }
      case "inwards":
        return void res.writeHead(302, { location: "http://127.0.0.1:1/door" }).end();
      case "huge":
        res.writeHead(200, { "content-type": "video/mp4", "content-length": "10000000000" });
        return void res.write("x");
      case "slow":
        return;
      default:
        res.writeHead(404, { "content-type": "text/plain" }).end("no such film");
    }
  };
  return { list, serve };
}
