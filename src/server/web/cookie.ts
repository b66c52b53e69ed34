import type { Result } from "../../core/kernel/refusal";
import { header, setCookie } from "./asked";
import { neighbourhood } from "../engine/seats";
import { sessionCookie } from "./http";

type Opened = Result<Readonly<{ token: string; expiresMs: number }>>;
export const keepSession = (opened: Opened): Promise<Result<null>> => keepCookie(sessionCookie, opened);

/** Puts a new session into its cookie. Secure only on HTTPS: the local network has none. */
export async function keepCookie(name: string, opened: Opened): Promise<Result<null>> {
  if (!opened.ok) return opened;
  setCookie(name, opened.value.token, {
    httpOnly: true,
    sameSite: "lax",
    secure: await isSecure(),
    path: "/",
    expires: new Date(opened.value.expiresMs),
  });
  return { ok: true, value: null };
}

export const isSecure = async (): Promise<boolean> => (await header("x-forwarded-proto")) === "https";
/** Whether it was asked on this very computer; the door says so. */
export const isLocal = async (): Promise<boolean> => (await header("x-izzam-local")) === "1";

/** Whose tries are counted together: an address, or a whole IPv6 network, since whoever has one of its addresses has them all. */
export const addressOf = async (): Promise<string> =>
  neighbourhood(((await header("x-forwarded-for")) ?? "unknown").split(",")[0]?.trim() ?? "unknown");
