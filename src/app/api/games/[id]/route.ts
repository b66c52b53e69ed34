import { z } from "zod";
import { ok, refused } from "../../../../core/kernel/refusal";
import { removeGame } from "../../../../server/web/games";
import { action } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

const body = z.object({ name: z.string().trim().min(1, "The game’s name is missing.").max(80, "A name has at most 80 characters.") });
export const PATCH = action("game.edit", body, async ({ session, params, body: { name }, audit }) => {
  const done = await services().store.games.rename(session.channelId, params["id"] ?? "", name);
  if (!done) return refused("game/unknown");
  await audit({ game: params["id"], name });
  return ok(null);
});

export const DELETE = action("game.edit", z.object({}), async ({ session, params, audit }) => {
  const done = await removeGame(services(), session, params["id"] ?? "", true);
  if (done.ok) await audit({ game: params["id"], removed: true });
  return done;
});
