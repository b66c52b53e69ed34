import { z } from "zod";
import { ok } from "../../../core/kernel/refusal";
import { newToken } from "../../../server/secrets";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

const side = z.int("A whole number of pixels.").min(16, "At least 16 pixels.").max(7_680, "At most 7,680 pixels.");
const body = z.object({ name: z.string().trim().min(1, "The overlay’s name is missing.").max(80), width: side, height: side });
export const POST = action("overlay.edit", body, async ({ session, body: { name, width, height }, audit }) => {
  const { store, clock, engine } = services();
  const id = newToken();
  await store.overlays.create(session.channelId, { id, name, width, height, nowMs: clock.now() });
  await engine.reload(session.channelId);
  await audit({ overlay: id, name });
  return ok({ id });
});
