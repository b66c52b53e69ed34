import { does, reads, type Routes } from "../../../server/web/route-kit";
import { ok, refused } from "../../../core/kernel/refusal";
import { forgetUnpacked } from "../../../server/web/outside-shows";
import { importPoints, listOut, readList } from "../../../server/web/people";
import { services } from "../../../server/web/services";
import { randomBytes } from "node:crypto";
import { z } from "zod";

const importBody = z.object({
  text: z.string().min(1, "The list is empty.").max(240_000, "A list has at most 240,000 characters; take it in in parts."),
  /** Only looked at: every problem by line, and nothing changed. */
  dry: z.boolean(),
  why: z.string().trim().min(1, "Say where these points come from: it stands in each viewer’s history.").max(120),
  key: z.string().regex(/^[a-z0-9-]{8,40}$/),
});

export const peopleRoutes: Routes = {
  /** In the query, since an id may be `..` or hold a slash or a percent sign. */
  "GET /people/card": reads("signed-in", async ({ session, query }) => {
    const card = await services().store.points.person(session.channelId, query.get("id") ?? "");
    return card === null ? refused("viewer/unknown") : ok(card);
  }),
  /** On the viewer's request: nothing that names them is left. */
  "DELETE /people/card": does("people.forget", z.object({ id: z.string().min(1).max(64) }), async ({ session, body: { id }, audit }) => {
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
  }),
  /** Everybody and their points as CSV; with `?id=`, all of one viewer as JSON, for who asks what is kept of them. */
  "GET /people/export": reads("signed-in", async ({ session, query }) => {
    const { store } = services();
    const id = query.get("id");
    if (id !== null) {
      const [points, card] = await Promise.all([store.points.person(session.channelId, id), store.shows.viewer(session.channelId, id)]);
      if (points === null && card === null) return refused("viewer/unknown");
      return new Response(JSON.stringify({ points, card }, null, 2), {
        headers: { "content-type": "application/json", "content-disposition": "attachment; filename=viewer.json" },
      });
    }
    return new Response(await listOut(services(), session.channelId), {
      headers: { "content-type": "text/csv; charset=utf-8", "content-disposition": "attachment; filename=people.csv" },
    });
  }),
  "POST /people/import": does("people.import", importBody, async ({ session, body: given, audit }) => {
    if (given.dry) return readList(services(), session.channelId, given.text);
    const done = await importPoints(services(), session.channelId, session.login, given);
    if (done.ok) await audit({ takenIn: done.value.good, points: done.value.points });
    return done;
  }),
  /** Viewers by a part of their name; who has most first. */
  "GET /people": reads("signed-in", async ({ session, query }) => {
    const like = (query.get("q") ?? "").trim().slice(0, 60);
    return ok(await services().store.points.people(session.channelId, like, 60));
  }),
  /** A viewer's card: what the operator sees of one viewer. In the query, since an id may be `..` or hold a slash or a percent sign. */
  "GET /viewers/card": reads("signed-in", async ({ session, query }) => {
    const card = await services().store.shows.viewer(session.channelId, query.get("id") ?? "");
    return card === null ? refused("viewer/unknown") : ok(card);
  }),
};
