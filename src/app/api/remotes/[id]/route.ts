import { z } from "zod";
import { ok, refused } from "../../../../core/kernel/refusal";
import { action } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

/** A phone is no longer paired, at once. */
export const DELETE = action("remote.pair", z.object({}), async ({ session, params, audit }) => {
  const { store, engine } = services();
  if (!(await store.accounts.revokeRemote(session.channelId, params["id"] ?? ""))) return refused("remote/unknown");
  await engine.recheck();
  await audit({ remote: params["id"] });
  return ok(null);
});
