import { ok, refused } from "../../../../../core/kernel/refusal";
import { answer, currentRemote, currentSession, guarded } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

/** How a fight goes since a time: health after each hit, who leads, the pace. */
export const GET = (request: Request, context: { params: Promise<{ id: string }> }): Promise<Response> =>
  guarded(async () => {
    const session = (await currentSession()) ?? (await currentRemote());
    if (session === null) return answer(refused("access/signed-out"));
    const { store, clock, engine } = services();
    const asked = new URL(request.url).searchParams;
    const since = Number(asked.get("since") ?? "0");
    const sinceMs = Number.isSafeInteger(since) && since >= 0 ? since : 0;
    // In the booth of a rehearsal: its own blows, which are stored nowhere.
    const rehearsal = (asked.get("rehearsal") ?? "").slice(0, 26);
    const game = (await context.params).id.slice(0, 40);
    if (rehearsal !== "") return answer(await engine.rehearsal.fight(session.channelId, rehearsal, { game, sinceMs }));
    return answer(ok(await store.shows.fight(session.channelId, game, sinceMs, clock.now())));
  });
