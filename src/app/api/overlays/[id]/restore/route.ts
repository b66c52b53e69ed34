import { z } from "zod";
import { ok, refused } from "../../../../../core/kernel/refusal";
import { action } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

export const POST = action("overlay.edit", z.object({}), async ({ session, params, audit }) => {
  const { store, engine } = services();
  const id = params["id"] ?? "";
  if (!(await store.overlays.setRemoved(session.channelId, id, null))) return refused("overlay/unknown");
  await engine.reload(session.channelId);
  await audit({ overlay: id, removed: false });
  return ok(null);
});
