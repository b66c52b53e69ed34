import { z } from "zod";
import { ok, refused } from "../../../../core/kernel/refusal";
import { action } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

/** A moving picture that is being made is not wanted any more. */
export const DELETE = action("prop.edit", z.object({}), async ({ session, params, audit }) => {
  const web = services();
  const id = params["id"] ?? "";
  if (!(await web.store.media.drop(session.channelId, id, web.clock.now()))) return refused("prop/unknown");
  await audit({ stopped: id });
  return ok(null);
});
