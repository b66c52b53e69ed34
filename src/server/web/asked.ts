import { AsyncLocalStorage } from "node:async_hooks";
import { cookies, headers } from "next/headers";
import { type NextRequest, NextResponse } from "next/server";

/** The request that is being answered, for code that is reached from the table of routes and from pages alike. */
type Asked = Readonly<{ request: NextRequest; out: NextResponse }>;
const asked = new AsyncLocalStorage<Asked>();

/** Answers one request of the API: what it reads of cookies and headers is this request's, and what it sets goes out with the answer. */
export async function asking(request: NextRequest, work: () => Promise<Response>): Promise<Response> {
  const out = new NextResponse();
  const response = await asked.run({ request, out }, work);
  for (const cookie of out.headers.getSetCookie()) response.headers.append("set-cookie", cookie);
  return response;
}

/** A header of the request; undefined where it has none. */
export async function header(name: string): Promise<string | undefined> {
  return (asked.getStore()?.request.headers ?? (await headers())).get(name) ?? undefined;
}
export async function cookie(name: string): Promise<string | undefined> {
  return (asked.getStore()?.request.cookies ?? (await cookies())).get(name)?.value;
}

type Kept = Readonly<{ httpOnly: true; sameSite: "lax"; secure?: boolean; path: string; expires?: Date; maxAge?: number }>;
/** Cookies are set by the API alone: a page that is being drawn can set none. */
export const setCookie = (name: string, value: string, kept: Kept): void => void asked.getStore()?.out.cookies.set(name, value, kept);
export const dropCookie = (name: string): void => void asked.getStore()?.out.cookies.delete(name);
