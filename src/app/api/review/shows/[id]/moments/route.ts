import { ok, refused } from "../../../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../../../server/web/http";
import { showMoments } from "../../../../../../server/web/review";
import { recordIn } from "../../../../../../server/web/show-names";
import { services } from "../../../../../../server/web/services";

type Context = Readonly<{ params: Promise<{ id: string }> }>;
/** Moments of a past show: found, kept and dropped. Every message of it is read for them. */
export const GET = (_: Request, { params }: Context): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const moments = await showMoments(services(), session.channelId, recordIn((await params).id));
    return answer(moments === null ? refused("review/unknown") : ok(moments));
  });
