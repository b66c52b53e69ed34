import { z } from "zod";
import { ok, refused } from "../../../../../core/kernel/refusal";
import { action } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

export const POST = action("prop.edit", z.object({}), async ({ session, params, audit }) => {
  const { store, engine } = services();
  if (!(await store.props.restore(session.channelId, params["id"] ?? ""))) return refused("prop/unknown");
  await engine.reload(session.channelId);
  await audit({ restored: params["id"] });
  return ok(null);
});
