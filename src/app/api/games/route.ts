import { z } from "zod";
import { createGame } from "../../../server/web/games";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

const body = z.object({
  kind: z.string().max(40),
  name: z.string().trim().min(1, "The game’s name is missing.").max(80),
  /** Another game, to begin as it is set up. */
  like: z.string().max(26).optional(),
  /** One of the kind’s ready set-ups. */
  setUp: z.string().max(40).optional(),
});
export const POST = action("game.create", body, async ({ session, body: asked, audit }) => {
  const made = await createGame(services(), session, asked);
  if (made.ok) await audit({ game: made.value.id, name: asked.name });
  return made;
});
