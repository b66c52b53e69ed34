import findMyWay, { type HTTPMethod } from "find-my-way";
import type { NextRequest } from "next/server";
import { refused } from "../../../core/kernel/refusal";
import { asking } from "../../../server/web/asked";
import { answer } from "../../../server/web/http";
import { strictHeaders } from "../../../server/web/strict-headers";
import type { Route } from "../../../server/web/route-kit";
import { table } from "./table";

const router = findMyWay<findMyWay.HTTPVersion.V1>({ maxParamLength: 400 });
const methods = ["GET", "POST", "PUT", "PATCH", "DELETE"] as const satisfies readonly HTTPMethod[];
for (const [at, route] of Object.entries(table)) {
  const [method, path] = at.split(" ") as [HTTPMethod, string];
  router.on(method, path, () => undefined, route);
}
const routeAt = (method: HTTPMethod, path: string) => {
  const found = router.find(method, path);
  const route = found?.store as Route | undefined;
  // An address that can't be read is found too, by the router's own handler, which has no route.
  return found === null || route?.handle === undefined ? null : { route, params: found.params as Readonly<Record<string, string>> };
};

/** No answer of the API is a page, so one that is opened as a page may load nothing. An answer may set its own instead. */
const plainHeaders = { ...strictHeaders, "content-security-policy": "default-src 'none'; frame-ancestors 'none'" };

/** Answers whatever is asked of the API, by its table. */
export async function dispatch(request: NextRequest): Promise<Response> {
  const response = await routed(request);
  for (const [name, value] of Object.entries(plainHeaders)) if (!response.headers.has(name)) response.headers.set(name, value);
  return response;
}

function routed(request: NextRequest): Promise<Response> {
  const path = new URL(request.url).pathname.replace(/^\/api(?=\/)/, "");
  // A look ahead is answered as the look would be; its body is left out by the server.
  const method = request.method === "HEAD" ? "GET" : (request.method as HTTPMethod);
  const found = routeAt(method, path);
  if (found !== null) return asking(request, () => found.route.handle(request, found.params));
  const others = methods.filter((m) => routeAt(m, path) !== null);
  return Promise.resolve(
    others.length === 0
      ? answer(refused("address/unknown"))
      : answer(refused("address/method"), { status: 405, headers: { allow: others.join(", ") } }),
  );
}
