import { ok, refused } from "../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

/** What a reward was sold for, oldest first. */
export const GET = (_request: Request, context: { params: Promise<{ id: string }> }): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    return answer(ok(await services().store.points.prices(session.channelId, (await context.params).id.slice(0, 26), 200)));
  });
