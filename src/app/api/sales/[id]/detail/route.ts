import { z } from "zod";
import { ok, refused } from "../../../../../core/kernel/refusal";
import { unseal } from "../../../../../server/secrets";
import { action } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

/** What a viewer gave in private; for the owner alone, and written to the audit list. */
export const POST = action("sale.detail", z.object({}), async ({ session, params, audit }) => {
  const { store, env } = services();
  const sealed = await store.points.detail(session.channelId, params["id"] ?? "");
  if (sealed === null) return refused("sale/unknown");
  await audit({ read: params["id"] });
  return ok({ detail: unseal(env.appKey, "sale-detail", sealed) });
});
