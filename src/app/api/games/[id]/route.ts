import { z } from "zod";
import { ok, refused } from "../../../../core/kernel/refusal";
import { removeGame } from "../../../../server/web/games";
import { action } from "../../../../server/web/http";
import { replaceGame } from "../../../../server/web/replace-game";
import { services } from "../../../../server/web/services";

const body = z.object({ name: z.string().trim().min(1, "The game’s name is missing.").max(80, "A name has at most 80 characters.") });
export const PATCH = action("game.edit", body, async ({ session, params, body: { name }, audit }) => {
  const done = await services().store.games.rename(session.channelId, params["id"] ?? "", name);
  if (!done) return refused("game/unknown");
  await audit({ game: params["id"], name });
  return ok(null);
});

/** `instead` names a game of the same kind that stands in its place from then on, wherever it was used. */
const removal = z.object({ instead: z.string().max(26).optional() });
export const DELETE = action("game.edit", removal, async ({ session, params, body: { instead }, audit }) => {
  const game = params["id"] ?? "";
  const put = instead === undefined ? ok({ left: [] as readonly string[] }) : await replaceGame(services(), session, game, instead);
  if (!put.ok) return put;
  const done = await removeGame(services(), session, game, true);
  if (!done.ok) return done;
  await audit({ game, removed: true, ...(instead === undefined ? {} : { instead }) });
  return put;
});
