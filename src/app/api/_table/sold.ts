import { does, reads, type Routes } from "../../../server/web/route-kit";
import { ok, refused } from "../../../core/kernel/refusal";
import { unseal } from "../../../server/secrets";
import { services } from "../../../server/web/services";
import { z } from "zod";

const salesQuery = z.object({
  state: z.enum(["waiting", "done", "refunded", "all"]).catch("waiting"),
  reward: z.string().max(26).catch(""),
});

export const soldRoutes: Routes = {
  /** What a reward was sold for, oldest first. */
  "GET /prices/:id": reads("signed-in", async ({ session, params }) => {
    return ok(await services().store.points.prices(session.channelId, (params["id"] ?? "").slice(0, 26), 200));
  }),
  /** What a viewer gave in private; for the owner alone, and written to the audit list. */
  "POST /sales/:id/detail": does("sale.detail", z.object({}), async ({ session, params, audit }) => {
    const { store, env } = services();
    const sealed = await store.points.detail(session.channelId, params["id"] ?? "");
    if (sealed === null) return refused("sale/unknown");
    await audit({ read: params["id"] });
    return ok({ detail: unseal(env.appKey, "sale-detail", sealed) });
  }),
  "GET /sales": reads("signed-in", async ({ session, query }) => {
    const given = salesQuery.parse(Object.fromEntries(query));
    return ok(await services().store.points.sales(session.channelId, { ...given, limit: 200 }));
  }),
};
