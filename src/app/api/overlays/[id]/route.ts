import { z } from "zod";
import { ok, refused } from "../../../../core/kernel/refusal";
import { action } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

const side = z.int("A whole number of pixels.").min(16, "At least 16 pixels.").max(7_680, "At most 7,680 pixels.");
export const PATCH = action(
  "overlay.edit",
  z.object({ width: side, height: side }),
  async ({ session, params, body: { width, height }, audit }) => {
    if (!(await services().store.overlays.resize(session.channelId, params["id"] ?? "", width, height))) return refused("overlay/unknown");
    await audit({ overlay: params["id"], width, height });
    return ok(null);
  },
);
