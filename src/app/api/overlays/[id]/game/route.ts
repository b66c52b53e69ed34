import { z } from "zod";
import { ok, refused } from "../../../../../core/kernel/refusal";
import { action } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

/** One game on the picture, from the booth: hidden or shown, or in front of all others; on air at once. */
const body = z.object({ game: z.string().max(26), hidden: z.boolean().optional(), front: z.literal(true).optional() });
export const POST = action("overlay.arrange", body, async ({ session, params, body: { game, hidden, front }, audit }) => {
  const { store, engine } = services();
  const overlay = params["id"] ?? "";
  const layout = await store.overlays.layout(session.channelId, overlay);
  const own = layout?.places.find((p) => p.game === game);
  if (layout === null || own === undefined) return refused("overlay/unknown");
  const changed = { game, place: { ...own.place, hidden: hidden ?? own.place.hidden } };
  const others = layout.places.filter((p) => p !== own);
  const places = front === true ? [...others, changed] : layout.places.map((p) => (p === own ? changed : p));
  // A draft that is being arranged stays as it is: only what is on air changes here.
  if (!(await store.overlays.placeOnAir(session.channelId, overlay, places))) return refused("overlay/unknown");
  await engine.reload(session.channelId);
  await audit({ overlay, game, hidden, front });
  return ok(null);
});
