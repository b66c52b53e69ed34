import type { ServerResponse } from "node:http";
import { readFile } from "node:fs/promises";
import { extname, join, normalize } from "node:path";
import { eventTypes, isEventType, jsonSchemaOf } from "../../core/signals/events";
import type { EngineStore } from "../ports/engine-store";

const types: Readonly<Record<string, string>> = {
  ".js": "text/javascript; charset=utf-8",
  ".css": "text/css; charset=utf-8",
  ".html": "text/html; charset=utf-8",
  ".woff2": "font/woff2",
  ".map": "application/json",
};

/** What an overlay page may do: its own files and the engine, nothing else. */
const overlayPolicy =
  "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self'; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'self'";

export const plain = (res: ServerResponse, status: number, text: string): void => {
  res.writeHead(status, { "content-type": "text/plain; charset=utf-8", "x-content-type-options": "nosniff" }).end(text);
};

/** Built files and props; what lasts is kept in memory, so that overlays can be reloaded while the database is away. */
export function lastingFiles(store: EngineStore, builtDir: string) {
  const fonts = new Map<string, { body: Buffer; type: string }>();
  const file = async (res: ServerResponse, name: string, lasting: boolean): Promise<void> => {
    const path = normalize(name).replace(/^(\.\.[/\\])+/, "");
    try {
      let known = fonts.get(path);
      if (known === undefined) {
        known = { body: await readFile(join(builtDir, path)), type: types[extname(path)] ?? "application/octet-stream" };
        if (lasting) fonts.set(path, known);
      }
      res.writeHead(200, {
        "content-type": known.type,
        "x-content-type-options": "nosniff",
        "cache-control": lasting ? "public, max-age=31536000, immutable" : "no-cache",
        "content-security-policy": overlayPolicy,
        "referrer-policy": "no-referrer",
      });
      res.end(known.body);
    } catch {
      plain(res, 404, "not found");
    }
  };
  const props = new Map<string, { mime: string; bytes: Buffer }>();
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
  const prop = async (res: ServerResponse, sha: string): Promise<void> => {
    let known = props.get(sha);
    if (known === undefined) {
      const found = await store.prop(sha);
      if (found === null) return plain(res, 404, "not found");
      if (props.size > 600) props.delete(props.keys().next().value ?? "");
      props.set(sha, (known = found));
    }
    picture(res, known.mime, known.bytes, true);
  };
  return { file, picture, prop };
}

/** The published JSON Schema of an event type, or their list. */
export function schemas(res: ServerResponse, type: string | null): void {
  const body = type === null ? { schemas: eventTypes.map((t) => `/schemas/${t}.json`) } : isEventType(type) ? jsonSchemaOf(type) : null;
  res.writeHead(body === null ? 404 : 200, {
    "content-type": type === null ? "application/json" : "application/schema+json",
    "x-content-type-options": "nosniff",
    "access-control-allow-origin": "*",
  });
  res.end(JSON.stringify(body ?? { ok: false, why: "no such type" }, null, 2));
}
