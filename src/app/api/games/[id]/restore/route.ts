import { z } from "zod";
import { removeGame } from "../../../../../server/web/games";
import { action } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

export const POST = action("game.edit", z.object({}), async ({ session, params, audit }) => {
  const done = await removeGame(services(), session, params["id"] ?? "", false);
  if (done.ok) await audit({ game: params["id"], removed: false });
  return done;
});
