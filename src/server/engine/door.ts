import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import { readFile } from "node:fs/promises";
import { extname, join, normalize } from "node:path";
import type { Duplex } from "node:stream";
import { createProxyServer } from "http-proxy-3";
import type { Logger } from "pino";
import { type WebSocket, WebSocketServer } from "ws";
import { z } from "zod";
import { channelId } from "../../core/kernel/ids";
import type { Refusal } from "../../core/kernel/refusal";
import { parseJson } from "../../core/kernel/text";
import { eventTypes, isEventType, jsonSchemaOf } from "../../core/signals/events";
import { fromPageSchema, type ToOperator, wireVersion } from "../../core/wire/messages";
import type { Env } from "../env";
import type { EngineStore } from "../ports/engine-store";
import { hashToken, sameText } from "../secrets";
import { readBody } from "./body";
import type { Engine } from "./engine";
import { inside } from "./inside";
import { askers, fromHere } from "./origin";
import { seats } from "./seats";
import { rememberedSessions } from "./sessions";

const types: Readonly<Record<string, string>> = {
  ".js": "text/javascript; charset=utf-8",
  ".css": "text/css; charset=utf-8",
  ".html": "text/html; charset=utf-8",
  ".woff2": "font/woff2",
  ".map": "application/json",
};
const isWellFormedPath = (path: string): boolean => {
  try {
    decodeURIComponent(path);
    return true;
  } catch {
    return false;
  }
};
/** With the time, for operators; overlays pass over what they don't know. */
const beatText = (nowMs: number): string => JSON.stringify({ v: wireVersion, type: "beat", nowMs } satisfies ToOperator);
/** A phone that was paired carries a cookie of its own. */
const sessionCookies = [/(?:^|;\s*)izzam_session=([A-Za-z0-9_-]{20,64})/, /(?:^|;\s*)izzam_remote=([A-Za-z0-9_-]{20,64})/];

const viewerCookie = /(?:^|;\s*)izzam_viewer=([A-Za-z0-9_-]{20,64})/;

/** Names this server answers to. A page of another site that points its own name at us is none of them. */
const ownNames = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/i;
const localNames = /^(localhost|(\d{1,3}\.){3}\d{1,3}|\[[0-9a-f:]+\]|[a-z0-9-]+(\.(local|lan|home|internal|home\.arpa))?)(:\d+)?$/i;

/** What an overlay page may do: its own files and the engine, nothing else. */
const overlayPolicy =
  "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self'; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'self'";

/**
 * The one public address. WebSockets, overlay pages and props are the engine's own; everything else is
 * passed on to the web process.
 */
