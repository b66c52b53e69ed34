import { z } from "zod";
import { ok, type Result } from "../../../../../core/kernel/refusal";
import type { Version } from "../../../../../server/ports/operator-store";
import { bringBack } from "../../../../../server/web/games";
import { action } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

type Answer = { settings: unknown } | { versions: readonly Version[] };
const body = z.object({ version: z.int().min(1).optional() });
/** Without a version: the list. With one: its settings, to be made the draft. */
export const POST = action("game.edit", body, async ({ session, params, body: { version } }): Promise<Result<Answer>> => {
  const web = services();
  const game = params["id"] ?? "";
  if (version !== undefined) return bringBack(web, session, game, version);
  return ok({ versions: await web.store.games.versions(session.channelId, game) });
});
