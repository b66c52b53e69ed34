import { z } from "zod";
import { publish } from "../../../../../server/web/games";
import { action } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

export const POST = action("game.publish", z.object({ revision: z.int().min(0) }), async ({ session, params, body, audit }) => {
  const done = await publish(services(), session, params["id"] ?? "", body.revision);
  if (done.ok) await audit({ game: params["id"], version: done.value.version });
  return done;
});
