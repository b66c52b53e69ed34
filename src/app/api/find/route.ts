import { ok, refused } from "../../../core/kernel/refusal";
import { findThings } from "../../../server/web/find";
import { answer, currentSession, guarded } from "../../../server/web/http";
import { services } from "../../../server/web/services";

/** All that the channel has, by name, for the search. */
export const GET = (): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    return answer(ok(await findThings(services().store, session.channelId)));
  });
