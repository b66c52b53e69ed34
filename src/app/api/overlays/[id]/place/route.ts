import { z } from "zod";
import { ok, refused } from "../../../../../core/kernel/refusal";
import { action } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

export const POST = action(
  "overlay.edit",
  z.object({ game: z.string().max(26), on: z.boolean() }),
  async ({ session, params, body: { game, on }, audit }) => {
    const { store, engine } = services();
    if (!(await store.overlays.place(session.channelId, params["id"] ?? "", game, on))) return refused("overlay/unknown");
    await engine.reload(session.channelId);
    await audit({ overlay: params["id"], game, on });
    return ok(null);
  },
);
