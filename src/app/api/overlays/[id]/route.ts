import { z } from "zod";
import { ok, refused } from "../../../../core/kernel/refusal";
import { action } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

const side = z.int("A whole number of pixels.").min(16, "At least 16 pixels.").max(7_680, "At most 7,680 pixels.");
const body = z.union([
  z.object({ width: side, height: side }),
  z.object({ name: z.string().trim().min(1, "The overlay’s name is missing.").max(80, "A name has at most 80 characters.") }),
]);
export const PATCH = action("overlay.edit", body, async ({ session, params, body: asked, audit }) => {
  const { store, engine } = services();
  const id = params["id"] ?? "";
  const done =
    "name" in asked
      ? await store.overlays.rename(session.channelId, id, asked.name)
      : await store.overlays.resize(session.channelId, id, asked.width, asked.height);
  if (!done) return refused("overlay/unknown");
  if ("name" in asked) await engine.reload(session.channelId);
  await audit({ overlay: id, ...asked });
  return ok(null);
});

/** Its link stops at once; it can be brought back, link and all. */
export const DELETE = action("overlay.edit", z.object({}), async ({ session, params, audit }) => {
  const { store, engine, clock } = services();
  const id = params["id"] ?? "";
  if (!(await store.overlays.setRemoved(session.channelId, id, clock.now()))) return refused("overlay/unknown");
  await engine.reload(session.channelId);
  await audit({ overlay: id, removed: true });
  return ok(null);
});
