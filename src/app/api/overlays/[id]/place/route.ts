import { z } from "zod";
import { ok, refused } from "../../../../../core/kernel/refusal";
import { placeOf } from "../../../../../server/web/games";
import { action } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

export const POST = action(
  "overlay.edit",
  z.object({ game: z.string().max(26), on: z.boolean() }),
  async ({ session, params, body: { game, on }, audit }) => {
    const { store, engine } = services();
    const kind = (await store.games.draft(session.channelId, game))?.kind ?? "";
    if (!(await store.overlays.place(session.channelId, params["id"] ?? "", game, on ? placeOf(kind) : null)))
      return refused("overlay/unknown");
    await engine.reload(session.channelId);
    await audit({ overlay: params["id"], game, on });
    return ok(null);
  },
);
