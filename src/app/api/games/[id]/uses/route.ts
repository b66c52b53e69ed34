import { ok, refused } from "../../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";
import { usesOfGame } from "../../../../../server/web/uses";

/** Where a game is used, before it is taken away. */
export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    return answer(ok(await usesOfGame(services().store, session.channelId, (await params).id)));
  });
