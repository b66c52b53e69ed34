import { z } from "zod";
import { action } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

export const POST = action(
  "cue.fire",
  z.object({ id: z.string().min(8).max(80), via: z.enum(["key", "click"]) }),
  async ({ session, stage, params, body, audit }) => {
    const done = await services().engine.cue(stage, params["id"] ?? "", session.login, body.id, body.via);
    if (done.ok) await audit({ cue: params["id"] });
    return done;
  },
);
