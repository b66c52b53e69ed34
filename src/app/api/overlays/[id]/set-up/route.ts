import { z } from "zod";
import { dressSchema } from "../../../../../core/dress/dress";
import { ok, refused } from "../../../../../core/kernel/refusal";
import { action } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";
import { boxedCss } from "../../../../../server/web/css";

const body = z.object({
  name: z.string().trim().min(1, "The overlay’s name is missing.").max(80).optional(),
  note: z.string().max(120).optional(),
  atOnce: z.boolean().optional(),
  shows: z.boolean().optional(),
  sounds: z.boolean().optional(),
  css: z.string().max(20_000, "The style sheet is longer than 20,000 letters.").optional(),
  backdrop: z.enum(["studio", "grid", "dark", "light"]).optional(),
  dress: dressSchema.optional(),
});
export const PATCH = action("overlay.edit", body, async ({ session, params, body: given, audit }) => {
  const { store, engine } = services();
  const part = Object.fromEntries(Object.entries(given).filter(([, v]) => v !== undefined));
  if (typeof part["css"] === "string") {
    const checked = boxedCss(part["css"]);
    if (!checked.ok) return checked;
  }
  if (!(await store.overlays.setUp(session.channelId, params["id"] ?? "", part))) return refused("overlay/unknown");
  await engine.reload(session.channelId);
  await audit({ overlay: params["id"], changed: Object.keys(part) });
  return ok(null);
});
