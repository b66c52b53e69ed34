import { ok, refused } from "../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

/** A viewer's card: what the operator sees of one viewer. */
export const GET = (_request: Request, context: { params: Promise<{ id: string }> }): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const id = decodeURIComponent((await context.params).id).slice(0, 64);
    const card = await services().store.shows.viewer(session.channelId, id);
    return answer(card === null ? refused("viewer/unknown") : ok(card));
  });
