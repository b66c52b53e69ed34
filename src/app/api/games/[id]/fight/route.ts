import { ok, refused } from "../../../../../core/kernel/refusal";
import { answer, currentRemote, currentSession, guarded } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

/** How a fight goes since a time: health after each hit, who leads, the pace. */
export const GET = (request: Request, context: { params: Promise<{ id: string }> }): Promise<Response> =>
  guarded(async () => {
    const session = (await currentSession()) ?? (await currentRemote());
    if (session === null) return answer(refused("access/signed-out"));
    const { store, clock } = services();
    const since = Number(new URL(request.url).searchParams.get("since") ?? "0");
    const sinceMs = Number.isSafeInteger(since) && since >= 0 ? since : 0;
    return answer(ok(await store.shows.fight(session.channelId, (await context.params).id, sinceMs, clock.now())));
  });
