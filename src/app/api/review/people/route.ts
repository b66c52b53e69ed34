import { z } from "zod";
import { ok, refused } from "../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

const time = z.coerce.number().int().min(0).max(Number.MAX_SAFE_INTEGER);
const asked = z.object({ from: time, to: time });
/** Who was away for so long counts as back. */
const awayDays = 30;

/** Who came to a show that is over, new and back, and whom one presented. */
export const GET = (request: Request): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const given = asked.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!given.success) return answer(refused("input/invalid", { why: "There is no such show." }));
    return answer(ok(await services().store.shows.whoCame(session.channelId, given.data.from, given.data.to, awayDays)));
  });
