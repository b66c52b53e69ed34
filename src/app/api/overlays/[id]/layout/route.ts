import { z } from "zod";
import { ok, refused } from "../../../../../core/kernel/refusal";
import { placeSchema } from "../../../../../core/wire/messages";
import { action } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

const body = z.object({
  places: z.array(z.object({ game: z.string().max(26), place: placeSchema })).max(60),
  /** On air now, whether or not the overlay keeps a draft. */
  onAir: z.boolean(),
});
export const PUT = action("overlay.arrange", body, async ({ session, params, body: { places, onAir }, audit }) => {
  const { store, engine } = services();
  const overlay = params["id"] ?? "";
  if (!(await store.overlays.saveLayout(session.channelId, overlay, places, onAir))) return refused("overlay/unknown");
  if (onAir) {
    await engine.reload(session.channelId);
    await audit({ overlay, places: places.length });
  }
  return ok(null);
});
