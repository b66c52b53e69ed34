import type { Result } from "../../core/kernel/refusal";
import { header, setCookie } from "./asked";
import { sessionCookie } from "./http";

type Opened = Result<Readonly<{ token: string; expiresMs: number }>>;
export const keepSession = (opened: Opened): Promise<Result<null>> => keepCookie(sessionCookie, opened);

/** Puts a new session into its cookie. Secure only on HTTPS: the local network has none. */
export async function keepCookie(name: string, opened: Opened): Promise<Result<null>> {
  if (!opened.ok) return opened;
  const secure = (await header("x-forwarded-proto")) === "https";
  setCookie(name, opened.value.token, {
    httpOnly: true,
    sameSite: "lax",
    secure,
    path: "/",
    expires: new Date(opened.value.expiresMs),
  });
  return { ok: true, value: null };
}

/** Whether it was asked on this very computer; the door says so. */
export const isLocal = async (): Promise<boolean> => (await header("x-izzam-local")) === "1";

export const addressOf = async (): Promise<string> => ((await header("x-forwarded-for")) ?? "unknown").split(",")[0]?.trim() ?? "unknown";