export function openDoor({
  env,
  engine,
  store,
  log,
  builtDir,
}: Readonly<{ env: Env; engine: Engine; store: EngineStore; log: Logger; builtDir: string }>) {
  const proxy = createProxyServer({
    target: { host: "127.0.0.1", port: env.webPort },
    xfwd: false,
    proxyTimeout: 120_000,
    headers: { "x-izzam-door": env.internalKey },
  });
  proxy.on("error", (_error, _req, res) => {
    if (!("writeHead" in res) || res.headersSent) return;
    res.writeHead(503, { "content-type": "text/html; charset=utf-8", "retry-after": "2" });
    res.end(
      "<!doctype html><meta http-equiv=refresh content=2><title>Izzam is starting</title><p>Izzam is starting. This page tries again by itself.</p>",
    );
  });
  const askerOf = askers(env.trustedProxies);
  const ours = (req: IncomingMessage): boolean => fromHere(req.headers.origin, req.headers.host, env.publicUrl);
  const sessions = rememberedSessions(store);
  engine.onRecheck = () => sessions.recheck();
  const fonts = new Map<string, { body: Buffer; type: string }>();

  const plain = (res: ServerResponse, status: number, text: string): void => {
    res.writeHead(status, { "content-type": "text/plain; charset=utf-8", "x-content-type-options": "nosniff" }).end(text);
  };
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
      // Kept in memory, so that overlays can be reloaded while the database is away.
      if (props.size > 600) props.delete(props.keys().next().value ?? "");
      props.set(sha, (known = found));
    }
    picture(res, known.mime, known.bytes, true);
  };

  /** Who is signed in, or whose phone is paired. */
  const signedIn = async (req: IncomingMessage) => {
    for (const cookie of sessionCookies) {
      const token = cookie.exec(req.headers.cookie ?? "")?.[1];
      if (token === undefined) continue;
      const hash = hashToken(token);
      const session = await sessions.of(hash);
      if (session !== null) return { ...session, hash };
    }
    return null;
  };
  /**
   * Hush is the engine's own: neither web nor the database is asked, whatever became of them. Everyone who
   * works on the channel may; a paired phone too.
   */
  const hush = async (req: IncomingMessage, res: ServerResponse): Promise<void> => {
    const answer = (status: number, body: unknown): void => {
      res.writeHead(status, { "content-type": "application/json", "cache-control": "no-store" }).end(JSON.stringify(body));
    };
    const no = (status: number, code: string, words: string): void => answer(status, { ok: false, refusal: { code, facts: {} }, words });
    if (req.method !== "POST") return plain(res, 405, "hush comes by POST");
    if (!ours(req)) return no(403, "access/foreign", "This request did not come from an Izzam page, so nothing was done.");
    const body = hushSchema.safeParse(parse(((await readBody(req, 1_000)) ?? "").toString()));
    if (!body.success) return no(422, "input/invalid", "It is not said whether to hush or to release. Nothing was changed.");
    const session = await signedIn(req).catch(() => undefined);
    if (session === undefined)
      return no(503, "store/away", "The database does not answer, and it is not known who you are. Nothing was changed.");
    if (session === null) return no(401, "access/signed-out", "You are signed out. Sign in again.");
    const runner = engine.runners.get(session.channelId);
    if (runner === undefined) return no(404, "channel/unknown", "The channel is not running yet. Try again in a moment.");
    void runner.hush(body.data.on);
    // The list of who did what may wait for the database; hush must not.
    void store.audit(session.channelId, session.operatorId, "hush", body.data, engine.nowMs()).catch(() => undefined);
    answer(200, { ok: true, value: null });
  };

  const allowedHost = (req: IncomingMessage): boolean =>
    (env.lan ? localNames : ownNames).test(req.headers.host ?? "") || (env.publicUrl !== null && req.headers.host === env.publicUrl.host);

  /** Signed events and trigger addresses bring their own secret, so they may come by any name. */
  const fromDevices = (path: string, req: IncomingMessage, res: ServerResponse, fail: (error: unknown) => void): boolean => {
    const events = /^\/events\/([A-Za-z0-9_-]{1,26})$/.exec(path)?.[1];
    if (events !== undefined) {
      if (req.method === "POST") engine.intake.take(channelId(events), req, res).catch(fail);
      else plain(res, 405, "events come by POST");
      return true;
    }
    const token = /^\/trigger\/([A-Za-z0-9_-]{10,64})$/.exec(path)?.[1];
    if (token === undefined) return false;
    req.resume();
    // Buttons that can only follow a link send GET; those that look ahead send HEAD, which fires nothing.
    if (req.method !== "GET" && req.method !== "POST") plain(res, 405, "call it with GET or POST");
    else
      engine
        .trigger(token)
        .then((done) =>
          done.ok
            ? plain(res, 200, "fired")
            : plain(
                res,
                done.refusal.code === "trigger/unknown" ? 404 : done.refusal.code === "store/away" ? 503 : 409,
                triggerInWords(done.refusal),
              ),
        )
        .catch(fail);
    return true;
  };

  const server = createServer((req, res) => {
    const at = (req.url ?? "/").split("?")[0] ?? "/";
    if (
      fromDevices(at, req, res, (error) => {
        log.warn({ err: String(error), path: at.startsWith("/trigger") ? "/trigger" : at }, "a request failed");
        if (!res.headersSent) plain(res, 503, "not available at the moment");
      })
    )
      return;
    // A browser that came by HTTPS once comes by nothing else; by plain HTTP nobody may say that for us.
    const asker = askerOf(req);
    if (asker.https) res.setHeader("strict-transport-security", "max-age=31536000");
    if (!isWellFormedPath(at)) return plain(res, 400, "this address is not well-formed");
    // Pages of other sites must not reach a server on loopback by a name of their own.
    if (!allowedHost(req)) return plain(res, 421, "Izzam answers at localhost only. Start it with --lan to open it to your network.");
    const path = (req.url ?? "/").split("?")[0] ?? "/";
    const fail = (error: unknown): void => {
      log.warn({ err: String(error), path: path.startsWith("/overlay") ? "/overlay" : path }, "a request failed");
      if (!res.headersSent) plain(res, 503, "not available at the moment");
    };
    const sha = /^\/props\/([0-9a-f]{64})$/.exec(path)?.[1];
    const marked = /^\/marked\/([A-Za-z0-9_-]{1,26})\/([A-Za-z0-9_-]{1,64})$/.exec(path);
    const schema = /^\/schemas\/([a-z0-9.-]{1,60})\.json$/.exec(path)?.[1];
    if (path === "/api/hush") void hush(req, res).catch(fail);
    else if (path === "/schemas" || path === "/schemas/" || schema !== undefined) schemas(res, schema ?? null);
    else if (path === "/overlay") void file(res, "overlay.html", false);
    else if (path.startsWith("/built/")) void file(res, path.slice(7), /-[A-Z0-9]{8}\.|\.woff2$/.test(path));
    else if (sha !== undefined) prop(res, sha).catch(fail);
    else if (marked !== null) {
      const channel = channelId(marked[1] ?? "");
      engine.marked
        .picture(channel, engine.emotePictures(channel), marked[2] ?? "")
        .then((sheet) =>
          sheet === null
            ? plain(res, 404, "not found")
            : picture(res, "image/webp", sheet.webp, false, {
                "x-izzam-sheet": [sheet.frames, sheet.columns, sheet.frameWidth, sheet.frameHeight, sheet.frameMs].join(","),
              }),
        )
        .catch(fail);
    } else if (path.startsWith("/_engine/")) {
      const key = (req.headers.authorization ?? "").replace(/^Bearer /, "");
      // Requests that came in from outside carry what a proxy adds, or lack the key; both are turned away.
      if (!sameText(key, env.internalKey)) return plain(res, 404, "not found");
      inside(engine, path.slice(9), req, res).catch(fail);
    } else {
      // What web hears of who asks is what was found out here, and nothing that anybody wrote.
      for (const name of ["forwarded", "via", "x-real-ip", "x-forwarded-host", "x-forwarded-port", "x-izzam-door"])
        Reflect.deleteProperty(req.headers, name);
      req.headers["x-forwarded-for"] = asker.address;
      req.headers["x-forwarded-proto"] = asker.https ? "https" : "http";
      req.headers["x-izzam-local"] = asker.local ? "1" : "0";
      proxy.web(req, res);
    }
  });

  const places = seats();
  const sockets = new WebSocketServer({ noServer: true, maxPayload: 16 * 1024, perMessageDeflate: false });
  server.on("upgrade", (req: IncomingMessage, socket: Duplex, head: Buffer) => {
    socket.on("error", () => undefined);
    if ((req.url ?? "").split("?")[0] !== "/ws" || !allowedHost(req)) {
      socket.destroy();
      return;
    }
    const leave = places.take(askerOf(req));
    if (leave === null) {
      // Comes again by itself, a little later each time.
      socket.end("HTTP/1.1 503 Service Unavailable\r\nRetry-After: 30\r\nConnection: close\r\n\r\n");
      return;
    }
    socket.once("close", leave);
    if (socket.destroyed) leave();
    sockets.handleUpgrade(req, socket, head, (ws) => welcome(ws, req));
  });

  const welcome = (ws: WebSocket, req: IncomingMessage): void => {
    let known: "nobody" | "overlay" | "operator" | "viewer" = "nobody";
    const tooLate = setTimeout(() => known === "nobody" && ws.close(4000, "no greeting"), 10_000);
    let alive = true;
    const beat = setInterval(() => {
      if (!alive) ws.terminate();
      alive = false;
      ws.ping();
      if (known !== "nobody" && ws.bufferedAmount === 0) ws.send(beatText(engine.nowMs()));
    }, 15_000);
    ws.on("pong", () => (alive = true));
    ws.on("error", () => undefined);
    ws.on("close", () => {
      clearTimeout(tooLate);
      clearInterval(beat);
      engine.overlays.leave(ws);
      engine.operators.leave(ws);
      engine.viewers.leave(ws);
    });
    ws.on("message", (data, binary) => {
      const message = binary ? null : fromPageSchema.safeParse(parse(String(data)));
      if (message?.success !== true) return ws.close(4002, "this message is not understood");
      const body = message.data;
      if (body.type === "report") return engine.overlays.report(ws, body);
      if (body.type === "voice") return engine.overlays.voice(ws);
      if (body.type === "shown") return engine.overlays.shown(ws, body.sales);
      if (known !== "nobody") return ws.close(4002, "greeted twice");
      if (body.type === "hello") {
        known = "overlay";
        engine.overlays.join(ws, body);
        return;
      }
      if (body.type === "shop") {
        known = "viewer";
        const token = viewerCookie.exec(req.headers.cookie ?? "")?.[1];
        if (!ours(req)) return ws.close(4003, "not from here");
        const channel = channelId(body.channel);
        if (!engine.runners.has(channel)) return ws.close(4004, "no such channel");
        const hash = token === undefined ? "" : hashToken(token);
        engine.viewerOf(channel, hash).then(
          (viewer) => ws.readyState === ws.OPEN && engine.viewers.join(ws, channel, hash, viewer),
          () => ws.close(4004, "the database does not answer"),
        );
        return;
      }
      known = "operator";
      if (!ours(req)) return ws.close(4003, "signed out");
      signedIn(req).then(
        (session) => {
          if (session === null) return ws.close(4003, "signed out");
          if (body.type === "peek") return engine.overlays.peek(ws, session.channelId, body.overlay, body.resume, session.hash);
          engine.operators.join(ws, session.channelId, session.hash);
          ws.send(beatText(engine.nowMs()));
        },
        () => ws.close(4004, "the database does not answer"),
      );
    });
  };

  return {
    listen: () => new Promise<void>((resolve, reject) => server.once("error", reject).listen(env.port, env.host, resolve)),
    close: async (): Promise<void> => {
      for (const ws of sockets.clients) ws.close(1012, "restarting");
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      proxy.close();
    },
  };
}

function triggerInWords({ code, facts }: Refusal): string {
  switch (code) {
    case "trigger/unknown":
      return "this trigger address is not valid any more";
    case "cue/cooling":
      return `not yet: ${facts["freeInS"]} s to go`;
    case "store/away":
      return "not at the moment: Izzam is starting, or its database does not answer; try again";
    default:
      return "not fired";
  }
}

const hushSchema = z.object({ on: z.boolean() });
function schemas(res: ServerResponse, type: string | null): void {
  const body = type === null ? { schemas: eventTypes.map((t) => `/schemas/${t}.json`) } : isEventType(type) ? jsonSchemaOf(type) : null;
  res.writeHead(body === null ? 404 : 200, {
    "content-type": type === null ? "application/json" : "application/schema+json",
    "x-content-type-options": "nosniff",
    "access-control-allow-origin": "*",
  });
  res.end(JSON.stringify(body ?? { ok: false, why: "no such type" }, null, 2));
}

function parse(text: string): unknown {
  try {
    return parseJson(text);
  } catch {
    return null;
  }
}
