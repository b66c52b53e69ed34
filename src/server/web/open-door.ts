import type { z } from "zod";
import { refused, type Result } from "../../core/kernel/refusal";
import type { WebServices } from "../composition/web";
import { browserIn } from "./accounts";
import { addressOf, isLocal, keepSession } from "./cookie";
import { fromOurs, type Route, readBody } from "./route-kit";
import { firstProblem } from "../../core/words/problem";
import { services } from "./services";

type Opened = Result<Readonly<{ token: string; expiresMs: number }>>;

/** The few actions for who is not signed in yet: they end in a session. */
export function entrance<B>(
  schema: z.ZodType<B>,
  act: (web: WebServices, body: B, address: string, local: boolean, where: string) => Promise<Opened>,
): Route {
  return fromOurs(async ({ request }) => {
    const body = schema.safeParse(await readBody(request));
    if (!body.success) return refused("input/invalid", { why: firstProblem(body.error) });
    return keepSession(
      await act(services(), body.data, await addressOf(), await isLocal(), browserIn(request.headers.get("user-agent") ?? "")),
    );
  });
}
