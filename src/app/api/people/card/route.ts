import { randomBytes } from "node:crypto";
import { z } from "zod";
import { ok, refused } from "../../../../core/kernel/refusal";
import { action, answer, currentSession, guarded } from "../../../../server/web/http";
import { forgetUnpacked } from "../../../../server/web/outside-shows";
import { services } from "../../../../server/web/services";

/** In the query, since an id may be `..` or hold a slash or a percent sign. */
export const GET = (request: Request): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const card = await services().store.points.person(session.channelId, new URL(request.url).searchParams.get("id") ?? "");
    return answer(card === null ? refused("viewer/unknown") : ok(card));
  });

/** On the viewer's request: nothing that names them is left. */
export const DELETE = action("people.forget", z.object({ id: z.string().min(1).max(64) }), async ({ session, body: { id }, audit }) => {
  const { store, engine } = services();
  const card = await store.points.person(session.channelId, id);
  if (card === null) return refused("viewer/unknown");
  // What they still have goes back first, so that nobody can spend it under a name that says nothing.
  if (card.balance > 0) {
    const done = await engine.command(session.channelId, "points", session.login, `forget-${randomBytes(9).toString("hex")}`, {
      do: "adjust",
      viewer: id,
      name: card.name,
      by: -card.balance,
      why: "deleted on request",
    });
    if (!done.ok) return done;
  }
  // What they wrote just now is on its way to the log: it must not arrive there after all else is gone.
  const dropped = await engine.forget(session.channelId, id);
  if (!dropped.ok) return dropped;
  await store.points.forget(session.channelId, id, `gone-${randomBytes(6).toString("hex")}`);
  forgetUnpacked();
  await engine.refresh(session.channelId);
  await audit({ forgotten: true });
  return ok(null);
});
