import type { IncomingMessage, ServerResponse } from "node:http";

/** When the database was away last, for the whole process: pages and the server that answers for them are bundled apart. */
const key = Symbol.for("izzam.away-ms");
const shared = globalThis as unknown as { [key]?: number };
/** A page that failed so soon after the database was away failed because of it. */
const becauseMs = 8_000;

/**
 * A store whose errors say in words that the database is away, instead of the statement that met it: pages hand them to
 * a log that writes all they hold. Every other error stays as it is.
 */
export function inWords<T extends object>(store: T, isAway: (error: unknown) => boolean, now: () => number): T {
  const told = (error: unknown): never => {
    if (!isAway(error)) throw error;
    shared[key] = now();
    const away = Object.assign(new Error("the database does not answer"), { code: "ETIMEDOUT" });
    away.stack = `${away.name}: ${away.message}`;
    throw away;
  };
  const wrapped = (value: unknown): unknown => {
    if (typeof value === "function")
      return (...args: unknown[]): unknown => {
        const made: unknown = Reflect.apply(value, undefined, args);
        return made instanceof Promise ? made.catch(told) : made;
      };
    return typeof value === "object" && value !== null && Object.getPrototypeOf(value) === Object.prototype
      ? inWords(value, isAway, now)
      : value;
  };
  const known = new Map<PropertyKey, unknown>();
  return new Proxy(store, {
    get: (target, name) => {
      if (!known.has(name)) known.set(name, wrapped(Reflect.get(target, name)));
      return known.get(name);
    },
  });
}

const page = `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><meta http-equiv="refresh" content="4"><title>Not reachable · Izzam</title>
<style>body{margin:0;background:#fbf8f2;color:#191c26;font:17px/1.45 "Atkinson Hyperlegible Next Variable",sans-serif}main{max-width:560px;margin:80px auto;padding:24px}h1{font-size:24px;margin:0 0 8px}@media(prefers-color-scheme:dark){body{background:#10131b;color:#f1ece2}}</style>
</head><body><main role="alert"><h1>This page can’t be read at the moment</h1><p>The database does not answer. Nothing that was accepted is lost, and overlays go on as they are. This page tries again by itself.</p></main></body></html>`;

/** A page that could not be made since the database is away is answered 503, in words, and tries again by itself. */
export function answersAway(req: IncomingMessage, res: ServerResponse, now: () => number): void {
  if (req.method !== "GET" || req.headers.accept?.includes("text/html") !== true) return;
  const { writeHead, write, end } = res;
  let instead = false;
  res.writeHead = ((...args: Parameters<typeof writeHead>) => {
    const status = typeof args[0] === "number" ? args[0] : res.statusCode;
    if (status !== 500 || now() - (shared[key] ?? -Infinity) > becauseMs || res.headersSent)
      return Reflect.apply(writeHead, res, args) as ServerResponse;
    instead = true;
    for (const name of res.getHeaderNames()) if (/^(content-|transfer-|etag|link|x-next)/i.test(name)) res.removeHeader(name);
    return writeHead.call(res, 503, {
      "content-type": "text/html; charset=utf-8",
      "content-length": Buffer.byteLength(page),
      "cache-control": "no-store",
      "retry-after": "4",
    });
  }) as typeof res.writeHead;
  // What the page would have been is left out.
  res.write = ((...args: Parameters<typeof write>) => {
    if (!res.headersSent && !instead) res.writeHead(res.statusCode);
    return instead ? true : (Reflect.apply(write, res, args) as boolean);
  }) as typeof res.write;
  res.end = ((...args: Parameters<typeof end>) => {
    if (!res.headersSent && !instead) res.writeHead(res.statusCode);
    return instead ? (Reflect.apply(end, res, [page]) as ServerResponse) : (Reflect.apply(end, res, args) as ServerResponse);
  }) as typeof res.end;
}
