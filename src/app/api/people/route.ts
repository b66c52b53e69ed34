import { ok, refused } from "../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../server/web/http";
import { services } from "../../../server/web/services";

/** Viewers by a part of their name; who has most first. */
export const GET = (request: Request): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const like = (new URL(request.url).searchParams.get("q") ?? "").trim().slice(0, 60);
    return answer(ok(await services().store.points.people(session.channelId, like, 60)));
  });
