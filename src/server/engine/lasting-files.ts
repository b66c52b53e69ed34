import type { IncomingMessage, ServerResponse } from "node:http";
import { LRUCache } from "lru-cache";
import parseRange from "range-parser";
import send from "send";
import { proofFormats, proofJsonSchema } from "../../core/chance/proof";
import { figureFormat, figureJsonSchema } from "../../core/props/figure";
import { studioOpenRpc, studioProtocol } from "../../core/studio/protocol";
import { eventTypes, isEventType, jsonSchemaOf } from "../../core/signals/events";
import { showFormat, showManifestJsonSchema } from "../../core/review/bundle";
import type { EngineStore } from "../ports/engine-store";

/** What an overlay page may do: its own files and the engine, nothing else. */
const overlayPolicy =
  "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; media-src 'self'; font-src 'self'; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'self'";

/** The physics engine is compiled in its worker and nowhere else. */
const workerPolicy =
  "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

export const plain = (res: ServerResponse, status: number, text: string): void => {
  res.writeHead(status, { "content-type": "text/plain; charset=utf-8", "x-content-type-options": "nosniff" }).end(text);
};

/** Larger ones are read when they are asked for. */
const mostKept = 512 * 1024;
const year = 31_536_000_000;

type Found = NonNullable<Awaited<ReturnType<EngineStore["media"]["file"]>>>;
async function whole(file: Found): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of file.read(0, file.size)) parts.push(part);
  return Buffer.concat(parts);
}

/** Of a large file what is asked for, part by part, no faster than it is taken: nobody holds all of it. */
async function piece(req: IncomingMessage, res: ServerResponse, file: Found): Promise<void> {
  const asked = req.headers.range === undefined ? null : parseRange(file.size, req.headers.range);
  const head = {
    "content-type": file.mime,
    "x-content-type-options": "nosniff",
    "content-security-policy": "default-src 'none'; sandbox",
    "cache-control": "public, max-age=31536000, immutable",
    "accept-ranges": "bytes",
  };
  if (asked === -1) return void res.writeHead(416, { ...head, "content-range": `bytes */${file.size}` }).end();
  // Several pieces at once nobody needs: what is not understood is answered with all of it.
  const only = asked === null || asked === -2 || asked.length !== 1 || asked.type !== "bytes" ? undefined : asked[0];
  const from = only?.start ?? 0;
  const to = (only?.end ?? file.size - 1) + 1;
  res.writeHead(only === undefined ? 200 : 206, {
    ...head,
    "content-length": to - from,
    ...(only === undefined ? {} : { "content-range": `bytes ${from}-${to - 1}/${file.size}` }),
  });
  if (req.method === "HEAD") return void res.end();
  let sent = 0;
  for await (const part of file.read(from, to)) {
    if (res.destroyed) return;
    sent += part.length;
    if (!res.write(part)) await new Promise((go) => res.once("drain", go).once("close", go));
  }
  // A part that is missing is a file that breaks off, not one that is shorter.
  if (sent < to - from) return void res.destroy();
  res.end();
}

/** Built files, and props: these are kept in memory, so that overlays can be reloaded while the database is away. */
export function lastingFiles(store: EngineStore, builtDir: string) {
  const file = (req: IncomingMessage, res: ServerResponse, name: string, lasting: boolean): void => {
    send(req, name, {
      root: builtDir,
      index: false,
      dotfiles: "ignore",
      ...(lasting ? { maxAge: year, immutable: true } : { cacheControl: false }),
    })
      .on("headers", (out: ServerResponse) => {
        out.setHeader("x-content-type-options", "nosniff");
        out.setHeader("content-security-policy", name === "physics.js" ? workerPolicy : overlayPolicy);
        out.setHeader("referrer-policy", "no-referrer");
        if (!lasting) out.setHeader("cache-control", "no-cache");
      })
      .on("error", () => (res.headersSent ? res.destroy() : plain(res, 404, "not found")))
      .on("directory", () => plain(res, 404, "not found"))
      .pipe(res);
  };
  const props = new LRUCache<string, { mime: string; bytes: Buffer }>({ max: 600 });
  const picture = (
    res: ServerResponse,
    mime: string,
    bytes: Buffer,
    lasting: boolean,
    extra: Readonly<Record<string, string>> = {},
  ): void => {
    res.writeHead(200, {
      ...extra,
      "content-type": mime,
      "x-content-type-options": "nosniff",
      "content-security-policy": "default-src 'none'; sandbox",
      "cache-control": lasting ? "public, max-age=31536000, immutable" : "public, max-age=3600",
    });
    res.end(bytes);
  };
  const prop = async (req: IncomingMessage, res: ServerResponse, sha: string): Promise<void> => {
    const known = props.get(sha);
    if (known !== undefined) return picture(res, known.mime, known.bytes, true);
    const found = await store.media.file(sha);
    if (found === null) return plain(res, 404, "not found");
    if (found.size > mostKept) return piece(req, res, found);
    const bytes = await whole(found);
    props.set(sha, { mime: found.mime, bytes });
    picture(res, found.mime, bytes, true);
  };
  return { file, picture, prop };
}

/** The published JSON Schema of an event type, of a round’s proof, of a figure, of a show as a file, or their list. */
export function schemas(res: ServerResponse, type: string | null): void {
  const all = [...eventTypes, ...proofFormats, figureFormat, studioProtocol, showFormat];
  const of = (name: string): unknown => {
    if (proofFormats.includes(name)) return proofJsonSchema(name);
    if (name === studioProtocol) return studioOpenRpc();
    if (name === figureFormat) return figureJsonSchema();
    if (name === showFormat) return showManifestJsonSchema();
    return isEventType(name) ? jsonSchemaOf(name) : null;
  };
  const body = type === null ? { schemas: all.map((t) => `/schemas/${t}.json`) } : of(type);
  res.writeHead(body === null ? 404 : 200, {
    "content-type": type === null ? "application/json" : "application/schema+json",
    "x-content-type-options": "nosniff",
    "access-control-allow-origin": "*",
  });
  res.end(JSON.stringify(body ?? { ok: false, why: "no such type" }, null, 2));
}
