import type { z } from "zod";
import { refused, type Result } from "../../core/kernel/refusal";
import type { WebServices } from "../composition/web";
import { browserIn } from "./accounts";
import { cookie, setCookie } from "./asked";
import { addressOf, isLocal, isSecure, keepSession } from "./cookie";
import { deviceCookie, deviceDays } from "./device";
import { fromOurs, type Route, readBody } from "./route-kit";
import { firstProblem } from "../../core/words/problem";
import { services } from "./services";

type Opened = Result<Readonly<{ token: string; expiresMs: number; device: string }>>;

/** The few actions for who is not signed in yet: they end in a session. */
export function entrance<B>(
  schema: z.ZodType<B>,
  act: (web: WebServices, body: B, address: string, local: boolean, where: string, device: string) => Promise<Opened>,
): Route {
  return fromOurs(async ({ request }) => {
    const body = schema.safeParse(await readBody(request));
    if (!body.success) return refused("input/invalid", { why: firstProblem(body.error) });
    const device = (await cookie(deviceCookie)) ?? "";
    const browser = browserIn(request.headers.get("user-agent") ?? "");
    const opened = await act(services(), body.data, await addressOf(), await isLocal(), browser, device);
    const kept = await keepSession(opened);
    if (opened.ok) {
      const expires = new Date(services().clock.now() + deviceDays * 86_400_000);
      setCookie(deviceCookie, opened.value.device, { httpOnly: true, sameSite: "lax", secure: await isSecure(), path: "/", expires });
    }
    return kept;
  });
}
