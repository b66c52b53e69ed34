import { refused } from "../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../server/web/http";
import { listOut } from "../../../../server/web/people";
import { services } from "../../../../server/web/services";

/** Everybody and their points as CSV; with `?id=`, all of one viewer as JSON, for who asks what is kept of them. */
export const GET = (request: Request): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const { store } = services();
    const id = new URL(request.url).searchParams.get("id");
    if (id !== null) {
      const [points, card] = await Promise.all([store.points.person(session.channelId, id), store.shows.viewer(session.channelId, id)]);
      if (points === null && card === null) return answer(refused("viewer/unknown"));
      return new Response(JSON.stringify({ points, card }, null, 2), {
        headers: { "content-type": "application/json", "content-disposition": "attachment; filename=viewer.json" },
      });
    }
    return new Response(await listOut(services(), session.channelId), {
      headers: { "content-type": "text/csv; charset=utf-8", "content-disposition": "attachment; filename=people.csv" },
    });
  });
