import { z } from "zod";
import { ok, refused } from "../../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

const kinds = z.string().regex(/^[a-z-]{1,24}$/);
/** What a game kept for good under a name of its own, newest first. */
export const GET = (request: Request, context: { params: Promise<{ id: string }> }): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const kind = kinds.safeParse(new URL(request.url).searchParams.get("kind"));
    if (!kind.success) return answer(refused("input/invalid", { why: "There is no such list." }));
    return answer(ok({ records: await services().store.events.records(session.channelId, (await context.params).id, kind.data, 100) }));
  });
