import { ok, refused } from "../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

/** A viewer's card: what the operator sees of one viewer. In the query, since an id may be `..` or hold a slash or a percent sign. */
export const GET = (request: Request): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const card = await services().store.shows.viewer(session.channelId, new URL(request.url).searchParams.get("id") ?? "");
    return answer(card === null ? refused("viewer/unknown") : ok(card));
  });
