import { type NextRequest, NextResponse } from "next/server";
import { strictHeaders } from "./server/web/strict-headers";

/** Strict headers on every operator page; scripts only with this request's nonce. */
export function proxy(request: NextRequest): NextResponse {
  const nonce = crypto.randomUUID().replaceAll("-", "");
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    "worker-src 'self'",
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "media-src 'self'",
    "font-src 'self'",
    "connect-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("content-security-policy", policy);
  headers.set("x-izzam-path", request.nextUrl.pathname);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  for (const [name, value] of Object.entries(strictHeaders)) response.headers.set(name, value);
  return response;
}

// Next.js keeps the body of each request that passes here in memory, and cuts it off at 10 MB. So the API does not pass here;
// `dispatch.ts` sets its headers.
export const config = { matcher: ["/((?!api/|_next/static|studio.svg|icon.svg).*)"] };
