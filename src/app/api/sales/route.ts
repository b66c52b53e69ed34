import { z } from "zod";
import { ok, refused } from "../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../server/web/http";
import { services } from "../../../server/web/services";

const query = z.object({ state: z.enum(["waiting", "done", "refunded", "all"]).catch("waiting"), reward: z.string().max(26).catch("") });
export const GET = (request: Request): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const given = query.parse(Object.fromEntries(new URL(request.url).searchParams));
    return answer(ok(await services().store.points.sales(session.channelId, { ...given, limit: 200 })));
  });
