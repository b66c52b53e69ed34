import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import type { Duplex } from "node:stream";
import { createProxyServer } from "http-proxy-3";
import type { Logger } from "pino";
import { WebSocketServer } from "ws";
import { channelId } from "../../core/kernel/ids";
import type { Refusal } from "../../core/kernel/refusal";
import type { Env } from "../env";
import type { EngineStore } from "../ports/engine-store";
import { hashToken, sameText } from "../secrets";
import type { Engine } from "./engine";
import { internalApi } from "./internal-api";
import { askers, fromHere } from "./origin";
import { seats } from "./seats";
import { rememberedSessions } from "./sessions";
import { greeter } from "./greeter";
import { hushRoute } from "./hush-route";
import { lastingFiles, plain, schemas } from "./lasting-files";
import { type SignedIn, sessionCookies } from "./signed-in";

const isWellFormedPath = (path: string): boolean => {
  try {
    decodeURIComponent(path);
    return true;
  } catch {
    return false;
  }
};
/** Names this server answers to. A page of another site that points its own name at us is none of them. */
const ownNames = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/i;
const localNames = /^(localhost|(\d{1,3}\.){3}\d{1,3}|\[[0-9a-f:]+\]|[a-z0-9-]+(\.(local|lan|home|internal|home\.arpa))?)(:\d+)?$/i;

/**
 * The one public address. WebSockets, overlay pages and props are the engine's own; everything else is
 * passed on to the web process.
 */
export function openGateway({
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
  proxy.on("error", (_error, req, res) => {
    if (!("writeHead" in res) || res.headersSent) return;
    // What a page asks in the background is answered in its own words; it keeps what was typed.
    if (req.url?.startsWith("/api/") === true) {
      res.writeHead(503, { "content-type": "application/json", "retry-after": "2", "cache-control": "no-store" });
      res.end(
        JSON.stringify({
          ok: false,
          refusal: { code: "web/away", facts: {} },
          words: "Izzam is starting, so nothing was done yet. Try again in a moment.",
        }),
      );
      return;
    }
    res.writeHead(503, { "content-type": "text/html; charset=utf-8", "retry-after": "2" });
    res.end(
      "<!doctype html><meta http-equiv=refresh content=2><title>Izzam is starting</title><p>Izzam is starting. This page tries again by itself.</p>",
    );
  });
  const askerOf = askers(env.trustedProxies);
  const ours = (req: IncomingMessage): boolean => fromHere(req.headers.origin, req.headers.host, env.publicUrl);
  const { file, picture, prop } = lastingFiles(store, builtDir);
  const sessions = rememberedSessions(store);
  engine.onRecheck = () => sessions.recheck();
  /** Who is signed in, or whose phone is paired. */
  const signedIn: SignedIn = async (req) => {
    for (const cookie of sessionCookies) {
      const token = cookie.exec(req.headers.cookie ?? "")?.[1];
      if (token === undefined) continue;
      const hash = hashToken(token);
      const session = await sessions.of(hash);
      if (session !== null) return { ...session, hash };
    }
    return null;
  };
  const hush = hushRoute({ engine, store, ours, signedIn });
  const welcome = greeter({ engine, ours, signedIn });
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
    const face = /^\/faces\/([A-Za-z0-9_-]{1,26})\/([A-Za-z0-9_-]{10,40})\/([^/]{1,400})$/.exec(path);
    const speech = /^\/speech\/([0-9a-f]{64})$/.exec(path)?.[1];
    const schema = /^\/schemas\/([a-z0-9.-]{1,60})\.json$/.exec(path)?.[1];
    if (path === "/api/hush") void hush(req, res).catch(fail);
    else if (path === "/schemas" || path === "/schemas/" || schema !== undefined) schemas(res, schema ?? null);
    else if (path === "/overlay") file(req, res, "overlay.html", false);
    else if (path.startsWith("/built/")) file(req, res, path.slice(7), /-[A-Z0-9]{8}\.|\.woff2$/.test(path));
    else if (sha !== undefined) prop(req, res, sha).catch(fail);
    else if (speech !== undefined) {
      const made = engine.speeches.sound(speech);
      if (made === null) plain(res, 404, "not found");
      else picture(res, made.mime, made.bytes, true);
    } else if (face !== null) {
      engine.faceDoor
        .picture(channelId(face[1] ?? ""), face[2] ?? "", decodeURIComponent(face[3] ?? ""))
        .then((found) =>
          found === null ? res.writeHead(204, { "cache-control": "no-cache" }).end() : picture(res, "image/webp", found, false),
        )
        .catch(fail);
    } else if (marked !== null) {
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
      internalApi(engine, path.slice(9), req, res).catch(fail);
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
